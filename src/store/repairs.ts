import { sameQuestion } from '@/core/bank/bankRows';
import { kindOf, type Question } from '@/core/kinds';
import type { Wording } from '@/core/kinds/QuestionKind';
import type { RepairRule } from '@/core/kinds/repaired';
import { CommandFault } from '@/core/model/commandFault';
import type { PaperVersion } from '@/core/model/paper';
import { Repair } from '@/core/model/repair';
import type { Sitting } from '@/core/model/sitting';
import { done } from '@/words/done';
import { runCommand, type Recorder } from './command';
import { newId } from './ids';
import { loose } from './bank';
import { messageRows, type Written } from './outbox';
import { freezeContent } from './papers';
import { desk } from './tables';

/** What is to become of one question. */
export interface RepairAct {
  sittingId: string;
  /** The question of the paper as the sitting has it. */
  before: Question;
  /** The same with another key or other points; null: as it is. */
  changed: Question | null;
  itemId: string;
  rule: RepairRule | null;
  nobodyLoses: boolean;
  reason: string;
  /** Other sittings of the paper that are repaired as well. */
  also: readonly string[];
  /** Whether the question of the bank that it is linked to is changed too. */
  bank: boolean;
  /** What students are written about it. */
  messages?: readonly Written[];
}

/** The question accepting a wording for a share of the points; null for kinds that accept none. */
export const acceptingQuestion = (question: Question, wording: Wording, share: number): Question | null =>
  kindOf(question).accepting?.(question, wording, share, newId) ?? null;

/** A paper that was sat, as one sitting has it. */
export async function satVersion(sitting: Sitting): Promise<PaperVersion | undefined> {
  return sitting.paperVersion === null
    ? undefined
    : desk.paperVersions.get([sitting.paperId, sitting.paperVersion]);
}

/** Whether a paper has the question as it is, wherever it is linked to. */
const isThere = (questions: readonly Question[] | undefined, question: Question): boolean =>
  questions?.some((each) => each.id === question.id && sameQuestion(each, question)) ?? false;

/** Other sittings of the same paper that were sat with the same question. */
export async function sittingsWithQuestion({ id, paperId }: Sitting, question: Question): Promise<Sitting[]> {
  const others = await desk.sittings
    .where({ paperId })
    .filter((other) => other.id !== id && other.rehearsal !== true && other.share !== true)
    .toArray();
  const sat = await Promise.all(others.map(satVersion));
  return others.filter((_, index) => isThere(sat[index]?.questions, question));
}

/**
 * Repairs a question of a paper that was sat: in the sitting, in others that were chosen, in the paper where it has the question
 * unchanged, and in the bank where that was chosen. Marks by hand stay. One act, undone whole.
 *
 * @throws {CommandFault} where the question was changed meanwhile
 */
export async function repairQuestion(act: RepairAct, said: string, now: string) {
  const about = act.sittingId;
  const { rows } = await messageRows(about, act.messages ?? [], now);
  return runCommand({ command: 'repairQuestion', said, about }, now, async (record) => {
    const first = await desk.sittings.get(act.sittingId);
    const paper = first && (await desk.papers.get(first.paperId));
    if (!first) throw new CommandFault('paperQuestionGone');
    const { changed, before } = act;
    if (changed && paper && isThere(paper.questions, before)) {
      const questions = paper.questions.map((each) =>
        each.id === before.id ? { ...changed, ...linkOf(each) } : each,
      );
      await record.put('papers', { ...paper, questions, changedAt: now });
    }
    for (const id of [act.sittingId, ...act.also]) await repairSitting(record, id, act, now);
    const row = act.bank && before.bankId ? await desk.bank.get(before.bankId) : undefined;
    if (row && changed)
      await record.put('bank', { ...row, question: loose(changed, row.id), changedAt: now });
    if (rows.length > 0) await record.addAll('outbox', rows);
  });
}

async function repairSitting(record: Recorder, sittingId: string, act: RepairAct, now: string) {
  const { before, changed, itemId, rule, nobodyLoses, reason } = act;
  const sitting = await desk.sittings.get(sittingId);
  const sat = sitting && (await satVersion(sitting));
  if (!sitting || !sat || !isThere(sat.questions, before)) throw new CommandFault('paperChangedSince');
  if (changed) await sitWith(record, sitting, sat, changed, now);
  await record.add(
    'repairs',
    Repair.parse({
      ...{ id: newId(), sittingId, questionId: before.id, itemId, at: now },
      ...{ reason, rule, nobodyLoses, before },
    }),
  );
}

/** Scores a sitting with another question in place of the one of its id. */
async function sitWith(
  record: Recorder,
  sitting: Sitting,
  sat: PaperVersion,
  question: Question,
  now: string,
) {
  const questions = sat.questions.map((each) => (each.id === question.id ? question : each));
  const { version } = await freezeContent(record, sitting.paperId, { ...sat, questions }, now);
  await record.put('sittings', { ...sitting, paperVersion: version });
}

const linkOf = ({ bankId }: Question) => (bankId === undefined ? {} : { bankId });

/** Takes the last repair of a question back, in this sitting alone: it is scored as it was before. */
export async function withdrawRepair(id: string, number: string, now: string) {
  const repair = await desk.repairs.get(id);
  const said = done.repairWithdrawn(number);
  return runCommand(
    { command: 'withdrawRepair', said, about: repair?.sittingId ?? null },
    now,
    async (record) => {
      const sitting = repair && (await desk.sittings.get(repair.sittingId));
      const sat = sitting && (await satVersion(sitting));
      if (!sat) throw new CommandFault('paperQuestionGone');
      const later = await desk.repairs
        .where({ sittingId: sitting.id })
        .filter(({ questionId, at }) => questionId === repair.questionId && at > repair.at)
        .count();
      // Only the last can go: those after it were made on top of it.
      if (later > 0) throw new CommandFault('paperChangedSince');
      await sitWith(record, sitting, sat, repair.before, now);
      await record.remove('repairs', [id]);
    },
  );
}
