import { expose } from 'comlink';
import { prepareZXingModule } from 'zxing-wasm/reader';
import wasm from 'zxing-wasm/reader/zxing_reader.wasm?url';
import type { FileRef } from '@/core/basics/file';
import { assetId } from '@/core/basics/assetBytes';
import { orRefused, Refused, type OrRefused } from '@/core/basics/refused';
import { findCodes } from '@/core/intake/paper/codes';
import type { PileCut } from '@/core/intake/paper/piles';
import { testPrint, testVerdict, type TestVerdict } from '@/core/intake/paper/testSheet';
import { fillsPicture, readPage, readPageAs } from '@/core/intake/paper/readPage';
import { straightened } from '@/core/intake/paper/straightened';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { Scan } from '@/core/model/scan';
import { setTab } from '@/store/command';
import { newId } from '@/store/ids';
import { bringScans, placeScan } from '@/store/scans';
import { desk } from '@/store/tables';
import { foreignOf, inOrder, placedInPile, readForeign, type Foreign } from './foreignPages';
import { inked, keptPage, keptPicture, upsideDown } from './keptPages';
import { filePages, keptGray, type FilePage } from './scanPages';

prepareZXingModule({ overrides: { locateFile: () => wasm } });

type Tab = { id: string; where: string } | null;

/** A paper has no more pages. */
const mostBlanks = 60;

/** How far it is. */
export interface ScansProgress {
  file: string;
  done: number;
  all: number;
}

/** Scans of papers that were printed elsewhere, and how they are cut into papers. */
export interface Pile {
  printId: string;
  cut: PileCut;
}

/** What became of one file. */
export interface FileRead {
  name: string;
  pages: number;
  /** Pages that nobody knows yet what they are. */
  asked: number;
  /** Pages that were here already. */
  known: number;
  /** Blank sheets between papers, left out. */
  between: number;
  /** What test sheets among them showed; they are not imported. */
  tests: TestVerdict[];
  refused: Pick<Refused, 'why' | 'place' | 'detail'> | null;
}

/** Scanned files are read here, so that the page goes on and can stop it; each page is kept as soon as it is read. */
const scansWorker = {
  read: async (
    sittingId: string,
    files: readonly File[],
    pile: Pile | null,
    tab: Tab,
    now: string,
    progress: (at: ScansProgress) => void,
  ): Promise<FileRead[]> => {
    setTab(tab && { id: tab.id, where: () => tab.where });
    const prints = await printsById(sittingId);
    const done: FileRead[] = [];
    for (const file of files) {
      // What the file before brought counts its copies.
      const foreign = pile === null ? null : await foreignOf(pile.printId);
      const bytes = new Uint8Array(await file.arrayBuffer());
      const digest = await assetId(bytes);
      const read = await orRefused(() =>
        readFile(
          bytes,
          { sittingId, name: file.name, digest, now, foreign, cut: pile?.cut ?? 'count' },
          prints,
          progress,
        ),
      );
      done.push(await kept(read, file.name, sittingId, digest, now));
    }
    return done;
  },

  /** The pages of a blank paper that was printed elsewhere, kept as pictures. */
  blanks: async (files: readonly File[]): Promise<OrRefused<FileRef[]>> =>
    orRefused(async () => {
      const kept: FileRef[] = [];
      for (const file of files) {
        const { pages, close } = await filePages(new Uint8Array(await file.arrayBuffer()), file.name);
        if (kept.length + pages.length > mostBlanks) throw new Refused('tooManyPages', file.name);
        for (const page of pages) {
          const gray = await page.gray();
          kept.push(await keptPicture(straightened(gray, fillsPicture(gray)), kept.length + 1));
        }
        close();
      }
      return kept;
    }),

  /** Turns a page upside down that lies so. */
  turn: async (scanId: string, tab: Tab, now: string): Promise<void> => {
    setTab(tab && { id: tab.id, where: () => tab.where });
    const scan = await desk.scans.get(scanId);
    const asset = scan && (await desk.assets.get(scan.picture.id));
    const print = scan?.place && (await desk.prints.get(scan.place.printId));
    if (!scan?.place || !asset || !print) return;
    const turned = upsideDown(await keptGray(Uint8Array.from(asset.bytes)));
    const foreign = await foreignOf(print.id);
    const blank = foreign?.blanks[scan.place.page - 1] ?? null;
    const areas = inked(turned, print.pages[scan.place.page - 1] ?? [], blank);
    const picture = await keptPicture(turned, scan.from.page);
    await placeScan(scan, { is: 'read', place: scan.place, boxes: [], areas, picture }, now);
  },

  /** Reads a page anew as what somebody says it is. @returns whether its boxes were found */
  placeAs: async (
    scanId: string,
    place: NonNullable<Scan['place']>,
    tab: Tab,
    now: string,
  ): Promise<boolean> => {
    setTab(tab && { id: tab.id, where: () => tab.where });
    const [scan, print] = await Promise.all([desk.scans.get(scanId), desk.prints.get(place.printId)]);
    const asset = scan && (await desk.assets.get(scan.picture.id));
    if (!scan || !print || !asset) return false;
    const regions = print.pages[place.page - 1] ?? [];
    const gray = await keptGray(Uint8Array.from(asset.bytes));
    // One that was set straight before is at its place already.
    const read = readPageAs(gray, regions);
    const blank = (await foreignOf(print.id))?.blanks[place.page - 1] ?? null;
    const map = read?.placed.map ?? fillsPicture(gray);
    const page = await keptPage(gray, map, regions, read, scan.from.page, blank);
    await placeScan(scan, { is: 'read', place, ...page }, now);
    return read !== null;
  },
};
export type ScansWorker = typeof scansWorker;

