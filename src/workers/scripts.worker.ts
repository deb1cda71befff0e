import { expose } from 'comlink';
import { Zip, ZipPassThrough } from 'fflate';
import pdfMake from 'pdfmake/build/pdfmake';
import fonts from 'pdfmake/build/vfs_fonts';
import { base64From } from '@/core/basics/base64';
import { fileNameOf } from '@/core/formats/fileName';
import type { HandedFile } from '@/core/formats/scripts/handedPages';
import { fontsNeeded } from '@/core/formats/scripts/fontRuns';
import {
  printedScript,
  textsOf,
  type PrintedScript,
  type PrintForm,
} from '@/core/formats/scripts/printedScript';
import { scriptsDocument, type PrintablePicture, type PrintKit } from '@/core/formats/scripts/scriptDocument';
import { seatsOf } from '@/core/seats/seats';
import { sittingRecords } from '@/store/queries';
import { desk } from '@/store/tables';
import type { Measure } from '@/core/formats/typeset/wrapped';
import { measureWith } from '@/core/intake/paper/paperPdf';
import { fileOf, onWhite } from './paperCanvas';
import { paperKitFor } from './paperKit';
import { scriptFaces } from './scriptFonts';
import { hasFormulas, withMaths } from './withMaths';

pdfMake.addVirtualFileSystem(fonts);

/** How far it is. */
export interface ScriptsProgress {
  done: number;
  all: number;
}

/** What came out: a PDF of all, or a zip of one each. */
export interface ScriptsMade {
  file: Blob;
  scripts: number;
  /** Letters for which there is no font here. */
  missing: string[];
}

/** Pictures are printed no larger than so many pixels each way: sharp at the width of a page. */
const mostPixels = 1_600;

/** Scripts are laid out here one after another, so that the page goes on, can stop it, and memory holds one at a time. */
const scriptsWorker = {
  /** @param as one PDF of all for printing, or a zip of one each */
  make: async (
    wish: { sittingId: string; studentIds: string[]; form: PrintForm; as: 'pdf' | 'zip'; now: number },
    progress: (now: ScriptsProgress) => void,
  ): Promise<ScriptsMade> => {
    const scripts = await scriptsOf(wish);
    const missing = await fontsFor(scripts);
    progress({ done: 0, all: scripts.length });
    const file = wish.as === 'pdf' ? await together(scripts, progress) : await zipped(scripts, progress);
    return { file, scripts: scripts.length, missing };
  },
};
export type ScriptsWorker = typeof scriptsWorker;

async function scriptsOf({
  sittingId,
  studentIds,
  form,
  now,
}: {
  sittingId: string;
  studentIds: string[];
  form: PrintForm;
  now: number;
}): Promise<PrintedScript[]> {
  const records = await sittingRecords(sittingId);
  if (!records) return [];
  const wanted = new Set(studentIds);
  const about = {
    ...{ title: records.sitting.title, questions: records.questions, form },
    groupName: new Map(records.groups.map(({ id, name }) => [id, name])),
    scale: (await desk.grades.get(sittingId)) ?? null,
  };
  return seatsOf(records, now)
    .filter(({ student }) => wanted.has(student.id))
    .flatMap((seat) => printedScript(seat, about) ?? []);
}

/** Fetches the fonts that scripts need. @returns the letters that none has */
async function fontsFor(scripts: readonly PrintedScript[]): Promise<string[]> {
  const { faces, missing } = fontsNeeded(scripts.flatMap(textsOf), scriptFaces);
  const needed = scriptFaces.filter(({ name }) => faces.some((face) => face.name === name));
  for (const { name, url } of needed) {
    const response = await fetch(url);
    const file = `${name}.woff`;
    pdfMake.addVirtualFileSystem({ [file]: base64From(new Uint8Array(await response.arrayBuffer())) });
    pdfMake.addFonts({ [name]: { normal: file, bold: file, italics: file, bolditalics: file } });
  }
  return missing;
}

/** The pictures of a script, as a PDF can hold them. */
async function kitOf(scripts: readonly PrintedScript[]): Promise<PrintKit> {
  const pictures = new Map<string, PrintablePicture>();
  const ids = scripts.flatMap(({ questions }) =>
    questions.flatMap(({ files, drawing }) => [
      ...files.map(({ id }) => id),
      ...(drawing?.canvas ? [drawing.canvas] : []),
    ]),
  );
  for (const id of new Set(ids)) {
    const picture = await pictureOf(id);
    if (picture) pictures.set(id, picture);
  }
  if (!hasFormulas(scripts)) return { faces: scriptFaces, pictures };
  measure ??= await withMaths(await measureWith(await paperKitFor([])), scripts);
  return { faces: scriptFaces, pictures, measure };
}

