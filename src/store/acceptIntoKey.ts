import { kindOf, type Question } from '@/core/kinds';
import type { Wording } from '@/core/kinds/QuestionKind';
import { CommandFault } from '@/core/model/commandFault';
import { runCommand } from './command';
import { newId } from './ids';
import { freezePaper, sameContent } from './papers';
import { desk } from './tables';

/** A question that accepts a wording for a share of the points; null for kinds that accept none. */
export const acceptingQuestion = (question: Question, wording: Wording, share: number): Question | null =>
  kindOf(question).accepting?.(question, wording, share, newId) ?? null;

/**
 * Accepts a wording into the key of a question, in the paper and in what the sitting is scored with. Overrides stay.
 *
 * @param share of the points that it gives, 0 to 1
 * @throws {CommandFault} where the paper was changed since the sitting: nothing else may slip into its scores
 */
export async function acceptIntoKey(
  sittingId: string,
  questionId: string,
  wording: Wording,
  share: number,
  said: string,
  now: string,
) {
  return runCommand({ command: 'acceptIntoKey', said, about: sittingId }, now, async (record) => {
    const sitting = await desk.sittings.get(sittingId);
    const paper = sitting && (await desk.papers.get(sitting.paperId));
    const question = paper?.questions.find(({ id }) => id === questionId);
    if (!sitting || !paper || !question) throw new CommandFault('paperQuestionGone');
    const sat = await desk.paperVersions.get([paper.id, sitting.paperVersion ?? 0]);
    if (!sat || !sameContent(sat, paper)) throw new CommandFault('paperChangedSince');
    const changed = acceptingQuestion(question, wording, share);
    if (!changed) return;
    const questions = paper.questions.map((each) => (each.id === questionId ? changed : each));
    const next = { ...paper, questions, changedAt: now };
    await record.put('papers', next);
    const { version } = await freezePaper(record, next, now);
    await record.put('sittings', { ...sitting, paperVersion: version });
  });
}
