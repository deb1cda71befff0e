import { sumBy } from 'remeda';
import { unordered } from '../../basics/shuffled';
import type { Pile } from '../../model/pile';
import type { SameAnswers } from '../sameAnswers';

/** A pile as the marker sees it. */
export interface PileInSight {
  /** The stored pile's, or made from its first member where it is only put forward. */
  id: string;
  name: string;
  /** Whether its members are marked as one. */
  agreed: boolean;
  /** Kept by an act of the marker's; else it is the computer's proposal alone. */
  stored: Pile | null;
  /** The commonest wording first. */
  members: SameAnswers[];
}

/** One row of the answers: equal answers, and the pile they are in. */
export interface AnswerEntry {
  group: SameAnswers;
  /** Null where it stands alone. */
  pile: PileInSight | null;
  /** Whether it is the pile's first: the others are shown by how they differ from it. */
  heads: boolean;
  /** A pile marked as one that it is near to without being in it, as an answer that came late; it stands below it. */
  fits?: PileInSight;
}

/**
 * Equal answers in piles: those the marker made hold, what is put forward fills the rest. Each group stands in exactly one
 * place. Piles come first, the largest before, with what came later and fits a pile that is marked as one below it; then what
 * stands alone, in the order it came in.
 *
 * @param proposed group ids that are near each other, as `nearPiles` gives them
 */
export function arranged(
  groups: readonly SameAnswers[],
  stored: readonly Pile[],
  proposed: readonly (readonly string[])[],
): AnswerEntry[] {
  const entries =
    (latest && again(latest, { groups, stored, proposed })) ?? fromNothing(groups, stored, proposed);
  latest = { groups, stored, proposed, entries };
  return entries;
}

interface Arranged {
  groups: readonly SameAnswers[];
  stored: readonly Pile[];
  proposed: readonly (readonly string[])[];
  entries: AnswerEntry[];
}

/** What was arranged last: a mark changes one group in it. */
let latest: Arranged | null = null;

/** The rows of before with the groups that changed in place of theirs; null where one may stand otherwise now. */
function again(before: Arranged, now: Omit<Arranged, 'entries'>): AnswerEntry[] | null {
  const { groups } = now;
  if (before.stored !== now.stored || before.proposed !== now.proposed) return null;
  if (before.groups.length !== groups.length) return null;
  const put = new Map<SameAnswers, SameAnswers>();
  for (let at = 0; at < groups.length; at++) {
    const [was, is] = [before.groups[at], groups[at]];
    if (was === is) continue;
    if (!was || !is || !standsAs(is, was)) return null;
    put.set(was, is);
  }
  if (put.size === 0) return before.entries;
  const piles = new Map<PileInSight, PileInSight>();
  const pileNow = (pile: PileInSight): PileInSight => {
    const known = piles.get(pile);
    if (known) return known;
    const members = pile.members.map((group) => put.get(group) ?? group);
    const is = members.some((group, at) => group !== pile.members[at]) ? { ...pile, members } : pile;
    piles.set(pile, is);
    return is;
  };
  return before.entries.map((entry) => {
    const group = put.get(entry.group) ?? entry.group;
    const pile = entry.pile && pileNow(entry.pile);
    const fits = entry.fits && pileNow(entry.fits);
    if (group === entry.group && pile === entry.pile && fits === entry.fits) return entry;
    return { ...entry, group, pile, ...(fits && { fits }) };
  });
}

/** Whether a group has its place where it was before: by what `byCommonest` and the size of a pile look at. */
const standsAs = (group: SameAnswers, before: SameAnswers): boolean =>
  group.id === before.id &&
  group.answers.length === before.answers.length &&
  group.text.length === before.text.length;

function fromNothing(
  groups: readonly SameAnswers[],
  stored: readonly Pile[],
  proposed: readonly (readonly string[])[],
): AnswerEntry[] {
  const left = new Map(groups.map((group) => [group.id, group]));
  const take = (ids: readonly string[]): SameAnswers[] =>
    ids
      .flatMap((id) => {
        const group = left.get(id);
        left.delete(id);
        return group ? [group] : [];
      })
      .sort(byCommonest);
  const piles: PileInSight[] = [];
  const alone = new Set<string>();
  for (const pile of stored) {
    const members = take(pile.members);
    if (members.length > 1)
      piles.push({ id: pile.id, name: pile.name, agreed: pile.agreedAt !== null, stored: pile, members });
    else for (const { id } of members) alone.add(id);
  }
  const pileOf = new Map(piles.flatMap((pile) => pile.members.map(({ id }) => [id, pile] as const)));
  const fitting = new Map<PileInSight, SameAnswers[]>();
  for (const ids of proposed) {
    const near = ids.filter((id) => left.has(id));
    const [pile, ...others] = new Set(ids.flatMap((id) => pileOf.get(id) ?? []));
    if (pile?.agreed && others.length === 0) {
      fitting.set(pile, [...(fitting.get(pile) ?? []), ...take(near)]);
      continue;
    }
    if (near.length < 2) continue;
    const members = take(near);
    piles.push({ id: `near ${members[0]?.id}`, name: '', agreed: false, stored: null, members });
  }
  const size = ({ members }: PileInSight) => sumBy(members, ({ answers }) => answers.length);
  piles.sort((a, b) => size(b) - size(a) || ((a.members[0]?.id ?? '') < (b.members[0]?.id ?? '') ? -1 : 1));
  const entries: AnswerEntry[] = piles.flatMap((pile) => [
    ...pile.members.map((group, at) => ({ group, pile, heads: at === 0 })),
    ...(fitting.get(pile) ?? []).map((group) => ({ group, pile: null, heads: true, fits: pile })),
  ]);
  for (const group of groups)
    if (left.has(group.id) || alone.has(group.id)) entries.push({ group, pile: null, heads: true });
  return entries;
}

const byCommonest = (a: SameAnswers, b: SameAnswers) =>
  b.answers.length - a.answers.length || a.text.length - b.text.length || (a.id < b.id ? -1 : 1);

/**
 * The rows that want the marker: those that wait, are put forward or set aside, and the one the marker is at. Where the first of
 * a pile is left out, the next one heads it.
 */
export function wantingEntries(entries: readonly AnswerEntry[], currentId: string | null): AnswerEntry[] {
  const headed = new Set<string>();
  return entries
    .filter(
      ({ group }) => group.waiting > 0 || group.nearMiss !== null || group.aside || group.id === currentId,
    )
    .map((entry) => {
      if (entry.pile === null || headed.has(entry.pile.id)) return entry;
      headed.add(entry.pile.id);
      return entry.heads ? entry : { ...entry, heads: true };
    });
}

/** The same rows in an order that says nothing of what is in them, and is the same for all markers; blank ones last. */
export function shuffledEntries(entries: readonly AnswerEntry[], seed: string): AnswerEntry[] {
  const units = new Map<string, { id: string; rows: AnswerEntry[] }>();
  for (const entry of entries) {
    const pile = entry.pile ?? entry.fits;
    const id = pile ? `pile ${pile.id}` : entry.group.id;
    const unit = units.get(id) ?? { id, rows: [] };
    units.set(id, unit);
    unit.rows.push(entry);
  }
  const mixed = unordered([...units.values()], seed);
  const isBlank = ({ rows }: { rows: AnswerEntry[] }) => Number(rows[0]?.group.blank ?? false);
  return mixed.sort((a, b) => isBlank(a) - isBlank(b)).flatMap(({ rows }) => rows);
}
