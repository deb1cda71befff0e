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
  const ahead = [...groups.slice(at + 1), ...groups.slice(0, Math.max(0, at))];
  return (
    ahead.find((group) => group.waiting > 0 && !group.aside && !forward.has(group.id)) ??
    ahead.find((group) => group.waiting > 0 && !group.aside) ??
    ahead.find((group) => group.nearMiss !== null && !group.aside) ??
    ahead.find((group) => group.aside) ??
    null
  );
}

const nothingForward: ReadonlySet<string> = new Set();

/** How many things to mark are left: groups of equal answers that wait. */
export function leftToMark(groups: readonly SameAnswers[]): number {
  return groups.filter((group) => group.waiting > 0).length;
}
