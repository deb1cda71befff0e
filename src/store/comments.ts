import { BankComment } from '@/core/model/bankComment';
import type { HandMark } from '@/core/model/mark';
import { runCommand } from './command';
import { newId } from './ids';
import { desk } from './tables';

/** The rows of the comment bank that matter at a question: its own, and those for all. */
export const bankCommentsFor = async (questionId: string): Promise<BankComment[]> =>
  (await desk.commentBank.toArray()).filter(
    (row) => row.questionId === null || row.questionId === questionId,
  );

/** Comments on the same question in other sittings of the same paper. */
export async function commentsElsewhere(
  sittingId: string,
  questionId: string,
): Promise<Pick<HandMark, 'questionId' | 'comment'>[]> {
  const sitting = await desk.sittings.get(sittingId);
  const others = await desk.sittings.where({ paperId: sitting?.paperId ?? '' }).toArray();
  const marks: Pick<HandMark, 'questionId' | 'comment'>[] = [];
  for (const { id } of others.filter((each) => each.id !== sittingId && !each.rehearsal))
    for (const { comment } of await desk.marks.where({ sittingId: id, questionId }).toArray())
      if (comment) marks.push({ questionId, comment });
  return marks;
}

/** A comment as it is put in the bank: the same words for the same question are the same comment. */
export type PutComment = Omit<BankComment, 'id'> & { id?: string };

/** Puts comments in the bank, or changes what is there. */
export async function changeCommentBank(rows: readonly PutComment[], said: string, now: string) {
  return runCommand({ command: 'changeCommentBank', said }, now, async (record) => {
    const there = await desk.commentBank.toArray();
    for (const row of rows) {
      const same = there.find((each) => each.text === row.text && each.questionId === row.questionId);
      await record.put('commentBank', BankComment.parse({ ...row, id: row.id ?? same?.id ?? newId() }));
    }
  });
}

/** Takes rows out of the bank for good. */
export async function removeFromCommentBank(ids: readonly string[], said: string, now: string) {
  return runCommand({ command: 'changeCommentBank', said }, now, async (record) => {
    for (const id of ids) await record.remove('commentBank', [id]);
  });
}
