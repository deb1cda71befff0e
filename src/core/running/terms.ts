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
 * More minutes move both the time limit and the close; another attempt also opens a sitting closed to new starts.
 *
 * @param allowances of this student in this sitting
 * @param now ms since 1970
 */
export function termsFor(sitting: Sitting, allowances: readonly Allowance[], now: number): Terms {
  let extraMs = 0;
  let attempts = 1;
  for (const allowance of allowances) {
    if (allowance.kind === 'minutes') extraMs += allowance.minutes * minuteMs;
    else attempts++;
  }
  const opensAt = Date.parse(sitting.opensAt);
  const closesAt = sitting.closesAt === null ? null : Date.parse(sitting.closesAt);
  const shut =
    sitting.closedToStartsAt !== null && Date.parse(sitting.closedToStartsAt) <= now && attempts === 1;
  const over = closesAt !== null && now >= closesAt + extraMs;
  const start = now < opensAt ? 'notYet' : over ? 'over' : shut ? 'closedToStarts' : 'open';
  return { opensAt, closesAt, timeLimitMs: sitting.timeLimitMs, extraMs, attempts, start };
}

/** When an attempt's time is up, ms since 1970; null when it never is. */
export function deadlineOf(attempt: Pick<Attempt, 'startedAt'>, terms: Terms): number | null {
  const ends: number[] = [];
  if (terms.timeLimitMs !== null) ends.push(Date.parse(attempt.startedAt) + terms.timeLimitMs);
  if (terms.closesAt !== null) ends.push(terms.closesAt);
  return ends.length === 0 ? null : Math.min(...ends) + terms.extraMs;
}

export type AttemptState = 'working' | 'handedIn' | 'collected' | 'collectedByTime';

/**
 * Where an attempt stands at `now`. Time running out is computed: more minutes given afterwards let the student
 * carry on with the same answers.
 */
export function attemptState(
  attempt: Pick<Attempt, 'startedAt' | 'handedInAt' | 'collectedAt'>,
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

/** The attempt that counts: the last one. */
export function countingAttempt(attempts: readonly Attempt[]): Attempt | undefined {
  return attempts.reduce<Attempt | undefined>(
    (last, next) => (last && last.number >= next.number ? last : next),
    undefined,
  );
}
