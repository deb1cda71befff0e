import { groupBy } from '../basics/groupBy';
import { isIn, type Seat } from '../seats/seats';
import type { Question } from '../kinds';
import type { PaperPart } from '../model/paper';
import { totalShare } from '../scoring/scoreAttempt';
import type { Group } from '../model/people';

/** One way to divide a class, with the shares of the points in each part. */
export interface Divider {
  id: string;
  /** What it is divided by: "group", or a field of the register. */
  label: string;
  parts: { name: string; shares: number[] }[];
  /** Whether the same students are in every part, as with topics: then parts are not held against each other. */
  same: boolean;
}

/** More parts than this are no picture. */
const mostParts = 12;

/**
 * The ways in which a class or its paper can be divided and compared: by group, by a field of the register, by topic, by part of
 * the paper, by which attempt counts, by the version that was drawn. Only those with two parts or more.
 *
 * @param seats of students who are in
 */
export function subgroups(
  groups: readonly Group[],
  questions: readonly Question[],
  parts: readonly PaperPart[],
  seats: readonly Seat[],
): Divider[] {
  const known = new Set(groups.map(({ id }) => id));
  const names = new Map(groups.map(({ id, name }) => [id, name]));
  const fields = new Set(seats.flatMap(({ student }) => Object.keys(student.fields ?? {})));
  const versionOf = versionNames(seats);
  const dividers = [
    divided('group', 'group', seats, ({ student }) =>
      student.groupIds.filter((id) => known.has(id)).map((id) => names.get(id) ?? ''),
    ),
    ...[...fields].map((field) =>
      divided(`field ${field}`, field, seats, ({ student }) => [student.fields?.[field] ?? '']),
    ),
    byQuestions('topic', 'topic', seats, topicsOf(questions)),
    byQuestions(
      'part',
      'part of the paper',
      seats,
      parts.map(({ id, title }) => ({
        name: title,
        ids: questions.filter(({ partId }) => partId === id).map((question) => question.id),
      })),
    ),
    divided('attempt', 'attempt', seats, ({ attempt }) => (attempt ? [`Attempt ${attempt.number}`] : [])),
    divided('questions', 'questions drawn', seats, ({ attempt }) => versionOf.get(attempt?.id ?? '') ?? []),
  ];
  return dividers.filter(({ parts }) => parts.length > 1 && parts.length <= mostParts);
}

function divided(
  id: string,
  label: string,
  seats: readonly Seat[],
  partsOf: (seat: Seat) => string | string[],
): Divider {
  const placed = seats.flatMap((seat) => {
    const share = isIn(seat) && seat.scorecard ? totalShare(seat.scorecard) : null;
    const names = [partsOf(seat)].flat().filter((name) => name.trim() !== '');
    return share === null ? [] : names.map((name) => ({ name, share }));
  });
  return {
    id,
    label,
    same: false,
    parts: [...groupBy(placed, ({ name }) => name)]
      .map(([name, of]) => ({ name, shares: of.map(({ share }) => share) }))
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  };
}

/** Which version each attempt had, by its id: the same questions, in whatever order, are one. */
function versionNames(seats: readonly Seat[]): Map<string, string> {
  const attempts = seats.flatMap(({ attempt }) => attempt ?? []);
  const drawn = new Map(attempts.map(({ id, questionIds }) => [id, [...questionIds].sort().join(' ')]));
  const numbers = new Map([...new Set(drawn.values())].sort().map((ids, index) => [ids, index + 1]));
  return new Map([...drawn].map(([id, ids]) => [id, `Version ${numbers.get(ids)}`]));
}

/** Each tag with the questions that have it. */
export function topicsOf(questions: readonly Question[]): { name: string; ids: string[] }[] {
  const tagged = questions.flatMap(({ id, tags }) => tags.map((name) => ({ name, id })));
  return [...groupBy(tagged, ({ name }) => name)].map(([name, of]) => ({
    name,
    ids: of.map(({ id }) => id),
  }));
}

/** The shares that students have of some of the questions, as far as they have points. */
function byQuestions(
  id: string,
  label: string,
  seats: readonly Seat[],
  parts: readonly { name: string; ids: readonly string[] }[],
): Divider {
  return {
    ...{ id, label, same: true },
    parts: parts
      .map(({ name, ids }) => {
        const of = new Set(ids);
        return { name, shares: seats.flatMap((seat) => partShare(seat, of) ?? []) };
      })
      .filter(({ shares }) => shares.length > 0)
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  };
}

/** What a student has of the points of some questions, 0 to 1; null where none of them has points yet. */
export function partShare({ scorecard }: Pick<Seat, 'scorecard'>, ids: ReadonlySet<string>): number | null {
  let [points, max] = [0, 0];
  for (const award of scorecard?.awards ?? [])
    if (ids.has(award.questionId) && award.points !== null) {
      points += award.points;
      max += award.max;
    }
  return max > 0 ? points / max : null;
}
