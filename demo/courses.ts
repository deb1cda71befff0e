import type { Attempt, AttemptEvent, ExceptionRequest, SittingTemplate } from '@/core/model/sitting';
import { chanceFrom } from '@/core/chance';

/** What happened in an attempt besides its answers: when each was given, and now and then the page was left. */
export function withCourse(attempt: Attempt, seed: number): Attempt {
  const chance = chanceFrom(seed);
  const answered = Object.entries(attempt.answers)
    .map(([questionId, { at }]) => ({ questionId, at }))
    .sort((a, b) => a.at.localeCompare(b.at));
  const events: AttemptEvent[] = [...attempt.events];
  const timeOnMs: Record<string, number> = {};
  let before = Date.parse(attempt.startedAt);
  for (const { questionId, at } of answered) {
    const now = Date.parse(at);
    let away = 0;
    if (chance.happens(0.035)) {
      away = Math.round((now - before) * (0.2 + 0.3 * chance.share()));
      const left = before + Math.round((now - before) * 0.2);
      events.push({ kind: 'left', at: new Date(left).toISOString() });
      events.push({ kind: 'returned', at: new Date(left + away).toISOString() });
    }
    events.push({ kind: 'answered', at, questionId });
    timeOnMs[questionId] = Math.max(0, Math.round((now - before - away) * (0.85 + 0.15 * chance.share())));
    before = now;
  }
  events.sort(
    (a, b) => a.at.localeCompare(b.at) || Number(a.kind === 'handedIn') - Number(b.kind === 'handedIn'),
  );
  return { ...attempt, events, timeOnMs };
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
