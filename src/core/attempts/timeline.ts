import type { Allowance, Attempt, AttemptEvent } from '../model/sitting';
import { endOf, type Terms } from './terms';
import { isReported } from './watching';

/** What happened to one question: when it was answered, tried, helped with. Instants in ms since 1970. */
export interface Lane {
  questionId: string;
  ticks: { at: number; kind: 'answered' | 'tried' | 'hinted' | 'shown' }[];
  /** How long it was in front of the student; null where that is not known. */
  timeOnMs: number | null;
}

/** One thing in the course of an attempt, in the order of time. */
export interface Happening {
  at: number;
  kind: AttemptEvent['kind'] | 'allowance' | 'timeUp' | 'cameLate' | 'lateCounts' | 'lateNot';
  reason?: string;
  questionId?: string;
  allowance?: Allowance;
}

/** The course of one attempt, to be drawn and read. */
export interface Timeline {
  from: number;
  to: number;
  lanes: Lane[];
  /** When the page was left, until it was come back to. */
  away: { from: number; to: number }[];
  happenings: Happening[];
}

const laneKinds = ['answered', 'tried', 'hinted', 'shown'] as const;
const isLaneKind = (kind: Happening['kind']): kind is (typeof laneKinds)[number] =>
  (laneKinds as readonly string[]).includes(kind);

/**
 * The whole course of an attempt: what the student did, what the teacher did to it, and what was allowed meanwhile.
 * An answer that no event tells of (kept by an older version) stands at the time it was last changed.
 *
 * @param now ms since 1970
 */
export function timelineOf(
  attempt: Attempt,
  allowances: readonly Allowance[],
  terms: Terms,
  now: number,
): Timeline {
  const from = Date.parse(attempt.startedAt);
  const ended = endOf(attempt, terms, now);
  const told = new Set(
    attempt.events.flatMap(({ kind, questionId }) => (isLaneKind(kind) && questionId ? [questionId] : [])),
  );
  const happenings: Happening[] = [
    ...attempt.events.map(({ at, ...event }) => ({ ...event, at: Date.parse(at) })),
    ...allowances
      .filter((allowance) => Date.parse(allowance.at) >= from)
      .map((allowance) => ({
        at: Date.parse(allowance.at),
        kind: 'allowance' as const,
        reason: allowance.reason,
        allowance,
      })),
    // Of what came from elsewhere nobody knows when it was answered.
    ...Object.entries(attempt.source ? {} : attempt.answers)
      .filter(([questionId]) => !told.has(questionId))
      .map(([questionId, { at }]) => ({ at: Date.parse(at), kind: 'answered' as const, questionId })),
  ];
  happenings.push(...lateHappenings(attempt));
  if (ended !== null && attempt.handedInAt === null && attempt.collectedAt === null)
    happenings.push({ at: ended, kind: 'timeUp' });
  happenings.sort((a, b) => a.at - b.at);
  const to = Math.max(from, ended ?? now, ...happenings.map(({ at }) => at));
  return {
    from,
    to,
    lanes: attempt.questionIds.map((questionId) => ({
      questionId,
      ticks: happenings.flatMap(({ at, kind, questionId: of }) =>
        of === questionId && isLaneKind(kind) ? [{ at, kind }] : [],
      ),
      timeOnMs: attempt.timeOnMs?.[questionId] ?? null,
    })),
    away: awayTimes(happenings, ended ?? now),
    happenings,
  };
}

/** What came after the end, and what was decided about it. */
function lateHappenings({ late = [] }: Attempt): Happening[] {
  return late.flatMap(({ at, questionId, decision }) => [
    { at: Date.parse(at), kind: 'cameLate' as const, questionId },
    ...(decision
      ? [
          {
            at: Date.parse(decision.at),
            kind: decision.counts ? ('lateCounts' as const) : ('lateNot' as const),
            questionId,
            reason: decision.reason,
          },
        ]
      : []),
  ]);
}

/** Happenings in the order of time, with answers that follow one another as one. */
export function inRuns(happenings: readonly Happening[]): { first: Happening; questionIds: string[] }[] {
  const runs: { first: Happening; questionIds: string[] }[] = [];
  for (const each of happenings) {
    const before = runs.at(-1);
    const joins =
      each.kind === 'answered' ||
      each.kind === 'cameLate' ||
      each.kind === 'lateCounts' ||
      each.kind === 'lateNot';
    if (joins && before?.first.kind === each.kind && before.first.reason === each.reason && each.questionId) {
      if (!before.questionIds.includes(each.questionId)) before.questionIds.push(each.questionId);
    } else runs.push({ first: each, questionIds: each.questionId ? [each.questionId] : [] });
  }
  return runs;
}

/** Whether it was the teacher who did it, and not the student or the clock. */
export const byTeacher = ({ kind }: Happening) =>
  kind === 'allowance' ||
  kind === 'lateCounts' ||
  kind === 'lateNot' ||
  (kind !== 'timeUp' &&
    kind !== 'cameLate' &&
    kind !== 'started' &&
    kind !== 'handedIn' &&
    !isReported(kind));

function awayTimes(happenings: readonly Happening[], until: number): Timeline['away'] {
  const away: Timeline['away'] = [];
  let since: number | null = null;
  for (const { kind, at } of happenings) {
    if (kind === 'left') since ??= at;
    const back = kind === 'returned' || kind === 'cameBack' || kind === 'handedIn' || kind === 'collected';
    if (back && since !== null) {
      away.push({ from: since, to: at });
      since = null;
    }
  }
  if (since !== null && until > since) away.push({ from: since, to: until });
  return away;
}
