import { sumBy } from 'remeda';
import { roundPoints } from '../basics/points';

/** A scheme line, as far as points go. */
export interface WorthPoints {
  id: string;
  points: number;
  groupId?: string | undefined;
}

/** The lines of a scheme and the groups they are in. */
export interface WorthScheme {
  lines: readonly WorthPoints[];
  groups: readonly { id: string; as: 'lines' | 'levels'; cap?: number | undefined }[];
}

const sumOf = (lines: readonly WorthPoints[]) => roundPoints(sumBy(lines, (line) => line.points));

/** The lines of each group, and those that stand by themselves under `null`. */
function byGroup({ lines, groups }: WorthScheme) {
  const known = new Set(groups.map(({ id }) => id));
  return [
    { group: null, lines: lines.filter(({ groupId }) => !known.has(groupId ?? '')) },
    ...groups.map((group) => ({ group, lines: lines.filter(({ groupId }) => groupId === group.id) })),
  ];
}

/** What scheme lines are worth together, each group at most its cap, before any bound of the question. */
function worthTogether(scheme: WorthScheme): number {
  return roundPoints(
    sumBy(byGroup(scheme), ({ group, lines }) =>
      Math.min(group?.cap ?? Number.POSITIVE_INFINITY, sumOf(lines)),
    ),
  );
}

const bounded = (points: number, max: number) => Math.min(max, Math.max(0, points));

/** Points for the scheme lines an answer met: their sum, each group at most its cap, never below 0 nor above `max`. */
export function schemePoints(scheme: WorthScheme, met: readonly string[], max: number): number {
  const lines = scheme.lines.filter(({ id }) => met.includes(id));
  return bounded(worthTogether({ ...scheme, lines }), max);
}

/**
 * The points that agree with the scheme lines an answer met: what they give, and where one is a level, all that is more than
 * the level below it.
 *
 * @returns both ends in points; `above` is itself not among them unless it is also `most`
 */
export function schemeRange(
  scheme: WorthScheme,
  met: readonly string[],
  max: number,
): { above: number; most: number } {
  const most = schemePoints(scheme, met, max);
  const lower = byGroup(scheme).reduce((sum, { group, lines }) => {
    const [picked] = lines.filter(({ id }) => met.includes(id));
    if (group?.as !== 'levels' || picked === undefined) return sum;
    const below = lines.map(({ points }) => points).filter((points) => points < picked.points);
    return below.length > 0 ? sum + picked.points - Math.max(...below) : sum;
  }, 0);
  return { above: bounded(most - lower, max), most };
}

/** Whether points differ from what the scheme lines met give; without any met there is nothing to differ from. */
export function differsFromScheme(
  scheme: WorthScheme,
  met: readonly string[],
  points: number,
  max: number,
): boolean {
  if (!scheme.lines.some(({ id }) => met.includes(id))) return false;
  const { above, most } = schemeRange(scheme, met, max);
  return points !== most && (points <= above || points > most);
}

/** The most that a scheme can give: lines that take off left out, of levels the best, no group more than its cap. */
export function schemeReach(scheme: WorthScheme): number {
  const best = byGroup(scheme).flatMap(({ group, lines }) => {
    const giving = lines.filter(({ points }) => points > 0);
    return group?.as === 'levels' ? giving.sort((a, b) => b.points - a.points).slice(0, 1) : giving;
  });
  return worthTogether({ ...scheme, lines: best });
}

/** The lines met once one is switched: of levels, the others of its group go. */
export function switchedLines(scheme: WorthScheme, met: readonly string[], lineId: string): string[] {
  const line = scheme.lines.find(({ id }) => id === lineId);
  const isLevel = scheme.groups.some(({ id, as }) => id === line?.groupId && as === 'levels');
  return scheme.lines
    .filter(({ id, groupId }) => {
      if (id === lineId) return !met.includes(id);
      return met.includes(id) && !(isLevel && groupId === line?.groupId);
    })
    .map(({ id }) => id);
}
