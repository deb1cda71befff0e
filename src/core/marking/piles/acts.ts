import type { Pile } from '../../model/pile';
import type { AnswerEntry, PileInSight } from './arrange';

/** What an act changes: piles put in place, and those taken away. */
export interface PileChange {
  put: Pile[];
  remove: string[];
}

/** Where piles are made, with ids for new ones. */
export interface PilePlace {
  sittingId: string;
  questionId: string;
  newId: () => string;
}

const made = (place: PilePlace, members: readonly string[], from: Pick<Pile, 'name' | 'agreedAt'>): Pile => ({
  id: place.newId(),
  sittingId: place.sittingId,
  questionId: place.questionId,
  name: from.name,
  members: [...members],
  agreedAt: from.agreedAt,
});

const loose = { name: '', agreedAt: null };
const idsOf = ({ members }: PileInSight) => members.map(({ id }) => id);
/** As it would be kept: with the members that are not here just now. */
const keptOf = (place: PilePlace, pile: PileInSight): Pile => pile.stored ?? made(place, idsOf(pile), loose);

/** The members of a pile are marked as one from now on, or no longer. */
export function agreed(place: PilePlace, pile: PileInSight, now: string | null): PileChange {
  return { put: [{ ...keptOf(place, pile), agreedAt: now }], remove: [] };
}

export function named(place: PilePlace, pile: PileInSight, name: string): PileChange {
  return { put: [{ ...keptOf(place, pile), name }], remove: [] };
}

/** A member stands alone from now on; it keeps the marks it has. */
export function takenOut(place: PilePlace, pile: PileInSight, id: string): PileChange {
  const kept = keptOf(place, pile);
  const rest = kept.members.filter((each) => each !== id);
  return { put: [{ ...kept, members: rest }, made(place, [id], loose)], remove: [] };
}

/** Two piles: what stands before a member, and that member with what stands after it. */
export function split(place: PilePlace, pile: PileInSight, id: string): PileChange | null {
  const kept = keptOf(place, pile);
  const at = idsOf(pile).indexOf(id);
  if (at <= 0) return null;
  const after = new Set(idsOf(pile).slice(at));
  return {
    put: [
      { ...kept, members: kept.members.filter((each) => !after.has(each)) },
      made(place, [...after], { ...kept, name: '' }),
    ],
    remove: [],
  };
}

/** One pile of two, or of answers that stood alone. It is put forward again: nobody has agreed to both. */
export function joined(
  place: PilePlace,
  above: AnswerEntry,
  below: AnswerEntry,
  stored: readonly Pile[],
): PileChange | null {
  if (above.pile !== null && above.pile.id === below.pile?.id) return null;
  const keptAs = (entry: AnswerEntry): Pile =>
    entry.pile
      ? keptOf(place, entry.pile)
      : (stored.find(({ members }) => members.includes(entry.group.id)) ??
        made(place, [entry.group.id], loose));
  const [one, other] = [keptAs(above), keptAs(below)];
  return {
    put: [
      {
        ...one,
        name: one.name || other.name,
        members: [...new Set([...one.members, ...other.members])],
        agreedAt: null,
      },
    ],
    remove: stored.some(({ id }) => id === other.id) ? [other.id] : [],
  };
}
