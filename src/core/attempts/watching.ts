import { sumBy } from 'remeda';
import { mostEvents, type Attempt, type AttemptEvent } from '../model/sitting';

/** Changes of one answer within this time are one event: typing would make thousands. */
const joinsMs = 60_000;

/** The attempt with an event more; those of one question close together are one, and there is an end to them. */
export function withEvents(attempt: Attempt, more: readonly AttemptEvent[]): Attempt {
  const events = [...attempt.events];
  for (const event of more) {
    const place = events.findLastIndex(
      (each) => each.kind === 'answered' && each.questionId === event.questionId,
    );
    const before = events[place];
    const joins =
      event.kind === 'answered' &&
      before !== undefined &&
      Date.parse(event.at) - Date.parse(before.at) < joinsMs;
    if (joins) events[place] = event;
    else if (events.length < mostEvents || !isReported(event.kind)) events.push(event);
  }
  return { ...attempt, events };
}

/** What comes from the student's side while working: kept up to a bound. What ends or changes an attempt always is. */
const reportedKinds: readonly AttemptEvent['kind'][] = [
  'answered',
  'left',
  'returned',
  'cameBack',
  'tried',
  'hinted',
  'shown',
];

/** Whether an event is one of the many while a student works, and not of those that begin, end or change an attempt. */
export const isReported = (kind: string) => (reportedKinds as readonly string[]).includes(kind);

/** How often the student left the page, and whether he is away now. */
export function leavingOf(attempt: Pick<Attempt, 'events'>): { times: number; away: boolean } {
  let times = 0;
  let away = false;
  for (const { kind } of attempt.events)
    if (kind === 'left') {
      times++;
      away = true;
    } else if (kind === 'returned' || kind === 'cameBack' || kind === 'handedIn') away = false;
  return { times, away };
}

/** The student's page gives a sign of life every few seconds: none for this long, and something is wrong. */
const quietMs = 60_000;

/** Who has just begun to listen has not heard everyone yet. */
const listenFirstMs = 10_000;

/** When students were heard of, ms since 1970. */
export interface Hearing {
  /** A sign of life of this attempt; undefined: none since it is listened. */
  heardAt: (attemptId: string) => number | undefined;
  /** Since when it is listened. */
  since: number;
}

/** When a student was seen last, ms since 1970: by what was done, or by a sign of life. */
export const seenAt = (attempt: Pick<Attempt, 'id' | 'lastSeenAt'>, { heardAt }: Hearing) =>
  Math.max(Date.parse(attempt.lastSeenAt), heardAt(attempt.id) ?? -Infinity);

/** Whether nothing has been heard from a working student for a minute. */
export const isQuiet = (attempt: Pick<Attempt, 'id' | 'lastSeenAt'>, hearing: Hearing, now: number) =>
  now - seenAt(attempt, hearing) > quietMs && now - hearing.since > listenFirstMs;

/** How often questions were tried in practice, all together. */
export function triesOf(attempt: Pick<Attempt, 'practice'>): number {
  return sumBy(Object.values(attempt.practice?.records ?? {}), (record) => record.tries.length);
}
