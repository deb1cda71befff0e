import { plainText } from '@/core/basics/richWords';
import type { FileRef } from '@/core/basics/file';
import type { AnswerPaper } from '@/core/model/answerPaper';
import { CommandFault } from '@/core/model/commandFault';
import { Paper, type PaperContent } from '@/core/model/paper';
import type { PaperWords } from '@/core/intake/paper/layout';
import type { LaidPage } from '@/core/intake/paper/drawn';
import { printedParts, printedQuestions, type PrintOrder } from '@/core/intake/paper/paperAttempt';
import { withAppended } from '@/core/model/parts';
import { kindNamed, Question, type StudentQuestion } from '@/core/kinds';
import { done } from '@/words/done';
import { paperWords } from '@/words/onPaper';
import { runCommand, type Recorder } from './command';
import { newId } from './ids';
import { freezePaper } from './papers';
import { desk } from './tables';

/** What is to be printed. */
export interface PrintWish {
  sittingId: string;
  /** What it is called where there are several. */
  name: string;
  /** Questions and options in an order of their own. */
  mixed: boolean;
  /** Boxes and areas alone. */
  sheet: boolean;
  /** How many figures of a student's number can be ticked; 0: none. */
  digits: number;
  /** Whose each copy is; null: the name is written in. */
  copies: (string | null)[];
}

/** Lays questions out on pages, with what stands beside them. */
export type LayOut = (
  questions: readonly StudentQuestion[],
  words: PaperWords,
  form: Pick<AnswerPaper, 'form' | 'digits'>,
) => Promise<LaidPage[]>;

/** What stands on every page of answer papers. */
export const pageWords = { name: paperWords.name, page: paperWords.page };

/** Makes answer papers: the paper is fixed from then on, and the map of their regions is kept. */
export async function makePrint(
  { sittingId, name, mixed, sheet, digits, copies }: PrintWish,
  layOut: LayOut,
  now: string,
): Promise<AnswerPaper> {
  const { title, paper } = await paperOfSitting(sittingId);
  const order = { seed: newId(), layout: 2 as const, ...(mixed && { mixed: true as const }) };
  const form = { ...(sheet && { form: 'sheet' as const }), ...(digits > 0 && { digits }) };
  // Before the transaction: fonts are fetched for it.
  const pages = await layOut(printedQuestions(paper, order), wordsOf(title, paper, order), form);
  const { result } = await runCommand(
    { command: 'makePrint', said: done.printMade(copies.length), about: sittingId },
    now,
    async (record) => {
      const paperVersion = await fixedVersion(record, sittingId, now);
      const print: AnswerPaper = {
        ...{ id: newId(), sittingId, paperVersion, at: now, name, ...order, ...form, copies },
        pages: pages.map(({ regions }) => regions),
      };
      await record.add('prints', print);
      return print;
    },
  );
  return result;
}

/** The pages of a print, laid out once more. @throws where they would lie elsewhere than they were printed */
export async function pagesAgain(
  print: AnswerPaper,
  layOut: LayOut,
): Promise<{ title: string; pages: LaidPage[] }> {
  const sitting = await desk.sittings.get(print.sittingId);
  const paper = sitting && (await desk.paperVersions.get([sitting.paperId, print.paperVersion]));
  if (!sitting || !paper) throw new CommandFault('printGone');
  const pages = await layOut(printedQuestions(paper, print), wordsOf(sitting.title, paper, print), print);
  if (
    !samePlaces(
      pages.map(({ regions }) => regions),
      print.pages,
    )
  )
    throw new CommandFault('printChanged');
  return { title: sitting.title, pages };
}

/** So much elsewhere, in mm, a box is read all the same. */
const sameMm = 0.05;

/** Whether two maps of regions say the same. */
const samePlaces = (a: AnswerPaper['pages'], b: AnswerPaper['pages']): boolean =>
  a.length === b.length &&
  a.every((regions, page) => {
    const others = b[page] ?? [];
    return (
      regions.length === others.length &&
      regions.every((one, at) => {
        const other = others[at];
        if (!other || one.questionId !== other.questionId || one.part !== other.part || one.box !== other.box)
          return false;
        return (['x', 'y', 'w', 'h'] as const).every((side) => Math.abs(one[side] - other[side]) < sameMm);
      })
    );
  });

