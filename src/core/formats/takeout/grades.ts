import type { Question } from '../../kinds';
import { numbersOf } from '../../kinds/itemNumbers';
import type { GradeScale } from '../../model/gradeScale';
import { wholeAttempt } from '../../model/mark';
import type { Group } from '../../model/people';
import { isGuest } from '../../model/names';
import type { Seat } from '../../seats/seats';
import { pointsTold } from '../../scoring/counts';
import { gradeOf } from '../../scoring/gradeOf';
import { marksThatCount } from '../../scoring/marksThatCount';
import { endOf } from '../../attempts/terms';
import { begunAt, timeTaken } from '../../attempts/timeTaken';
import { tableOf, type ExportTable, type Written } from './exportTable';

/** States as the file says them, for people and for scripts that read it. */
export const stateWords: Record<Seat['state'], string> = {
  notStarted: 'not started',
  working: 'working',
  handedIn: 'handed in',
  collected: 'collected',
  collectedByTime: 'collected (time up)',
};

/** What tables of a sitting are made from. */
export interface SittingTables {
  questions: readonly Question[];
  seats: readonly Seat[];
  groups: readonly Group[];
  scale?: GradeScale | null;
  /** ms since 1970 */
  now: number;
}

/** Who a row is about. */
export function personColumns(
  seats: readonly Pick<Seat, 'student'>[],
  groups: readonly Group[],
): Written<Pick<Seat, 'student'>>[] {
  const groupName = new Map(groups.map((group) => [group.id, group.name]));
  const fields = [...new Set(seats.flatMap(({ student }) => Object.keys(student.fields ?? {})))];
  return [
    { id: 'familyName', title: 'family name', cell: ({ student }) => student.familyName },
    { id: 'givenName', title: 'given name', cell: ({ student }) => student.givenName },
    { id: 'number', title: 'number', cell: ({ student }) => student.number },
    { id: 'email', title: 'email', cell: ({ student }) => student.email },
    {
      id: 'group',
      title: 'group',
      cell: ({ student }) =>
        isGuest(student) ? 'guest' : student.groupIds.flatMap((id) => groupName.get(id) ?? []).join('; '),
    },
    ...fields.map((name) => ({
      id: `field ${name}`,
      title: name,
      cell: ({ student }: Pick<Seat, 'student'>) => student.fields?.[name] ?? '',
    })),
  ];
}

const iso = (ms: number | null) => (ms === null ? null : new Date(ms).toISOString());
const tenths = (value: number) => Math.round(value * 10) / 10;

/**
 * The grades of a sitting, one row a student. Totals of those who are not wholly marked are what they have so far, and the
 * column `marking` says how many answers wait. Times are ISO 8601 in UTC, minutes to a tenth.
 */
export function gradesTable({ questions, seats, groups, scale, now }: SittingTables): ExportTable {
  const numbers = numbersOf(questions);
  const columns: Written<Seat>[] = [
    ...personColumns(seats, groups),
    { id: 'total', title: 'total', cell: ({ scorecard }) => scorecard?.total ?? null },
    { id: 'outOf', title: 'out of', cell: ({ scorecard }) => scorecard?.max ?? null },
    {
      id: 'percent',
      title: 'percent',
      cell: ({ scorecard }) =>
        scorecard && scorecard.max > 0 ? tenths((scorecard.total / scorecard.max) * 100) : null,
    },
    ...(scale
      ? [
          {
            id: 'grade',
            title: 'grade',
            cell: ({ scorecard }: Seat) =>
              scorecard?.final ? gradeOf(scale, { points: scorecard.total, max: scorecard.max }) : null,
          },
        ]
      : []),
    { id: 'state', title: 'state', cell: ({ state }) => stateWords[state] },
    { id: 'marking', title: 'marking', cell: markingCell },
    ...timeColumns(now),
    {
      id: 'handedBack',
      title: 'handed back',
      cell: ({ release }) => (release && !release.heldBack ? release.releasedAt : null),
    },
    {
      id: 'opened',
      title: 'times opened',
      cell: ({ release, openedAt }) => (release ? openedAt.length : null),
    },
    {
      id: 'comment',
      title: 'comment',
      cell: ({ marks }) => marksThatCount(marks).get(wholeAttempt)?.comment ?? null,
    },
    ...questions.map((question): Written<Seat> => ({
      id: `points ${question.id}`,
      set: 'points',
      title: `Q${numbers.get(question.id) ?? ''} (${question.points})`,
      cell: ({ scorecard }) => {
        const award = scorecard?.awards.find(({ questionId }) => questionId === question.id);
        return award ? pointsTold(award) : null;
      },
    })),
  ];
  return tableOf(columns, seats);
}

/** When an attempt began and ended, how long it took, and by how much it was late. */
function timeColumns(now: number): Written<Seat>[] {
  const ended = ({ attempt, terms }: Seat) => (attempt ? endOf(attempt, terms, now) : null);
  return [
    { id: 'attempt', title: 'attempt', cell: ({ attempt }) => attempt?.number ?? null },
    { id: 'started', title: 'started', cell: ({ attempt }) => attempt && begunAt(attempt) },
    { id: 'handedIn', title: 'handed in', cell: (seat) => iso(ended(seat)) },
    {
      id: 'minutes',
      title: 'minutes',
      cell: (seat) => {
        const ms = seat.attempt && ended(seat) !== null ? timeTaken(seat.attempt, seat.terms, now) : null;
        return ms === null ? null : tenths(ms / 60_000);
      },
    },
    {
      id: 'lateBy',
      title: 'late by (minutes)',
      cell: (seat) => {
        const [end, due] = [ended(seat), dueOf(seat)];
        return end === null || due === null ? null : tenths(Math.max(0, end - due) / 60_000);
      },
    },
  ];
}

/** When everyone's time was up, whatever was allowed: what came after it is late. */
function dueOf({ terms }: Seat): number | null {
  return terms.closesAt;
}

function markingCell({ attempt, scorecard }: Seat): string | null {
  if (!attempt || !scorecard) return null;
  const open = scorecard.waiting + scorecard.noKey + scorecard.notRead;
  return open === 0 ? 'complete' : `${open} open`;
}