/** What sets formulas, once there were any. */
let measure: Measure | null = null;

/** A picture as JPEG, no larger than it prints; null for what is none. */
async function pictureOf(id: string): Promise<PrintablePicture | null> {
  const asset = await desk.assets.get(id);
  if (!asset?.mediaType.startsWith('image/')) return null;
  try {
    const bitmap = await createImageBitmap(new Blob([asset.bytes], { type: asset.mediaType }));
    const { canvas } = onWhite(bitmap, mostPixels / Math.max(bitmap.width, bitmap.height));
    const { width, height } = canvas;
    const jpeg = await fileOf(canvas, 'image/jpeg');
    return { url: `data:image/jpeg;base64,${base64From(jpeg)}`, width, height };
  } catch {
    // A picture that this browser can't draw is named instead.
    return null;
  }
}

const pdfOf = async (
  scripts: readonly PrintedScript[],
  pages?: ReadonlyMap<string, number>,
): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(
    await pdfMake
      .createPdf(scriptsDocument(scripts, { ...(await kitOf(scripts)), ...(pages && { pages }) }))
      .getBuffer(),
  );

/** What stands behind a script: files of it that are PDFs, and pages that were scanned. */
const behind = ({ form, questions, pages }: PrintedScript): Omit<HandedFile, 'bytes'>[] =>
  form === 'first'
    ? []
    : [
        ...questions.flatMap(({ files, work }) =>
          files.flatMap(({ id, mediaType }) => (mediaType === 'application/pdf' ? [{ id, work }] : [])),
        ),
        ...pages.map(({ fileId, work }) => ({ id: fileId, is: 'jpeg' as const, work })),
      ];

/** One script, and behind it the pages of the PDFs that were handed in with it, and those that were scanned. */
async function wholeScript(script: PrintedScript): Promise<Uint8Array<ArrayBuffer>> {
  const wanted = behind(script);
  if (wanted.length === 0) return pdfOf([script]);
  // Only here: most scripts have none.
  const { pagesIn, withHandedPages } = await import('@/core/formats/scripts/handedPages');
  const assets = await desk.assets.bulkGet(wanted.map(({ id }) => id));
  const handed = wanted.flatMap((file, index) => {
    const bytes = assets[index]?.bytes;
    return bytes ? [{ ...file, bytes }] : [];
  });
  const pages = new Map<string, number>();
  for (const { id, is, bytes } of handed) {
    if (is === 'jpeg') continue;
    const count = await pagesIn(bytes);
    if (count !== null) pages.set(id, count);
  }
  return withHandedPages(await pdfOf([script], pages), handed);
}

async function together(
  scripts: readonly PrintedScript[],
  progress: (now: ScriptsProgress) => void,
): Promise<Blob> {
  const all = scripts.length;
  if (scripts.every((script) => behind(script).length === 0)) {
    const pdf = await pdfOf(scripts);
    progress({ done: all, all });
    return new Blob([pdf], { type: 'application/pdf' });
  }
  // Each with its own pages behind it: one after another, then joined.
  const { joinedPdf } = await import('@/core/formats/scripts/handedPages');
  const parts: Uint8Array[] = [];
  for (const script of scripts) {
    parts.push(await wholeScript(script));
    progress({ done: parts.length, all });
  }
  return new Blob([await joinedPdf(parts)], { type: 'application/pdf' });
}

/** One PDF each, put into the zip as it is made: the browser keeps the parts, and one script at a time is in memory. */
async function zipped(
  scripts: readonly PrintedScript[],
  progress: (now: ScriptsProgress) => void,
): Promise<Blob> {
  const parts: Blob[] = [];
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    parts.push(new Blob([Uint8Array.from(chunk)]));
  });
  const names = new Set<string>();
  for (const [index, script] of scripts.entries()) {
    const entry = new ZipPassThrough(freeName(fileNameOf(`${script.name} ${script.title}`), names));
    zip.add(entry);
    entry.push(await wholeScript(script), true);
    progress({ done: index + 1, all: scripts.length });
  }
  zip.end();
  return new Blob(parts, { type: 'application/zip' });
}

/** Two students of one name have a file each. */
function freeName(name: string, taken: Set<string>): string {
  let free = `${name}.pdf`;
  for (let n = 2; taken.has(free); n++) free = `${name} ${n}.pdf`;
  taken.add(free);
  return free;
}

expose(scriptsWorker);