const wordsOf = (title: string, paper: PaperContent, print: PrintOrder): PaperWords => ({
  title,
  instructions: print.layout === 2 ? paper.instructions : plainText(paper.instructions),
  parts: printedParts(paper, print),
  rule: paperWords.rule,
  number: paperWords.number,
  points: paperWords.points,
});

/** What is printed of a sitting: the version that is sat, or the paper as it stands. */
async function paperOfSitting(sittingId: string): Promise<{ title: string; paper: PaperContent }> {
  const sitting = await desk.sittings.get(sittingId);
  if (!sitting) throw new CommandFault('sittingOrStudentGone');
  const paper =
    sitting.paperVersion === null
      ? await desk.papers.get(sitting.paperId)
      : await desk.paperVersions.get([sitting.paperId, sitting.paperVersion]);
  if (!paper) throw new CommandFault('paperGone');
  return { title: sitting.title, paper };
}

/** A question that a region was drawn for, marked by hand. */
export interface NewQuestion {
  id: string;
  stem: string;
  points: number;
}

/** A paper that somebody else printed, with where its answers stand. */
export interface ForeignPaper {
  sittingId: string;
  name: string;
  blanks: FileRef[];
  nameAt: NonNullable<AnswerPaper['foreign']>['name'];
  /** By page, in mm of a page that is as wide and high as A4. */
  regions: AnswerPaper['pages'];
  /** Added to the paper, which was not sat yet. */
  fresh?: readonly NewQuestion[];
}

/** Keeps where answers stand on a paper that was printed elsewhere. Its copies are counted as they are scanned. */
export const makeForeign = (
  { sittingId, name, blanks, nameAt, regions, fresh = [] }: ForeignPaper,
  now: string,
) =>
  runCommand({ command: 'makePrint', said: done.regionsKept, about: sittingId }, now, async (record) => {
    await addQuestions(record, sittingId, fresh, now);
    const paperVersion = await fixedVersion(record, sittingId, now);
    await record.add('prints', {
      ...{ id: newId(), sittingId, paperVersion, at: now, name, seed: newId(), copies: [], pages: regions },
      foreign: { blanks, name: nameAt },
    } satisfies AnswerPaper);
  });

/** Adds questions to the paper of a sitting that nobody sat yet. */
async function addQuestions(
  record: Recorder,
  sittingId: string,
  fresh: readonly NewQuestion[],
  now: string,
): Promise<void> {
  if (fresh.length === 0) return;
  const sitting = await desk.sittings.get(sittingId);
  const draft = sitting && (await desk.papers.get(sitting.paperId));
  if (!draft) throw new CommandFault('sittingOrStudentGone');
  if (sitting.paperVersion !== null) throw new CommandFault('paperSat');
  const questions = fresh.map(({ id, stem, points }) =>
    Question.parse({ ...kindNamed('openText').empty(newId), id, stem, points, scheme: [] }),
  );
  const paper = { ...draft, questions: withAppended(draft.questions, questions), changedAt: now };
  await record.putChanged('papers', Paper.parse(paper), draft);
}

/** The version of a sitting's paper; from now on it is fixed. */
async function fixedVersion(record: Recorder, sittingId: string, now: string): Promise<number> {
  const sitting = await desk.sittings.get(sittingId);
  const draft = sitting && (await desk.papers.get(sitting.paperId));
  if (!sitting || !draft) throw new CommandFault('sittingOrStudentGone');
  const paperVersion = sitting.paperVersion ?? (await freezePaper(record, draft, now)).version;
  if (sitting.paperVersion === null) await record.put('sittings', { ...sitting, paperVersion });
  return paperVersion;
}

/** Takes a print away of which nothing was scanned. */
export const removePrint = (print: Pick<AnswerPaper, 'id' | 'sittingId'>, now: string) =>
  runCommand(
    { command: 'removePrint', said: done.printRemoved, about: print.sittingId },
    now,
    async (record) => {
      const scanned = await desk.scans
        .where({ sittingId: print.sittingId })
        .filter(({ place }) => place?.printId === print.id)
        .count();
      if (scanned === 0) await record.remove('prints', [print.id]);
    },
  );
