import type { Question } from '../../kinds';
import { numbersOf } from '../../kinds/itemNumbers';
import type { Group } from '../../model/people';
import { isGuest } from '../../model/names';
import type { Seat } from '../../seats/seats';
import { pointsTold } from '../../scoring/counts';
import { endOf } from '../../attempts/terms';
import { csvFrom } from './table';

/** States as the file says them, for people and for scripts that read it. */
const stateWords: Record<Seat['state'], string> = {
  notStarted: 'not started',
  working: 'working',
  handedIn: 'handed in',
  collected: 'collected',
  collectedByTime: 'collected (time up)',
};

/**
 * The grades of a sitting as CSV, one row a student. Totals of those who are not wholly marked are what they have
 * so far, and the column `marking` says how many answers wait. Times are ISO 8601 in UTC, minutes to a tenth.
 *
 * @param now ms since 1970
 * @param withMark whether to begin with the UTF-8 byte order mark, which some spreadsheets want
 */
export function gradesCsv(
  questions: readonly Question[],
  seats: readonly Seat[],
  groups: readonly Group[],
  now: number,
  withMark: boolean,
): string {
  const groupName = new Map(groups.map((group) => [group.id, group.name]));
  const numbers = numbersOf(questions);
  const header = [
    ...[
      'family name',
      'given name',
      'number',
      'email',
      'group',
      'total',
      'out of',
      'percent',
      'state',
      'marking',
    ],
    ...['attempt', 'started', 'handed in', 'minutes'],
    ...questions.map((question) => `Q${numbers.get(question.id) ?? ''} (${question.points})`),
  ];
  const rows = seats.map((seat) => gradesRow(questions, seat, groupName, now));
  return csvFrom([header, ...rows], withMark);
}

function gradesRow(
  questions: readonly Question[],
  { student, attempt, scorecard, state, terms }: Seat,
  groupName: ReadonlyMap<string, string>,
  now: number,
): (string | number | null)[] {
  const groups = isGuest(student)
    ? 'guest'
    : student.groupIds.flatMap((id) => groupName.get(id) ?? []).join('; ');
  const person = [student.familyName, student.givenName, student.number, student.email, groups];
  if (!attempt || !scorecard)
    return [...person, null, null, null, stateWords[state], ...emptyFrom(questions)];
  const end = endOf(attempt, terms, now);
  const open = scorecard.waiting + scorecard.noKey;
  const pointsOf = new Map(scorecard.awards.map((award) => [award.questionId, pointsTold(award)]));
  return [
    ...person,
    scorecard.total,
    scorecard.max,
    scorecard.max === 0 ? null : Math.round((scorecard.total / scorecard.max) * 1000) / 10,
    stateWords[state],
    open === 0 ? 'complete' : `${open} open`,
    attempt.number,
    attempt.startedAt,
    end === null ? null : new Date(end).toISOString(),
    end === null ? null : Math.round((end - Date.parse(attempt.startedAt)) / 6000) / 10,
    ...questions.map((question) => pointsOf.get(question.id) ?? null),
  ];
}

/** The cells after the state for someone who has no attempt: marking, attempt, three times, then the questions. */
function emptyFrom(questions: readonly Question[]): null[] {
  return new Array<null>(5 + questions.length).fill(null);
}
