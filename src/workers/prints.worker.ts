import { expose } from 'comlink';
import type { AnswerPaper } from '@/core/model/answerPaper';
import { fullName } from '@/core/model/names';
import { laidOut } from '@/core/intake/paper/layout';
import type { LaidPage } from '@/core/intake/paper/drawn';
import { answerPaperPdf, drawnPdf, measureWith } from '@/core/intake/paper/paperPdf';
import { stickerSheets, type StickerOf } from '@/core/intake/paper/stickers';
import { testPage, testPrint, type TestSheetWords } from '@/core/intake/paper/testSheet';
import { makePrint, pagesAgain, pageWords, type LayOut, type PrintWish } from '@/store/answerPapers';
import { setTab } from '@/store/command';
import { desk } from '@/store/tables';
import { paperKitFor } from './paperKit';
import { picturesOf } from './printPictures';
import { withMaths } from './withMaths';

/** A print and its pages as a PDF. */
export interface PrintMade {
  print: AnswerPaper;
  file: Blob;
}

/** Answer papers are laid out here: fonts and pages are large. */
const printsWorker = {
  make: async (
    wish: PrintWish,
    tab: { id: string; where: string } | null,
    now: string,
    progress: (done: number, all: number) => void,
  ): Promise<PrintMade> => {
    setTab(tab && { id: tab.id, where: () => tab.where });
    let pages: LaidPage[] = [];
    let title = '';
    const print = await makePrint(
      wish,
      async (...of) => {
        ({ title } = of[1]);
        return (pages = await layOut(...of));
      },
      now,
    );
    return { print, file: await pdfOf(print, title, pages, progress) };
  },
  again: async (printId: string, progress: (done: number, all: number) => void): Promise<PrintMade> => {
    const print = await desk.prints.get(printId);
    if (!print) throw new Error('printGone');
    const { title, pages } = await pagesAgain(print, layOut);
    return { print, file: await pdfOf(print, title, pages, progress) };
  },
  testSheet: async (words: TestSheetWords): Promise<Blob> => {
    const page = testPage(words);
    const kit = await paperKitFor(textsIn([page]));
    const about = { printId: testPrint.id, title: words.title, ...pageWords };
    return pdfBlob(await answerPaperPdf([page], [{ number: 1, name: words.title }], about, kit));
  },
  stickers: async (title: string, people: readonly StickerOf[]): Promise<Blob> => {
    const kit = await paperKitFor(people.map(({ name }) => name));
    return pdfBlob(await drawnPdf(stickerSheets(people, await measureWith(kit)), title, kit));
  },
};
export type PrintsWorker = typeof printsWorker;

/** Every text that is printed of some questions, for the fonts it needs. */
const textsOf = (value: unknown): string[] =>
  typeof value === 'string'
    ? [value]
    : value !== null && typeof value === 'object'
      ? Object.values(value).flatMap(textsOf)
      : [];

const layOut: LayOut = async (questions, words, form) => {
  const kit = await paperKitFor(textsOf([words, [...(words.parts?.values() ?? [])], questions]));
  const measure = await measureWith(kit);
  return laidOut(
    questions,
    words,
    await withMaths(measure, [words, [...(words.parts?.values() ?? [])], questions]),
    form,
  );
};

const textsIn = (pages: readonly LaidPage[]) =>
  pages.flatMap(({ drawn }) => drawn.flatMap((each) => (each.as === 'text' ? [each.text] : [])));

async function pdfOf(
  print: AnswerPaper,
  title: string,
  pages: readonly LaidPage[],
  progress: (done: number, all: number) => void,
): Promise<Blob> {
  const students = await desk.students.bulkGet(print.copies.map((id) => id ?? ''));
  const copies = print.copies.map((id, at) => {
    const student = students[at];
    return { number: at + 1, name: id !== null && student ? fullName(student) : null };
  });
  const kit = {
    ...(await paperKitFor([...textsIn(pages), ...copies.map(({ name }) => name ?? '')])),
    pictures: await picturesOf(pages),
  };
  const about = { printId: print.id, title, ...pageWords };
  return pdfBlob(await answerPaperPdf(pages, copies, about, kit, (done) => progress(done, copies.length)));
}

const pdfBlob = (pdf: Uint8Array) => new Blob([Uint8Array.from(pdf)], { type: 'application/pdf' });

expose(printsWorker);
