import { isIn, type Seat } from '../seats/seats';
import { totalShare } from '../scoring/scoreAttempt';
import type { Group } from '../model/people';

/** One way to divide a class, with the shares of the points in each part. */
export interface Divider {
  id: string;
  /** What it is divided by: "group", or a field of the register. */
  label: string;
  parts: { name: string; shares: number[] }[];
}

/** More parts than this are no picture. */
const mostParts = 12;

/**
 * The ways in which a class can be divided and compared: by group, by a field of the register, by which attempt counts, by the
 * version that was drawn. Only those with two parts or more.
 *
 * @param seats of students who are in
 */
export function subgroups(groups: readonly Group[], seats: readonly Seat[]): Divider[] {
  const known = new Set(groups.map(({ id }) => id));
  const names = new Map(groups.map(({ id, name }) => [id, name]));
  const fields = new Set(seats.flatMap(({ student }) => Object.keys(student.fields ?? {})));
  const dividers = [
    divided('group', 'group', seats, ({ student }) =>
      student.groupIds.filter((id) => known.has(id)).map((id) => names.get(id) ?? ''),
    ),
    ...[...fields].map((field) =>
      divided(`field ${field}`, field, seats, ({ student }) => [student.fields?.[field] ?? '']),
    ),
    divided('attempt', 'attempt', seats, ({ attempt }) => (attempt ? [`Attempt ${attempt.number}`] : [])),
    divided('questions', 'questions drawn', seats, ({ attempt }) =>
      attempt ? [versionName(attempt.questionIds, seats)] : [],
    ),
  ];
  return dividers.filter(({ parts }) => parts.length > 1 && parts.length <= mostParts);
}

function divided(
  id: string,
  label: string,
  seats: readonly Seat[],
  partsOf: (seat: Seat) => string[],
): Divider {
  const parts = new Map<string, number[]>();
  for (const seat of seats) {
    const share = isIn(seat) && seat.scorecard ? totalShare(seat.scorecard) : null;
    if (share === null) continue;
    for (const name of partsOf(seat))
      if (name.trim() !== '') parts.set(name, [...(parts.get(name) ?? []), share]);
  }
  return {
    id,
    label,
    parts: [...parts].map(([name, shares]) => ({ name, shares })).sort((a, b) => (a.name < b.name ? -1 : 1)),
  };
}

/** The same questions, in whatever order, are one version. */
function versionName(questionIds: readonly string[], seats: readonly Seat[]): string {
  const own = [...questionIds].sort().join(' ');
  const all = [
    ...new Set(seats.flatMap(({ attempt }) => (attempt ? [[...attempt.questionIds].sort().join(' ')] : []))),
  ].sort();
  return `Version ${all.indexOf(own) + 1}`;
}
