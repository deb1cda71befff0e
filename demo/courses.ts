import type { Attempt, AttemptEvent, ExceptionRequest, SittingTemplate } from '@/core/model/sitting';
import { chanceFrom } from '@/core/basics/chance';

/**
 * What happened in an attempt besides its answers: when each was given, some of them a second time at the end, and now
 * and then the page was left. Each question takes a time of its own.
 */
export function withCourse(attempt: Attempt, seed: number): Attempt {
  const chance = chanceFrom(seed);
  const iso = (ms: number) => new Date(ms).toISOString();
  const given = attempt.questionIds.filter((id) => attempt.answers[id] !== undefined);
  const start = Date.parse(attempt.startedAt);
  const end = Date.parse(attempt.handedInAt ?? attempt.lastSeenAt);
  const shares = given.map(() => 0.3 + 1.7 * chance.share());
  // A last look takes the rest.
  const whole = shares.reduce((sum, share) => sum + share, 0) * (1.04 + 0.1 * chance.share());
  const events: AttemptEvent[] = [...attempt.events];
  const answers = { ...attempt.answers };
  const timeOnMs: Record<string, number> = {};
  let at = start;
  given.forEach((questionId, index) => {
    const took = ((end - start) * (shares[index] ?? 1)) / (whole || 1);
    let away = 0;
    if (chance.happens(0.035)) {
      away = took * (0.2 + 0.3 * chance.share());
      events.push({ kind: 'left', at: iso(at + took * 0.2) });
      events.push({ kind: 'returned', at: iso(at + took * 0.2 + away) });
    }
    at += took;
    events.push({ kind: 'answered', at: iso(at), questionId });
    timeOnMs[questionId] = Math.round((took - away) * (0.85 + 0.15 * chance.share()));
    const answer = answers[questionId];
    if (!answer) return;
    const again = chance.happens(0.07) && attempt.handedInAt !== null ? at + (end - at) * 0.9 : at;
    if (again > at + 60_000) events.push({ kind: 'answered', at: iso(again), questionId });
    answers[questionId] = { ...answer, at: iso(again > at + 60_000 ? again : at) };
  });
  events.sort(
    (a, b) => a.at.localeCompare(b.at) || Number(a.kind === 'handedIn') - Number(b.kind === 'handedIn'),
  );
  return { ...attempt, answers, events, timeOnMs };
}

/** Settings the school uses again and again. */
export const templates: SittingTemplate[] = [
  { id: 'template1', name: 'Quiz of the week', timeLimitMs: 45 * 60_000, attempts: 1, counts: 'last' },
  {
    id: 'template2',
    name: 'Practice at home',
    timeLimitMs: null,
    attempts: 3,
    counts: 'best',
    practice: { tries: 3, lossPerTry: 0.25, hints: true, showAnswer: true },
    after: { total: true, points: true, answers: true, rightOrWrong: true, accepted: false, comments: true },
  },
];

/** What students of the running quiz ask for: one waits, one has its answer. */
export function requests(waitingId: string, answeredId: string, iso: (minutesAgo: number) => string) {
  const rows: ExceptionRequest[] = [
    {
      id: 'request1',
      sittingId: 'rules',
      studentId: waitingId,
      asks: 'moreTime',
      words: 'My screen froze for some minutes at the start.',
      at: iso(3),
      answer: null,
    },
    {
      id: 'request2',
      sittingId: 'tides',
      studentId: answeredId,
      asks: 'otherTimes',
      words: 'I am at sea that week.',
      at: iso(9 * 24 * 60),
      answer: {
        granted: false,
        words: 'It is open for three days; any of them will do.',
        at: iso(8 * 24 * 60),
      },
    },
  ];
  return rows;
}