async function printsById(sittingId: string): Promise<Map<string, AnswerPaper>> {
  const prints = await desk.prints.where({ sittingId }).toArray();
  return new Map([...prints, testPrint].map((print) => [print.id, print]));
}

interface Reading {
  foreign: Foreign | null;
  cut: PileCut;
  sittingId: string;
  name: string;
  digest: string;
  now: string;
}

interface ReadPages {
  scans: Scan[];
  known: number;
  tests: TestVerdict[];
}

async function readFile(
  bytes: Uint8Array<ArrayBuffer>,
  { sittingId, name, digest, now, foreign, cut }: Reading,
  prints: ReadonlyMap<string, AnswerPaper>,
  progress: (at: ScansProgress) => void,
): Promise<ReadPages> {
  const { pages, close } = await filePages(bytes, name);
  try {
    const ofFile = ({ from }: Scan) => from.digest === digest;
    const before = await desk.readPages.where({ sittingId }).filter(ofFile).toArray();
    const here = await desk.scans.where({ sittingId }).filter(ofFile).toArray();
    const scans = [...before];
    const tests: TestVerdict[] = [];
    const known = new Set([...before, ...here].map(({ from }) => from.page));
    for (const [index, page] of pages.entries()) {
      progress({ file: name, done: index, all: pages.length });
      if (known.has(index + 1)) continue;
      const read = foreign
        ? await readForeign(page, index, foreign, cut, inOrder(scans))
        : await readOne(page, index + 1, prints);
      if ('test' in read) {
        tests.push(read.test);
        continue;
      }
      const scan: Scan = {
        ...{ id: newId(), sittingId, at: now, from: { file: name, digest, page: index + 1 } },
        ...read,
      };
      await desk.readPages.put(scan);
      scans.push(scan);
    }
    progress({ file: name, done: pages.length, all: pages.length });
    // Another file may have come while this one was cut short: its copies are counted first.
    const placed = foreign ? placedInPile(inOrder(scans), foreign.print, now) : scans;
    return { scans: placed, known: here.length, tests };
  } finally {
    close();
  }
}

async function readOne(
  page: FilePage,
  number: number,
  prints: ReadonlyMap<string, AnswerPaper>,
): Promise<Pick<Scan, 'is' | 'place' | 'boxes' | 'areas' | 'picture'> | { test: TestVerdict }> {
  const gray = await page.gray();
  const outcome = await readPage(gray, prints, findCodes);
  const test = testVerdict(outcome);
  if (test) return { test };
  if (outcome.is !== 'read') {
    const picture = await keptPicture(gray, number);
    return { is: outcome.is, place: null, boxes: [], areas: [], picture };
  }
  const place = placeOf(outcome.code);
  const regions = prints.get(place.printId)?.pages[place.page - 1] ?? [];
  return { is: 'read', place, ...(await keptPage(gray, outcome.placed.map, regions, outcome, number)) };
}

const placeOf = ({ printId, copy, page }: NonNullable<Scan['place']>) => ({ printId, copy, page });

async function kept(
  read: OrRefused<ReadPages>,
  name: string,
  sittingId: string,
  digest: string,
  now: string,
): Promise<FileRead> {
  const aside = desk.readPages.where({ sittingId }).filter(({ from }) => from.digest === digest);
  if ('refused' in read) {
    // Nothing is half taken.
    await aside.delete();
    return { name, pages: 0, asked: 0, known: 0, between: 0, tests: [], refused: read.refused };
  }
  const { scans, known, tests } = read.read;
  if (scans.length > 0) await bringScans(sittingId, scans, now);
  await aside.delete();
  const between = scans.filter(({ pile }) => pile === 'between').length;
  return {
    name,
    pages: scans.length - between,
    asked: scans.filter(({ is }) => is !== 'read').length,
    known,
    between,
    tests,
    refused: null,
  };
}

expose(scansWorker);
