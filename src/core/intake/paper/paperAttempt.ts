import { groupBy } from '../../basics/groupBy';
import { inWords } from '../../basics/pictures';
import { around } from '../../basics/rect';
import { kindOf, type Question, type StudentQuestion } from '../../kinds';
import { itemsOf } from '../../kinds/items';
import { paperOf } from '../../kinds/papers';
import type { AnswerPaper, Region } from '../../model/answerPaper';
import type { PaperContent } from '../../model/paper';
import { allShuffled, drawnQuestions } from '../../model/parts';
import type { Scan, ScannedBox } from '../../model/scan';
import type { Answer, AnswerPicture, Attempt, NotRead } from '../../model/sitting';
import type { BroughtPlace } from '../broughtAttempt';
import { answersOnPaper, type AnswersOnPaper, type SettledBox } from './answersOnPaper';
import type { PartHead } from './layout';
import { body } from './sheet';

/** In which order a print has its questions and options, and how it is laid out. */
export type PrintOrder = Pick<AnswerPaper, 'seed' | 'mixed' | 'layout'>;

/** A question as it stands on a print. */
export function asPrinted(question: Question, { seed, mixed }: PrintOrder): StudentQuestion {
  const kind = kindOf(question);
  return kind.forStudent(
    mixed ? (kind.withShuffle?.(question, true) ?? question) : question,
    `${seed} ${question.id}`,
  );
}

const drawnFor = (paper: PaperContent, { mixed, seed }: PrintOrder): Question[] =>
  drawnQuestions(mixed ? allShuffled(paper) : paper, seed);

/** The questions of a paper as they are printed, in that order. */
export const printedQuestions = (paper: PaperContent, order: PrintOrder): StudentQuestion[] =>
  itemsOf(drawnFor(paper, order)).map((question) => {
    const printed = asPrinted(question, order);
    return order.layout === 2 ? printed : inWords(printed);
  });

/** The headings of its parts, each by the question before which it stands. */
export function printedParts(paper: PaperContent, order: PrintOrder): Map<string, PartHead> {
  const heads = new Map<string, PartHead>();
  if (order.layout !== 2) return heads;
  const drawn = drawnFor(paper, order);
  for (const part of paper.parts ?? []) {
    const first = drawn.find(({ partId }) => partId === part.id);
    if (first) heads.set(first.id, part);
  }
  return heads;
}

/** The scans of one copy that count, by page, from 1; the clearest first. */
export function scansOf(
  print: Pick<AnswerPaper, 'id'>,
  copy: number,
  scans: readonly Scan[],
): Map<number, Scan[]> {
  const own = scans.filter(
    ({ place, thrownOutAt }) =>
      thrownOutAt === undefined && place?.printId === print.id && place.copy === copy,
  );
  const doubts = ({ boxes }: Scan) => boxes.filter(({ state }) => state === 'doubtful').length;
  return groupBy(
    [...own].sort((a, b) => doubts(a) - doubts(b)),
    ({ place }) => place?.page ?? 0,
  );
}

/** A row of boxes of a question. */
export interface RowPlace {
  questionId: string;
  part: string;
}

/** The places of what is of one row among others. */
export const inRow =
  ({ questionId, part }: RowPlace) =>
  (region: Pick<Region, 'questionId' | 'part' | 'box'>): boolean =>
    region.questionId === questionId && region.part === part && region.box !== null;

/** What can be ticked on a page, in the order in which its boxes are read. */
const boxRegions = (regions: readonly Region[] = []): Region[] => regions.filter(({ box }) => box !== null);

/** The boxes of a scan with what they are on its page. */
export function boxesOf({ pages }: Pick<AnswerPaper, 'pages'>, { place, boxes }: Scan): SettledBox[] {
  return boxRegions(pages[(place?.page ?? 0) - 1]).map((region, at) => {
    const read = boxes[at];
    return read?.settled
      ? { region, state: read.settled, settled: true }
      : { region, state: read?.state ?? 'doubtful' };
  });
}

/** A scan with one row of boxes as somebody saw it; the same scan where the row is not on its page. @param ticked ids of boxes */
export function withSettled(
  { pages }: Pick<AnswerPaper, 'pages'>,
  scan: Scan,
  row: RowPlace,
  ticked: readonly string[],
): Scan {
  const regions = boxRegions(pages[(scan.place?.page ?? 0) - 1]);
  if (!regions.some(inRow(row))) return scan;
  const boxes = regions.map((region, at): ScannedBox => {
    const read = scan.boxes[at] ?? { state: 'doubtful', ink: 0 };
    if (!inRow(row)(region)) return read;
    // A tick that was taken back stays one.
    const not = read.state === 'filled' ? 'filled' : 'empty';
    return { ...read, settled: ticked.includes(region.box ?? '') ? 'ticked' : not };
  });
  return { ...scan, boxes };
}

