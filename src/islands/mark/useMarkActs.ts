import type { Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/optionLetter';
import { withWordsAdded } from '@/core/marking/choosers';
import type { OfferedComment } from '@/core/marking/commentBank';
import { groupComment, groupNote } from '@/core/marking/groupMark';
import { adjustedMark, clearedPoints, givenPoints, withCommentPoints } from '@/core/marking/markChanges';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { LikeMark } from '@/core/marking/piles/like';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import { withLineSwitched } from '@/core/marking/switchLine';
import type { Adjustment } from '@/core/model/mark';
import { markAnswers, markWork, type MarkStep } from '@/store/marks';
import type { WorkStep } from '@/core/model/workMark';
import { actWhenRoom, say } from '@/desk/act';
import { isoNow } from '@/ui/clock';
import { counted, points } from '@/words/format';
import { useActed, type ActedAs } from './useActed';

export interface MarkActsProps {
  sittingId: string;
  /** Who marks. */
  markerId: string;
  question: Question;
  number: string;
  entries: readonly AnswerEntry[];
  /** What is put forward, by the id of the row. */
  likes: ReadonlyMap<string, LikeMark>;
  /** Changes once marks that were given are drawn. */
  drawnMarks: unknown;
  /** Called before anything is done to answers. */
  begin: (id: string) => void;
}

export type MarkActs = ReturnType<typeof useMarkActs>;

/** What is done to answers: points, lines, words, and putting aside. What lies in a pile marked as one has it all together. */
export function useMarkActs(props: MarkActsProps) {
  const { sittingId, markerId, question, number, entries, likes, drawnMarks, begin } = props;
  const { asActed, actedOn, wasGiven } = useActed(entries, drawnMarks);

  /** What is marked together with these: themselves, or all of a pile that is marked as one. */
  const together = (group: SameAnswers): SameAnswers[] => {
    const pile = entries.find((entry) => entry.group.id === group.id)?.pile;
    return pile?.agreed ? pile.members : [group];
  };
  const countOf = (group: SameAnswers) =>
    together(group).reduce((sum, { answers }) => sum + answers.length, 0);
  const place = (attemptIds: readonly string[]) => ({
    sittingId,
    questionId: question.id,
    attemptIds,
    markerId,
  });
  const keep = (
    group: SameAnswers,
    step: MarkStep,
    said: string,
    { joins, why, is }: { joins?: string; why?: string; is?: ActedAs } = {},
  ) => {
    const stored = is && actedOn(together(group), is);
    const attemptIds = together(group).flatMap(({ answers }) => answers.map(({ attemptId }) => attemptId));
    const now = isoNow();
    void actWhenRoom(() =>
      markAnswers(place(attemptIds), step, `Question ${number}: ${said}`, now, joins, why),
    ).then(stored);
  };
  const done = { waiting: 0, aside: false, nearMiss: null };

  const give = (group: SameAnswers, worth: number | null) => {
    begin(group.id);
    const count = counted(countOf(group), 'answer');
    if (worth === null)
      keep(group, clearedPoints, `points of ${count} cleared`, {
        is: ({ answers }) => ({ waiting: answers.length, points: null }),
      });
    else
      keep(group, givenPoints(worth), `${points(worth)} of ${points(question.points)} for ${count}`, {
        joins: `points-${question.id}-${group.id}`,
        is: () => ({ ...done, points: worth }),
      });
  };
  const awardOf = (group: SameAnswers, attemptId: string) =>
    together(group)
      .flatMap(({ answers }) => answers)
      .find((answer) => answer.attemptId === attemptId)?.award ?? { byKey: null };
  /** Gives or takes points beside what there is; null takes that back. */
  const adjust = (group: SameAnswers, adjustment: Adjustment | null) => {
    begin(group.id);
    const said = adjustment
      ? `adjusted by ${adjustment.points > 0 ? '+' : ''}${points(adjustment.points)}: ${adjustment.reason}`
      : 'adjustment removed';
    keep(group, (before) => adjustedMark(awardOf(group, before.attemptId), before, adjustment), said, {
      why: adjustment?.reason ?? '',
      is: () => done,
    });
  };
  const switchLine = (group: SameAnswers, lineId: string) => {
    begin(group.id);
    const letter = optionLetter(schemeOf(question).findIndex((line) => line.id === lineId));
    keep(
      group,
      (before, all) => withLineSwitched(question, before, all, lineId),
      `line ${letter} switched for ${counted(countOf(group), 'answer')}`,
      { is: () => done },
    );
  };
  const setAside = (group: SameAnswers) => {
    keep(
      group,
      (_before, all) => ({ aside: !all.some((mark) => mark.aside) }),
      group.aside ? 'no longer set aside' : 'set aside',
      { is: () => ({ aside: !group.aside }) },
    );
  };
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

  /** Gives the answers that wait in these rows what is put forward for them. @returns whether there was anything */
  const takeLike = (ids: readonly string[]): boolean => {
    const taken = ids.flatMap((id) => {
      const like = wasGiven(id) ? undefined : likes.get(id);
      return like ? [{ id, like }] : [];
    });
    const [first] = taken;
    if (!first) return false;
    const of = new Map(taken.flatMap(({ like }) => like.attemptIds.map((id) => [id, like] as const)));
    const rows = entries.flatMap(({ group }) => (taken.some(({ id }) => id === group.id) ? [group] : []));
    const stored = actedOn(rows, () => ({ waiting: 0, aside: false }));
    const count = counted(of.size, 'answer');
    const said =
      taken.length === 1
        ? `${points(first.like.points)} of ${points(question.points)} for ${count}, ${takenWords[first.like.from]}`
        : `${count} given what was put forward`;
    // A mark that was given since stays.
    const step: MarkStep = (before) => {
      const like = of.get(before.attemptId);
      if (!like || before.points !== null) return {};
      const { points: worth, lines, adjustment } = like;
      return { points: worth, lines, adjustment, aside: false };
    };
    void actWhenRoom(() =>
      markAnswers(place([...of.keys()]), step, `Question ${number}: ${said}`, isoNow()),
    ).then(stored);
    return true;
  };

  return {
    asActed,
    together,
    countOf,
    give,
    adjust,
    switchLine,
    setAside,
    comment,
    note,
    markText,
    takeCommentPoints,
    commentAlso,
    takeLike,
  };
}

const takenWords: Record<LikeMark['from'], string> = {
  equal: 'like identical ones',
  similar: 'like similar ones',
  earlier: 'like identical ones of an earlier sitting',
  parts: 'by its parts',
};
