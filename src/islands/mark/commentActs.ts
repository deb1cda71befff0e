import { withWordsAdded } from '@/core/marking/choosers';
import type { OfferedComment } from '@/core/marking/commentBank';
import { groupComment, groupNote } from '@/core/marking/groupMark';
import { withCommentPoints } from '@/core/marking/markChanges';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { WorkStep } from '@/core/model/workMark';
import { actWhenRoom, say } from '@/desk/act';
import { markAnswers, markWork, type MarkStep } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { counted, points } from '@/words/format';
import type { MarkBasis } from './markBasis';

/** Words for answers: comments, notes of markers, and marks on the text itself. */
export function commentActs({ question, number, begin, place, keep }: MarkBasis) {
  const comment = (group: SameAnswers, text: string) =>
    keep(
      group,
      // A comment that a single student has stays that student's.
      (before, all) => (before.comment === groupComment(all) ? { comment: text } : {}),
      'comment',
      { joins: `comment-${question.id}-${group.id}` },
    );
  const note = (group: SameAnswers, text: string) =>
    keep(
      group,
      (before, all) => ((before.note ?? '') === groupNote(all) ? { note: text } : {}),
      'private note',
      { joins: `note-${question.id}-${group.id}` },
    );
  /** A comment of the bank was taken: what it gives or takes off goes with it where there are points. */
  const takeCommentPoints = (group: SameAnswers, { text, points: by }: OfferedComment) => {
    if (by === null || by === 0) return;
    if (group.waiting > 0)
      say(
        `Give points first: the ${by > 0 ? '+' : '−'}${points(Math.abs(by))} of this comment was not taken`,
        true,
      );
    else
      keep(group, (before) => withCommentPoints(before, { text, points: by }), 'points of a comment', {
        why: text.slice(0, 500),
      });
  };
  /** Gives others the words and the points of a comment with points. */
  const commentAlso = (
    groups: readonly SameAnswers[],
    { text, points: by }: { text: string; points: number },
  ) => {
    const ids = groups.flatMap(({ answers }) => answers.map(({ attemptId }) => attemptId));
    const said = `comment and its ${points(by)} for ${counted(ids.length, 'answer')} more`;
    const step: MarkStep = (before) => ({
      ...withCommentPoints(before, { text, points: by }),
      comment: withWordsAdded(before.comment, text),
    });
    void actWhenRoom(() =>
      markAnswers(place(ids), step, `Question ${number}: ${said}`, isoNow(), undefined, text.slice(0, 500)),
    );
  };

  /** Marks the text of equal answers that were written letter by letter the same: marks count the letters. */
  const markText = (group: SameAnswers, step: WorkStep, said: string) => {
    begin(group.id);
    const ids = group.answers.flatMap(({ attemptId, text }) => (text === group.text ? [attemptId] : []));
    void actWhenRoom(() => markWork(place(ids), step, `Question ${number}: ${said}`, isoNow()));
  };

  return { comment, note, markText, takeCommentPoints, commentAlso };
}
