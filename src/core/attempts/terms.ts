import { assertNever } from '../basics/assertNever';
import type { Student } from '../model/people';
import type { Allowance, Attempt, Sitting } from '../model/sitting';

const minuteMs = 60_000;

/** Answers still under way when time ran out are taken for this long. */
export const graceMs = 10_000;

/** The rules that hold for one student in one sitting, allowances applied. Instants in ms since 1970. */
export interface Terms {
  opensAt: number;
  closesAt: number | null;
  timeLimitMs: number | null;
  extraMs: number;
  /** How many attempts the student may make in all. */
  attempts: number;
  /** Whether a new attempt may be started at the instant asked about, and if not, why. */
  start: 'open' | 'notYet' | 'over' | 'closedToStarts';
}

/**
 * What one student may do in a sitting at `now`: the one place that decides it.
 * More minutes, and percent of the time limit, move both the limit and the close. Of several windows the last given
 * holds. Another attempt, and leave to start late, also open a sitting that is closed to new starts.
 *
 * The teacher's own try-out is bound by no window and no count of attempts.
 *
 * @param student whose standing allowance holds in every sitting
 * @param allowances of this student in this sitting
 * @param now ms since 1970
 */
export function termsFor(
  student: Pick<Student, 'extraPercent' | 'role'>,
  sitting: Sitting,
  allowances: readonly Allowance[],
  now: number,
): Terms {
  let percent = student.extraPercent ?? 0;
  let extraMs = 0;
  let attempts = sitting.attempts ?? 1;
  let late = false;
  let { opensAt: opens, closesAt: closes } = sitting;
  for (const allowance of [...allowances].sort((a, b) => a.at.localeCompare(b.at)))
    switch (allowance.kind) {
      case 'minutes':
        extraMs += allowance.minutes * minuteMs;
        break;
      case 'percent':
        percent += allowance.percent;
        break;
      case 'attempt':
        attempts++;
        late = true;
        break;
      case 'lateStart':
        late = true;
        break;
      case 'window':
        opens = allowance.opensAt ?? sitting.opensAt;
        closes = allowance.closesAt ?? sitting.closesAt;
        break;
      default:
        assertNever(allowance);
    }
  if (sitting.timeLimitMs !== null) extraMs += Math.round((sitting.timeLimitMs * percent) / 100);
  const tryOut = student.role === 'tryOut';
  const opensAt = tryOut ? 0 : Date.parse(opens);
  const closesAt = tryOut || closes === null ? null : Date.parse(closes);
  if (tryOut) attempts = Infinity;
  const shut =
    sitting.closedToStartsAt !== null && Date.parse(sitting.closedToStartsAt) <= now && !late && !tryOut;
  const over = closesAt !== null && now >= closesAt + extraMs;
  const start = now < opensAt ? 'notYet' : over ? 'over' : shut ? 'closedToStarts' : 'open';
  return { opensAt, closesAt, timeLimitMs: sitting.timeLimitMs, extraMs, attempts, start };
}

/** When an attempt's time is up, ms since 1970; null when it never is. What it stood still is no time of its own. */
export function deadlineOf(attempt: Pick<Attempt, 'startedAt' | 'pausedMs'>, terms: Terms): number | null {
  const ends: number[] = [];
  if (terms.timeLimitMs !== null) ends.push(Date.parse(attempt.startedAt) + terms.timeLimitMs);
  if (terms.closesAt !== null) ends.push(terms.closesAt);
  return ends.length === 0 ? null : Math.min(...ends) + terms.extraMs + (attempt.pausedMs ?? 0);
}

export type AttemptState = 'working' | 'handedIn' | 'collected' | 'collectedByTime';

/**
 * Where an attempt stands at `now`. Time running out is computed: more minutes given afterwards let the student
 * carry on with the same answers.
 */
export function attemptState(
  attempt: Pick<Attempt, 'startedAt' | 'pausedMs' | 'handedInAt' | 'collectedAt'>,
  terms: Terms,
  now: number,
): AttemptState {
  if (attempt.handedInAt !== null) return 'handedIn';
  if (attempt.collectedAt !== null) return 'collected';
  const deadline = deadlineOf(attempt, terms);
  return deadline !== null && now >= deadline ? 'collectedByTime' : 'working';
}

/** When an attempt that is not running ended, ms since 1970; null while it runs. */
export function endOf(attempt: Attempt, terms: Terms, now: number): number | null {
  if (attempt.handedInAt !== null) return Date.parse(attempt.handedInAt);
  if (attempt.collectedAt !== null) return Date.parse(attempt.collectedAt);
  return attemptState(attempt, terms, now) === 'collectedByTime' ? deadlineOf(attempt, terms) : null;
}

/**
 * An attempt whose time ran out, with that end written down; any other as it is. What was computed so far becomes fixed
 * once another attempt follows: more minutes given later must not let it run beside that one.
 */
export function settled(attempt: Attempt, terms: Terms, now: number): Attempt {
  const deadline = deadlineOf(attempt, terms);
  if (attemptState(attempt, terms, now) !== 'collectedByTime' || deadline === null) return attempt;
  const at = new Date(deadline).toISOString();
  return {
    ...attempt,
    collectedAt: at,
    events: [...attempt.events, { kind: 'collected', at, reason: 'Time was up' }],
  };
}

/** Whether an attempt has been set aside: it is kept, and does not count. */
export const isAside = (attempt: Pick<Attempt, 'setAsideAt'>) => (attempt.setAsideAt ?? null) !== null;

/**
 * How much time was left when an attempt ended; null when it had no limit. It is what carrying it on gives back.
 */
export function leftAtEnd(attempt: Attempt, terms: Terms, now: number): number | null {
  const [deadline, end] = [deadlineOf(attempt, terms), endOf(attempt, terms, now)];
  return deadline === null || end === null ? null : Math.max(0, deadline - end);
}
