import { describe, expect, it } from 'vitest';
import { at, attemptOf, paperQuestions, sittingOf } from '../../../tests/unit/samples';
import { handedIn, handedOver } from '../exchange/working';
import { scoreAttempt } from '../scoring/scoreAttempt';
import { scriptPacket } from '../handback/script';
import type { Attempt, Sitting } from '../model/sitting';
import { graceMs, termsFor } from './terms';
import { countedAnswers, lateKey, undecided, withDecision } from './late';
import { mostVersions } from './versions';

const start = Date.parse(at);
const limitMs = 3 * 60_000;
const iso = (ms: number) => new Date(start + ms).toISOString();

/** A three-minute sitting in which one answer came in time, and others after it. */
function sat(part: Partial<Sitting> = {}, cameMs = limitMs + 27_000, typedMs = limitMs - 48_000) {
  const sitting = sittingOf({ timeLimitMs: limitMs, ...part });
  const before = attemptOf({ answers: { q3: { response: { text: '118' }, at: iso(60_000) } } });
  const answers = {
    q3: { response: { text: '241' }, at: iso(typedMs) },
    q4: { response: { text: 'typed on a broken line' }, at: iso(typedMs) },
  };
  const terms = (now: number) => termsFor({}, sitting, [], now);
  const comes = (attempt: Attempt, now: number) =>
    handedOver(
      attempt,
      paperQuestions,
      sitting,
      terms(now),
      { answers, comeBack: null, tabId: 'phone' },
      now,
    );
  return { sitting, before, terms, comes, ...comes(before, start + cameMs) };
}

describe('what comes after the end', () => {
  it('is kept apart with the device’s own times, and what counts stays as it was', () => {
    const { attempt, became, before } = sat();
    expect(became).toEqual({ q3: 'late', q4: 'late' });
    expect(attempt.answers).toEqual(before.answers);
    expect(attempt.late).toMatchObject([
      { questionId: 'q3', response: { text: '241' }, typedAt: iso(limitMs - 48_000), decision: null },
      { questionId: 'q4', at: iso(limitMs + 27_000) },
    ]);
    expect(countedAnswers(attempt)).toEqual(before.answers);
  });

  it('comes twice and is there once', () => {
    const { attempt, comes } = sat();
    const again = comes(attempt, start + limitMs + 60_000);
    expect([again.attempt, again.became]).toEqual([attempt, { q3: 'late', q4: 'late' }]);
  });

  it('counts once the teacher says so, for one or for all, in scorecard and script alike; and no longer when taken back', () => {
    const { attempt } = sat();
    const [first, second] = attempt.late ?? [];
    const decided = (keys: (typeof first)[], counts: boolean) =>
      withDecision(
        attempt,
        keys.flatMap((each) => (each ? [lateKey(each)] : [])),
        { counts, by: 'teacher', reason: 'the line broke', at: iso(limitMs + 90_000) },
      );
    const one = decided([first], true);
    expect(countedAnswers(one).q3?.response).toEqual({ text: '241' });
    expect(countedAnswers(one).q4).toBeUndefined();
    expect(undecided(one)).toHaveLength(1);
    const both = decided([first, second], true);
    const shows = {
      total: true,
      points: true,
      answers: true,
      rightOrWrong: true,
      accepted: false,
      comments: false,
    };
    const source = {
      sittingId: 's',
      title: 't',
      questions: paperQuestions,
      attempt: both,
      marks: [],
      firstName: 'Amara',
      releasedAt: at,
    };
    const script = scriptPacket(source, shows);
    const card = scoreAttempt(paperQuestions, both, []);
    expect(card.awards.filter(({ answered }) => answered).map(({ questionId }) => questionId)).toEqual([
      'q3',
      'q4',
    ]);
    expect(script.questions.find(({ question }) => question.id === 'q4')?.response).toEqual({
      text: 'typed on a broken line',
    });
    expect(script.total?.points).toBe(card.total);
    expect(countedAnswers(decided([first, second], false))).toEqual(attempt.answers);
    expect(withDecision(both, (both.late ?? []).map(lateKey), null).late).toEqual(attempt.late);
  });

  it.each([
    ['typed before the end, within what is forgiven', limitMs + 27_000, limitMs - 48_000, true],
    ['at the last moment that is forgiven', limitMs + graceMs + 5 * 60_000, limitMs - 1, true],
    ['later than what is forgiven', limitMs + graceMs + 5 * 60_000 + 1, limitMs - 48_000, null],
    ['typed after the end', limitMs + 27_000, limitMs + 1, null],
    ['typed, it says, before the attempt was begun', limitMs + 27_000, -1, null],
  ])('by the rule of the sitting, five minutes forgiven: %s', (_what, came, typed, counts) => {
    const { attempt } = sat({ forgivenMs: 5 * 60_000 }, came, typed);
    expect(attempt.late?.map(({ decision }) => decision?.counts ?? null)).toEqual([counts, counts]);
    expect(countedAnswers(attempt).q4 !== undefined).toBe(counts === true);
  });

  it('after handing in by hand no rule lets anything count', () => {
    const { before, terms, comes } = sat({ forgivenMs: 5 * 60_000 });
    const ended = handedIn(before, terms(start + 90_000), start + 90_000);
    const { attempt } = comes(ended, start + 100_000);
    expect(attempt.late?.map(({ decision }) => decision)).toEqual([null, null]);
  });

  it('within the seconds of grace it simply counts', () => {
    const { attempt, became } = sat({}, limitMs + graceMs - 1);
    expect(became).toEqual({ q3: 'counts', q4: 'counts' });
    expect(attempt.late).toBeUndefined();
  });

  it('an answer that does not fit its question, or a question not given, is refused by name', () => {
    const { before, sitting, terms } = sat();
    const answers = {
      q3: { response: { picked: ['a'] }, at },
      elsewhere: { response: { text: 'x' }, at },
    };
    const now = start + limitMs + 60_000;
    const request = { answers, comeBack: null, tabId: 'phone' };
    expect(handedOver(before, paperQuestions, sitting, terms(now), request, now)).toEqual({
      attempt: before,
      became: { q3: 'refused', elsewhere: 'refused' },
    });
  });
});

describe('what a hostile device may do', () => {
  it('versions of one answer have an end, and what counts is not touched by them', () => {
    const { sitting, terms, before } = sat();
    let attempt = before;
    const became = new Set<string | undefined>();
    for (let n = 0; n < mostVersions + 20; n++) {
      const stamp = { line: `line${n}`, n: 1, knows: { [`line${n}`]: 1 } };
      const answers = { q3: { response: { text: `other ${n}` }, at, stamp } };
      const request = { answers, comeBack: null, tabId: 'phone' };
      // The first is known to all; what follows is typed without knowing of it.
      const done = handedOver(
        attempt,
        paperQuestions,
        sitting,
        terms(start + 70_000),
        request,
        start + 70_000,
      );
      attempt = done.attempt;
      became.add(done.became.q3);
    }
    expect(attempt.answers.q3?.response).toEqual({ text: 'other 0' });
    expect(attempt.earlier?.length).toBeLessThanOrEqual(mostVersions);
    expect([...became]).toEqual(['counts', 'beside', 'refused']);
  });
});
