import type { Content, ContentText, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { counted } from '../../basics/counted';
import type { RichText } from '../../basics/richText';
import { plainText } from '../../basics/richWords';
import { inkPath } from '../../kinds/working/inkPath';
import { heightOf, sheetWidth } from '../../kinds/working/strokes';
import { isLayerMark, marksOn, surfaces } from '../../marking/work/layer';
import { layerPath } from '../../marking/work/layerPath';
import { textRuns } from '../../marking/work/textRuns';
import type { LayerMark } from '../../model/workMark';
import { hasMaths, setText, type SetText } from '../typeset/setText';
import { svgOf } from '../typeset/svgOf';
import type { Measure } from '../typeset/wrapped';
import { fontRuns, isRightToLeft, rightToLeftLines, type FontFace } from './fontRuns';
import type { PrintedQuestion, PrintedScript } from './printedScript';

/** A picture that can be printed: JPEG or PNG as a data URL, with its size in pixels. */
export interface PrintablePicture {
  url: string;
  width: number;
  height: number;
}

/** What a document is laid out with. */
export interface PrintKit {
  faces: readonly FontFace[];
  /** By the id of the file; what is not here is named. */
  pictures: ReadonlyMap<string, PrintablePicture>;
  /** How many pages of a file that is a PDF stand behind the script; absent: none. */
  pages?: ReadonlyMap<string, number>;
  /** Measures letters and sets formulas; absent: these stand as they were typed. */
  measure?: Measure;
}

/** Scripts as one document, A4, each on pages of its own, that reads in black and white. */
export function scriptsDocument(scripts: readonly PrintedScript[], kit: PrintKit): TDocumentDefinitions {
  return {
    info: {
      title: scripts.length === 1 ? `${scripts[0]?.title}: ${scripts[0]?.name}` : (scripts[0]?.title ?? ''),
    },
    pageSize: 'A4',
    pageMargins: [46, 44, 46, 48],
    defaultStyle: { fontSize: 10, lineHeight: 1.15, color: '#000000' },
    footer: (page, pages) => ({
      text: `${page} / ${pages}`,
      alignment: 'center',
      fontSize: 8,
      margin: [0, 14, 0, 0],
    }),
    content: scripts.flatMap((script, index) => [
      ...firstPage(script, kit, index > 0),
      ...(script.form === 'first' ? [] : script.questions.map((row) => printedQuestion(row, script, kit))),
    ]),
  };
}

/** A text in the fonts its letters need; from right to left where it runs so. */
function said(text: string, { faces }: PrintKit, style: Partial<ContentText> = {}): Content {
  const paragraphs = text.split('\n').map((paragraph): Content => {
    if (!isRightToLeft(paragraph)) return { ...style, text: fontRuns(paragraph, faces) };
    const lines = rightToLeftLines(paragraph).map((words) => ({
      ...style,
      alignment: 'right' as const,
      noWrap: true,
      text: words.flatMap((word, place) => [...(place > 0 ? [{ text: ' ' }] : []), ...fontRuns(word, faces)]),
    }));
    return { stack: lines };
  });
  return paragraphs.length === 1 ? (paragraphs[0] ?? '') : { stack: paragraphs };
}

const figure = (value: number) => String(Math.round(value * 100) / 100);

/** Who and what, the total, and the points and lines of every question. */
function firstPage(script: PrintedScript, kit: PrintKit, breaks: boolean): Content[] {
  const { title, name, about, total, max, scoredMax, grade, questions, form, comment } = script;
  const marked = form !== 'answers';
  const totalWords =
    scoredMax < max
      ? `${figure(total)} of ${figure(scoredMax)} points so far`
      : `${figure(total)} of ${figure(max)} points`;
  const heading = ['Question', 'Points', 'Of', 'Lines met'].map((text, column): TableCell => ({
    text,
    bold: true,
    alignment: column === 1 || column === 2 ? 'right' : 'left',
  }));
  return [
    {
      stack: [said(name, kit, { fontSize: 18, bold: true })],
      ...(breaks && { pageBreak: 'before' as const }),
    },
    said([title, about].filter(Boolean).join(' · '), kit, { margin: [0, 2, 0, 8] }),
    ...(marked
      ? [
          {
            text: [
              { text: totalWords, fontSize: 14, bold: true },
              ...(max > 0 && scoredMax === max ? [{ text: `  ${Math.round((total / max) * 100)}%` }] : []),
              ...(grade === null ? [] : [{ text: `  Grade ${grade}`, bold: true }]),
            ],
            margin: [0, 0, 0, 8] as [number, number, number, number],
          },
          ...(comment ? [said(comment, kit, { margin: [0, 0, 0, 8], italics: true })] : []),
          {
            layout: 'lightHorizontalLines',
            margin: [0, 0, 0, 12] as [number, number, number, number],
            table: {
              headerRows: 1,
              widths: ['auto', 'auto', 'auto', '*'],
              body: [heading, ...questions.map((row) => pointsRow(row, kit))],
            },
          },
        ]
      : []),
  ];
}

function pointsRow({ number, points, max, lines }: PrintedQuestion, kit: PrintKit): TableCell[] {
  const met = lines.filter((line) => line.met).map(({ text }) => text);
  return [
    { text: number },
    { text: points === null ? '–' : figure(points), alignment: 'right' },
    { text: figure(max), alignment: 'right' },
    said(met.join('; '), kit),
  ];
}

/** A question with the work, the marks on it, and what the marker says. */
function printedQuestion(row: PrintedQuestion, script: PrintedScript, kit: PrintKit): Content {
  const { number, stem, words, points, max, comments, lines, drawing, files, work } = row;
  const marked = script.form === 'marked';
  const blank = !words.trim() && !drawing && files.length === 0;
  return {
    margin: [0, 0, 0, 12],
    stack: [
      {
        columns: [
          { width: 34, text: number, bold: true },
          { width: '*', stack: [asked(stem, kit)] },
          {
            width: 60,
            text: marked && points !== null ? `${figure(points)} / ${figure(max)}` : `/ ${figure(max)}`,
            bold: true,
            alignment: 'right',
          },
        ],
      },
      {
        margin: [34, 3, 0, 0],
        stack: [
          ...(blank ? [{ text: blankWords[row.wordless ?? 'blank'], italics: true }] : []),
          ...(words.trim() ? answered(row, kit) : []),
          ...(drawing ? [drawn(drawing, row, kit)] : []),
          ...files.map((file) => printedFile(file, row, kit)),
          ...layerNotes(
            work.flatMap((mark) => ('on' in mark ? [mark] : [])),
            kit,
            script.pages.flatMap((page) => page.work.filter(isLayerMark)),
          ),
          ...lines.map(({ text, points: worth, met, group }): Content =>
            said(`${met ? '+' : '–'} ${group ? `${group}: ` : ''}${text} (${figure(worth)})`, kit, {
              fontSize: 9,
              color: met ? '#000000' : '#555555',
            }),
          ),
          ...comments.map((text) => said(`» ${text}`, kit, { bold: true, margin: [0, 2, 0, 0] })),
        ],
      },
    ],
  };
}

/** What is said of an answer that has no words. */
const blankWords = {
  blank: 'not answered',
  onPaper: 'on paper, see the pages behind',
  notRead: 'on paper, not read yet',
};

/** As wide as a question is between its number and its points, in mm. */
const stemMm = 140;
const stemColour = '#333333';

/** What is asked; with formulas it is set in lines of its own. */
function asked(stem: RichText, kit: PrintKit): Content {
  const plain = plainText(stem);
  const { measure } = kit;
  if (!measure?.maths || !hasMaths(stem) || isRightToLeft(plain))
    return said(plain, kit, { color: stemColour });
  return setIn(setText(stem, { width: stemMm, size: 10 }, measure), stemMm, stemColour);
}

/** What was answered; lines of formulas are set where nothing is marked in them. */
function answered(row: PrintedQuestion, kit: PrintKit): Content[] {
  const { words, set, work } = row;
  const { measure } = kit;
  if (!set || !measure?.maths || work.some((mark) => !isLayerMark(mark))) return markedWords(words, row, kit);
  const lines = set.maths.map((latex) => {
    const line = { type: 'doc' as const, content: [{ type: 'inlineMath' as const, attrs: { latex } }] };
    return setIn(setText(line, { width: stemMm, size: 10 }, measure), stemMm);
  });
  return [...(set.words ? [said(set.words, kit)] : []), ...lines];
}

const setIn = (text: SetText, width: number, colour?: string): Content => ({
  svg: svgOf(text, width, colour),
  width: (width * 72) / 25.4,
});

/** The student's own words with the marks over them; the words in the margin stand beneath, by number. */
function markedWords(words: string, { work }: PrintedQuestion, kit: PrintKit): Content[] {
  const { runs, margin, loose } = textRuns(words, work);
  // Without marks a text may run from right to left; with marks it keeps its letters' own order.
  if (runs.length < 2 && margin.length + loose.length === 0) return [said(words, kit)];
  const parts = runs.flatMap(({ text, marks, inserted }) => [
    ...inserted.map((mark) => ({ text: ` ‸${mark.text}‸ `, bold: true, italics: true })),
    ...fontRuns(text, kit.faces).map((run) => {
      const has = (is: string) => marks.some((mark) => mark.is === is);
      const decoration = has('struck')
        ? ('lineThrough' as const)
        : has('underlined')
          ? ('underline' as const)
          : null;
      return {
        ...run,
        ...(decoration && { decoration }),
        ...(has('highlighted') && { background: '#e4e4e4' }),
      };
    }),
    ...marks
      .filter((mark) => mark.is === 'words' && text !== '' && words.slice(mark.from, mark.to).endsWith(text))
      .map((mark) => ({ text: `[${margin.indexOf(mark) + 1}]`, bold: true, fontSize: 8 })),
  ]);
  return [
    { text: parts },
    ...margin.map((mark, index) => said(`[${index + 1}] ${mark.text}`, kit, { bold: true, fontSize: 9 })),
    ...loose.map((mark) => said(`${mark.quote}: ${mark.text}`, kit, { bold: true, fontSize: 9 })),
  ];
}

/** As wide as the column of answers, in points. */
const widest = 460;
const highestPicture = 560;

/** A picture with marks over it, as SVG in thousandths of its width. */
function overlaid(inside: string, height: number, marks: readonly LayerMark[]): Content {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 1000 ${height}">${inside}${layerSvg(marks)}</svg>`;
  const width = Math.min(widest, (highestPicture * 1000) / height);
  return { svg, width, margin: [0, 3, 0, 3] };
}

const image = ({ url }: PrintablePicture, height: number) =>
  `<image x="0" y="0" width="1000" height="${height}" xlink:href="${url}"/>`;

const heightIn = ({ width, height }: PrintablePicture) => Math.max(1, Math.round((1000 * height) / width));

function drawn(
  { lines, canvas }: NonNullable<PrintedQuestion['drawing']>,
  { work }: PrintedQuestion,
  { pictures }: PrintKit,
): Content {
  const under = canvas === null ? undefined : pictures.get(canvas);
  const height = heightOf(under) * (1000 / sheetWidth);
  const ink = lines.map((line) => `<path d="${inkPath([...line])}" fill="#000000"/>`).join('');
  const frame = `<rect x="0" y="0" width="1000" height="${height}" fill="none" stroke="#999999" stroke-width="2"/>`;
  return overlaid(
    `${under ? image(under, height) : ''}${frame}${ink}`,
    height,
    marksOn(work, surfaces.drawing),
  );
}

function printedFile(file: PrintedQuestion['files'][0], { work }: PrintedQuestion, kit: PrintKit): Content {
  const picture = kit.pictures.get(file.id);
  if (!picture) {
    const pages = kit.pages?.get(file.id);
    const where = pages === undefined ? '' : ` (${counted(pages, 'page')}, behind this script)`;
    return said(`File: ${file.name}${where}`, kit, { italics: true });
  }
  const height = heightIn(picture);
  return overlaid(image(picture, height), height, marksOn(work, surfaces.file(file.id)));
}

/** Marks as SVG, each with a pale edge under it so that it is seen on dark and on light. */
function layerSvg(marks: readonly LayerMark[]): string {
  const notes = marks.filter(({ is }) => is === 'note');
  return marks
    .map((mark) => {
      const [x = 0, y = 0] = mark.points;
      if (mark.is === 'note')
        return `<circle cx="${x}" cy="${y}" r="22" fill="#ffffff" stroke="#000000" stroke-width="4"/><text x="${x}" y="${y + 10}" text-anchor="middle" font-size="28">${notes.indexOf(mark) + 1}</text>`;
      const d = layerPath(mark);
      const line = (width: number, colour: string) =>
        `<path d="${d}" fill="none" stroke="${colour}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"/>`;
      return line(14, '#ffffff') + line(7, '#b3261e');
    })
    .join('');
}

const notesOn = (surface: string, marks: readonly LayerMark[]) =>
  marks.filter((mark) => mark.on === surface && mark.is === 'note');

/** What notes of a layer say, by the numbers they have in it. */
const layerNotes = (
  marks: readonly LayerMark[],
  kit: PrintKit,
  /** Marks of other questions that lie on the same pages: notes are counted by page. */
  beside: readonly LayerMark[] = [],
): Content[] => {
  const on = [...new Set(marks.map((mark) => mark.on))];
  return on.flatMap((surface) =>
    notesOn(surface, beside.some((mark) => mark.on === surface) ? beside : marks).flatMap((mark, index) =>
      marks.some(({ id }) => id === mark.id)
        ? [said(`${index + 1}: ${mark.text}`, kit, { bold: true, fontSize: 9 })]
        : [],
    ),
  );
};
