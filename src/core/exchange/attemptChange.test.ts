import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, attemptOf } from '../../../tests/unit/samples';
import type { Answers, Attempt, AttemptEvent } from '../model/sitting';
import { attemptChange, withChange } from './attemptChange';

const instant = fc.integer({ min: 0, max: 50 }).map((s) => new Date(Date.parse(at) + s * 1000).toISOString());
const event = fc.record({
  kind: fc.constantFrom<AttemptEvent['kind']>('answered', 'collected', 'carriedOn', 'handedIn', 'left'),
  at: instant,
});
const answers: fc.Arbitrary<Answers> = fc.dictionary(
  fc.constantFrom('q1', 'q2', 'q3'),
  fc.record({ response: fc.record({ text: fc.constantFrom('east', 'west') }), at: instant }),
);
const anyAttempt: fc.Arbitrary<Attempt> = fc
  .record(
    {
      answers,
      events: fc.uniqueArray(event, { maxLength: 6, selector: ({ kind, at: when }) => `${kind} ${when}` }),
      handedInAt: fc.option(instant),
      collectedAt: fc.option(instant),
      setAsideAt: fc.option(instant),
      pausedMs: fc.nat(1000),
      lastSeenAt: instant,
      comeBack: fc.subarray(['q1', 'q2']),
    },
    { requiredKeys: ['answers', 'events', 'handedInAt', 'collectedAt', 'lastSeenAt', 'comeBack'] },
  )
  .map((part) => {
    const events = [...part.events].sort((a, b) => a.at.localeCompare(b.at));
    return JSON.parse(JSON.stringify(attemptOf({ ...part, events }))) as Attempt;
  });

const done = (before: Attempt, after: Attempt) => {
  const change = attemptChange(before, after);
  return change ?? { set: {}, answers: {}, added: [], dropped: [] };
};

describe('what one side did to an attempt, told to the other', () => {
  it('nothing is nothing', () => {
    fc.assert(
      fc.property(anyAttempt, (attempt) => {
        expect(attemptChange(attempt, attempt)).toBeNull();
      }),
    );
  });

  it('told to who had nothing since, both have the same; what is not there any more is gone there too', () => {
    fc.assert(
      fc.property(anyAttempt, anyAttempt, (before, after) => {
        const there = withChange('attempt1', before, done(before, after));
        for (const field of ['handedInAt', 'collectedAt', 'setAsideAt', 'pausedMs', 'comeBack'] as const)
          expect(there[field]).toEqual(after[field]);
        expect(new Set(there.events.map((each) => JSON.stringify(each)))).toEqual(
          new Set(after.events.map((each) => JSON.stringify(each))),
        );
      }),
    );
  });

  it('told twice is told once', () => {
    fc.assert(
      fc.property(anyAttempt, anyAttempt, anyAttempt, (before, ours, theirs) => {
        const change = done(before, ours);
        const once = withChange('attempt1', theirs, change);
        expect(withChange('attempt1', once, change)).toEqual(once);
      }),
    );
  });

  it('no answer is lost, and of two to one question the later stays', () => {
    fc.assert(
      fc.property(anyAttempt, anyAttempt, anyAttempt, (before, ours, theirs) => {
        const both = withChange('attempt1', theirs, done(before, ours));
        for (const [id, answer] of Object.entries(theirs.answers))
          expect((both.answers[id]?.at ?? '') >= answer.at).toBe(true);
        for (const [id, answer] of Object.entries(ours.answers))
          if (JSON.stringify(before.answers[id]) !== JSON.stringify(answer))
            expect((both.answers[id]?.at ?? '') >= answer.at).toBe(true);
      }),
    );
  });

  it('the teacher collects while the student answers: both hold', () => {
    const before = attemptOf();
    const answer = { response: { text: 'east' }, at: '2026-11-23T10:05:00.000Z' };
    const theirs = { ...before, answers: { q3: answer }, lastSeenAt: answer.at };
    const ours = { ...before, collectedAt: '2026-11-23T10:04:00.000Z' };
    expect(withChange('attempt1', theirs, done(before, ours))).toMatchObject({
      answers: { q3: answer },
      collectedAt: ours.collectedAt,
      lastSeenAt: answer.at,
    });
  });

  it('a whole attempt comes where there was none; what is none is refused', () => {
    const attempt = attemptOf({ handedInAt: at });
    expect(withChange('attempt1', null, attemptChange(null, attempt) ?? done(attempt, attempt))).toEqual(
      attempt,
    );
    expect(() => withChange('x', null, done(attempt, { ...attempt, comeBack: ['q1'] }))).toThrow();
  });
});