/** What the scanned pages of one copy say. @param questions as the teacher has them, of the version that was printed */
export function readCopy(
  print: AnswerPaper,
  copy: number,
  questions: readonly Question[],
  scans: readonly Scan[],
): AnswersOnPaper {
  const pages = scansOf(print, copy, scans);
  return answersOnPaper(
    print,
    questions.map((question) => asPrinted(question, print)),
    new Map([...pages].map(([page, all]) => [page, all.map((scan) => boxesOf(print, scan))])),
  );
}

/**
 * The attempt that the scanned pages of one copy are; null where none of its pages was ever there. What a teacher typed stays as long
 * as its page does.
 *
 * @param questions those of the printed version, in its order
 * @param scans all of the sitting
 * @param before the attempt as it was made of these pages, or of some of them
 */
export function paperAttempt(
  print: AnswerPaper,
  copy: number,
  questions: readonly Question[],
  scans: readonly Scan[],
  before: Attempt | null,
  place: BroughtPlace,
): Attempt | null {
  const pages = scansOf(print, copy, scans);
  if (pages.size === 0 && !before) return null;
  const on = readCopy(print, copy, questions, scans);
  const printed = new Set(print.pages.flatMap((page) => page.map(({ questionId }) => questionId)));
  const given = questions.filter(({ id }) => printed.has(id));
  const answers: Record<string, Answer> = {};
  const unread: Record<string, NotRead> = {};
  for (const question of given) {
    const was = before?.answers[question.id];
    const pictures = picturesOf(print, question.id, pages);
    const typed = was?.typed && pictures.length > 0 ? was : undefined;
    const asked = asPrinted(question, print);
    const response =
      typed?.response ?? on.answers[question.id] ?? paperOf(asked).fromTicks(asked, {}) ?? undefined;
    const fault = on.notRead[question.id];
    const byHand = kindOf(question).scoredBy === 'hand';
    const why: NotRead | undefined =
      fault ?? (!typed && !byHand && on.written[question.id] ? 'written' : undefined);
    if (why) unread[question.id] = why;
    if (!response || pictures.length === 0) continue;
    const next: Answer = {
      response,
      at: was?.at ?? place.now,
      pictures,
      ...(typed && { typed: true as const }),
    };
    const same =
      was && JSON.stringify([was.response, was.typed]) === JSON.stringify([response, typed?.typed]);
    answers[question.id] = same ? next : { ...next, at: place.now };
  }
  const files = [...pages.values()].flatMap((all) => all.map(({ picture }) => picture));
  const { now, ...fixed } = place;
  return {
    ...(before ?? {
      ...fixed,
      comeBack: [],
      startedAt: now,
      handedInAt: now,
      collectedAt: null,
      events: [{ kind: 'broughtIn', at: now }],
      source: 'paper',
    }),
    questionIds: given.map(({ id }) => id),
    lastSeenAt: now,
    answers,
    files,
    copy: { printId: print.id, number: copy },
    unread,
  };
}

/** Around boxes and their words so much more is shown, in mm. */
const margin = 1.5;

/** Where an answer stands on the pages that are there: each area by itself, boxes with their words as wide as the page. */
function picturesOf(
  print: AnswerPaper,
  questionId: string,
  pages: ReadonlyMap<number, readonly Scan[]>,
): AnswerPicture[] {
  return print.pages.flatMap((all, index) => {
    const [scan] = pages.get(index + 1) ?? [];
    if (!scan) return [];
    const { id: fileId } = scan.picture;
    const areas = all.filter(({ box }) => box === null);
    const own = all.filter((region) => region.questionId === questionId);
    const boxes = own.filter(({ box }) => box !== null);
    return [
      ...(boxes.length > 0 ? [{ fileId, at: asWide(around(boxes, margin)), boxes: true as const }] : []),
      ...own.flatMap((region): AnswerPicture[] =>
        region.box === null
          ? [
              {
                fileId,
                at: print.foreign ? around([region], margin) : withMargin(region),
                ...(scan.areas[areas.indexOf(region)] === false && { empty: true as const }),
              },
            ]
          : [],
      ),
    ];
  });
}

const asWide = ({ y, h }: { y: number; h: number }) => ({ x: body.x, y, w: body.w, h });

/** With the margin beside it, where marks go. */
const withMargin = ({ y, h }: Region) => asWide({ y: y - margin, h: h + 2 * margin });
