import { done } from '@/words/done';
import { CommandFault } from '@/core/model/commandFault';
import { bankRows, linkedCopy, type BankRow, type QuestionRecord } from '@/core/bank/bankRows';
import { kindNamed, type KindName, type Question } from '@/core/kinds';
import { BankQuestion } from '@/core/model/bank';
import { Paper } from '@/core/model/paper';
import { withAppended } from '@/core/model/parts';
import { runCommand, type Recorder } from './command';
import { newId } from './ids';
import { progress } from './queries';
import { desk } from './tables';

/** Every question of the bank and of the papers, with where it is used and how it did. */
export async function bankList(now: number): Promise<BankRow[]> {
  const [entries, papers, sittings] = await Promise.all([
    desk.bank.toArray(),
    desk.papers.toArray(),
    desk.sittings.filter((sitting) => !sitting.rehearsal && !sitting.share).toArray(),
  ]);
  const records: QuestionRecord[] = [];
  for (const sitting of sittings) {
    const stands = await progress(sitting, now);
    const { id: sittingId, title, opensAt, paperId, paperVersion } = sitting;
    const version = paperVersion === null ? undefined : await desk.paperVersions.get([paperId, paperVersion]);
    const sat = new Map(version?.questions.map((question) => [question.id, question]));
    for (const figures of stands?.progress.questions ?? [])
      records.push({
        ...figures,
        sittingId,
        title,
        opensAt,
        version: paperVersion,
        asSat: sat.get(figures.questionId) ?? null,
      });
  }
  return bankRows(entries, papers, records);
}

/** Puts a paper's question into the bank, and links it there. */
export async function putIntoBank(paperId: string, questionId: string, now: string) {
  return runCommand(
    { command: 'putIntoBank', said: done.questionToBank, about: paperId },
    now,
    async (record) => (await banked(record, paperId, questionId, now)).id,
  );
}

/** Takes a question into a paper, linked to the bank; one that is in another paper only is put into the bank first. */
export async function takeIntoPaper(row: BankRow, paperId: string, now: string) {
  return runCommand(
    { command: 'takeIntoPaper', said: done.questionFromBank, about: paperId },
    now,
    async (record) => {
      const [use] = row.uses;
      const entry = row.entry ?? (use && (await banked(record, use.paperId, use.questionId, now)));
      if (!entry) throw new CommandFault('questionGone');
      const paper = await paperWith(paperId);
      const copy = linkedCopy(entry, newId);
      await keepPaper(record, { ...paper, questions: withAppended(paper.questions, [copy]) }, now);
      return copy.id;
    },
  );
}

/** Makes the bank's question what the paper's is now. Other papers keep theirs, and are told. */
export async function putBack(paperId: string, questionId: string, now: string) {
  return runCommand({ command: 'putBack', said: done.bankUpdated, about: paperId }, now, async (record) => {
    const question = questionIn(await paperWith(paperId), questionId);
    const entry = await desk.bank.get(question.bankId ?? '');
    if (!entry) throw new CommandFault('bankQuestionGone');
    await record.put(
      'bank',
      BankQuestion.parse({ ...entry, question: loose(question, entry.id), changedAt: now }),
    );
  });
}

/** Makes the paper's question what the bank's is now; its place and its id stay. */
export async function takeOver(paperId: string, questionId: string, now: string) {
  return changeQuestion(paperId, questionId, done.questionUpdated, now, async (question) => {
    const entry = await desk.bank.get(question.bankId ?? '');
    if (!entry) throw new CommandFault('bankQuestionGone');
    const { partId } = question;
    return { ...linkedCopy(entry, () => questionId), ...(partId !== undefined && { partId }) } as Question; // of the bank's kind
  });
}

/** Makes a paper's question separate: what is changed in the bank no longer concerns it. */
export async function makeSeparate(paperId: string, questionId: string, now: string) {
  return changeQuestion(paperId, questionId, done.questionUnlinked, now, (question) => {
    const { bankId: _, ...rest } = question;
    return Promise.resolve(rest as Question); // the kind's own fields are untouched
  });
}

/** A new question of a kind, in the bank alone; gives its id. */
export async function newBankQuestion(kind: KindName, now: string) {
  const id = newId();
  const question = { ...kindNamed(kind).empty(newId), id };
  const entry = BankQuestion.parse({ id, question, createdAt: now, changedAt: now });
  return runCommand({ command: 'newBankQuestion', said: done.bankQuestionCreated }, now, async (record) => {
    await record.add('bank', entry);
    return id;
  });
}

/**
 * Keeps a changed question of the bank. Papers keep theirs, and say that it is no longer the same.
 *
 * @param joins names the field typed in, so that a run of typing is one entry in the log
 */
export async function changeBankQuestion(
  entry: BankQuestion,
  said: string,
  joins: string | undefined,
  now: string,
  base?: BankQuestion,
) {
  return runCommand({ command: 'changeBankQuestion', said, ...(joins && { joins }) }, now, (record) =>
    record.putChanged('bank', BankQuestion.parse({ ...entry, changedAt: now }), base),
  );
}

/** Takes a question out of the bank; papers keep theirs. */
export async function takeOutOfBank(id: string, now: string) {
  return runCommand({ command: 'takeOutOfBank', said: done.questionOffBank }, now, (record) =>
    record.remove('bank', [id]),
  );
}

async function changeQuestion(
  paperId: string,
  questionId: string,
  said: string,
  now: string,
  change: (question: Question) => Promise<Question>,
) {
  return runCommand({ command: 'changePaper', said, about: paperId }, now, async (record) => {
    const paper = await paperWith(paperId);
    const next = await change(questionIn(paper, questionId));
    const questions = paper.questions.map((each) => (each.id === questionId ? next : each));
    await keepPaper(record, { ...paper, questions }, now);
  });
}

/** The entry of a paper's question, made and linked where there is none. */
async function banked(
  record: Recorder,
  paperId: string,
  questionId: string,
  now: string,
): Promise<BankQuestion> {
  const paper = await paperWith(paperId);
  const question = questionIn(paper, questionId);
  const known = await desk.bank.get(question.bankId ?? '');
  if (known) return known;
  const id = newId();
  const entry = BankQuestion.parse({ id, question: loose(question, id), createdAt: now, changedAt: now });
  await record.add('bank', entry);
  const questions = paper.questions.map((each) => (each.id === questionId ? { ...each, bankId: id } : each));
  await keepPaper(record, { ...paper, questions }, now);
  return entry;
}

/** A question as the bank keeps it: in no part of any paper. */
export function loose(question: Question, id: string): Question {
  const { partId: _part, bankId: _bank, ...rest } = question;
  return { ...rest, id } as Question; // the kind's own fields are untouched
}

async function paperWith(id: string): Promise<Paper> {
  const paper = await desk.papers.get(id);
  if (!paper) throw new CommandFault('paperGone');
  return paper;
}

function questionIn(paper: Paper, id: string): Question {
  const question = paper.questions.find((each) => each.id === id);
  if (!question) throw new CommandFault('paperQuestionGone');
  return question;
}

async function keepPaper(record: Recorder, paper: Paper, now: string): Promise<void> {
  await record.put('papers', Paper.parse({ ...paper, changedAt: now }));
}
