import type { LikeMark } from '@/core/marking/piles/like';
import { actWhenRoom } from '@/desk/act';
import { markAnswers, type MarkStep } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { counted, points } from '@/words/format';
import type { MarkBasis } from './markBasis';

/** Taking what is put forward. */
export function forwardActs({ question, number, entries, likes, place, acted }: MarkBasis) {
  const { actedOn, wasGiven } = acted;
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
    const followed = actedOn(rows, () => ({ waiting: 0, aside: false }));
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
      followed(markAnswers(place([...of.keys()]), step, `Question ${number}: ${said}`, isoNow())),
    );
    return true;
  };

  return { takeLike };
}

const takenWords: Record<LikeMark['from'], string> = {
  equal: 'like identical ones',
  similar: 'like similar ones',
  earlier: 'like identical ones of an earlier sitting',
  parts: 'by its parts',
};
