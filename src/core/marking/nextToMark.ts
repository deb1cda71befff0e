import type { SameAnswers } from './sameAnswers';

/**
 * Where a marker goes on: the next answers after `fromId` that wait and are not put aside, from the top again at
 * the end, those first for which nothing is put forward: what is can be taken together then. After them those put forward as
 * nearly right, until the marker decides; then those put aside. Null when nothing is left.
 */
export function nextToMark(
  groups: readonly SameAnswers[],
  fromId: string | null,
  forward: { has: (id: string) => boolean } = nothingForward,
): SameAnswers | null {
  const at = groups.findIndex((group) => group.id === fromId);
  const others = at < 0 ? groups.length : groups.length - 1;
  const ahead = (wanted: (group: SameAnswers) => boolean): SameAnswers | null => {
    for (let step = 1; step <= others; step++) {
      const group = groups[(at + step) % groups.length];
      if (group && wanted(group)) return group;
    }
    return null;
  };
  return (
    ahead((group) => group.waiting > 0 && !group.aside && !forward.has(group.id)) ??
    ahead((group) => group.waiting > 0 && !group.aside) ??
    ahead((group) => group.nearMiss !== null && !group.aside) ??
    ahead((group) => group.aside)
  );
}

const nothingForward: ReadonlySet<string> = new Set();

/** How many things to mark are left: groups of equal answers that wait. */
export function leftToMark(groups: readonly SameAnswers[]): number {
  return groups.filter((group) => group.waiting > 0).length;
}
