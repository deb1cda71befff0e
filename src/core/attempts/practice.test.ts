import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, courseText, openQuestion, tideChoice } from '../../../tests/unit/samples';
import type { Question } from '../kinds';
import type { Attempt, PracticeRules } from '../model/sitting';
import { scoreAttempt } from '../scoring/scoreAttempt';
import { practised, practiceView, type PracticeAct } from './practice';

const rules: PracticeRules = { tries: 3, lossPerTry: 0.25, hints: true, showAnswer: true };
const hinted: Question = {
  ...tideChoice,
  points: 4,
  commentWrong: 'Think of the twelfths.',
  hints: [
    { id: 'h1', text: 'The rule of twelfths', cost: 0.25 },
    { id: 'h2', text: '1, 2, 3, 3, 2, 1', cost: 0.5 },
  ],
};
const start: Attempt = attemptOf({ practice: { lossPerTry: 0.25, records: {} } });
const pick = (id: string): PracticeAct => ({ act: 'try', response: { picked: [id] } });
const after = (acts: PracticeAct[], question = hinted, with_ = rules) =>
  acts.reduce((attempt, act) => practised(question, attempt, with_, act, at), start);
const pointsAfter = (acts: PracticeAct[]) => scoreAttempt([hinted], after(acts), []).total;

describe('practice', () => {
  it('right at the first try has all the points; each later try and each hint takes off its share', () => {
    expect(pointsAfter([pick('b')])).toBe(4);
    expect(pointsAfter([pick('a'), pick('b')])).toBe(3);
    expect(pointsAfter([{ act: 'hint' }, pick('b')])).toBe(3);
    expect(pointsAfter([{ act: 'hint' }, pick('a'), pick('b')])).toBe(2);
    // A hint taken after a try costs that try nothing.
    expect(pointsAfter([pick('a'), { act: 'hint' }, { act: 'hint' }, pick('b')])).toBe(0);
  });

  it('what the student sees: the verdict, its comment, tries left, and never the key before it is let out', () => {
    const fresh = practiceView(hinted, start, rules);
    expect(fresh).toMatchObject({ canTry: true, triesLeft: 3, verdict: null, hintsLeft: 2, mayShow: false });
    expect(JSON.stringify(fresh)).not.toContain('3/12');
    expect(JSON.stringify(fresh)).not.toContain('twelfths');
    const wrong = practiceView(hinted, after([pick('a')]), rules);
    expect(wrong).toMatchObject({
      verdict: 'wrong',
      triesLeft: 2,
      pointsLeft: 3,
      accepted: null,
      mayShow: true,
    });
    expect(wrong.comments).toEqual(['Think of the twelfths.']);
    const helped = practiceView(hinted, after([{ act: 'hint' }]), rules);
    expect(helped).toMatchObject({ hints: ['The rule of twelfths'], hintsLeft: 1, nextHintCost: 0.5 });
  });

  it('right, shown or out of tries, it is done: nothing more can be done, and nothing is to be had', () => {
    const right = after([pick('b')]);
    expect(practiceView(hinted, right, rules)).toMatchObject({
      done: true,
      verdict: 'right',
      mayShow: false,
    });
    expect(practised(hinted, right, rules, pick('a'), at)).toBe(right);
    const out = after([pick('a'), pick('a'), pick('c')]);
    expect(practiceView(hinted, out, rules)).toMatchObject({ done: true, triesLeft: 0, hintsLeft: 0 });
    expect(practised(hinted, out, rules, pick('b'), at)).toBe(out);
    const shown = after([pick('a'), { act: 'show' }]);
    expect(practiceView(hinted, shown, rules)).toMatchObject({
      done: true,
      accepted: 'B  3/12',
      pointsLeft: 0,
    });
    // What is typed after the answer was shown is worth nothing.
    const copied = { ...shown, answers: { q1: { response: { picked: ['b'] }, at } } };
    expect(scoreAttempt([hinted], copied, []).total).toBe(0);
  });

  it('an answer changed after the last try counts as one more try when it is handed in', () => {
    const tried = after([pick('a')]);
    const changed = { ...tried, answers: { q1: { response: { picked: ['b'] }, at } } };
    expect(scoreAttempt([hinted], changed, []).total).toBe(3);
    const never = { ...start, answers: { q1: { response: { picked: ['b'] }, at } } };
    expect(scoreAttempt([hinted], never, []).total).toBe(4);
  });

  it('a repaired key scores the tries again', () => {
    const tried = after([pick('a'), pick('c')]);
    expect(scoreAttempt([{ ...hinted, key: 'a' } as Question], tried, []).total).toBe(4);
    expect(scoreAttempt([{ ...hinted, key: 'c' } as Question], tried, []).total).toBe(3);
  });

  it('without a limit it can be tried on and on, down to no points but never below', () => {
    const free = { ...rules, tries: null };
    const acts = [...Array.from({ length: 7 }, () => pick('a')), pick('b')];
    const attempt = after(acts, hinted, free);
    expect(practiceView(hinted, attempt, free)).toMatchObject({
      tries: 8,
      triesLeft: null,
      verdict: 'right',
    });
    expect(scoreAttempt([hinted], attempt, []).total).toBe(0);
  });

  it('an open question is not scored at once; its model answer may be shown', () => {
    const view = practiceView(openQuestion, start, rules);
    expect(view).toMatchObject({ canTry: false, mayShow: true, accepted: null });
    const shown = after([{ act: 'show' }], openQuestion);
    expect(practiceView(openQuestion, shown, rules).accepted).toBe('SECRET-MODEL');
  });

  it('through any acts: points never rise with a try that is wrong, hints and tries stay in bounds, all on record', () => {
    const anyAct = fc.oneof(
      fc.constantFrom(pick('a'), pick('b'), pick('c'), { act: 'try' as const, response: { picked: [] } }),
      fc.constantFrom({ act: 'hint' as const }, { act: 'show' as const }),
    );
    fc.assert(
      fc.property(fc.array(anyAct, { maxLength: 12 }), (acts) => {
        let attempt = start;
        for (const act of acts) {
          const before = scoreAttempt([hinted], attempt, []).total;
          const next = practised(hinted, attempt, rules, act, at);
          const total = scoreAttempt([hinted], next, []).total;
          const record = next.practice?.records.q1;
          expect(total).toBeLessThanOrEqual(4);
          if (act.act !== 'try') expect(total).toBe(before);
          expect(record?.tries.length ?? 0).toBeLessThanOrEqual(3);
          expect(record?.hints.length ?? 0).toBeLessThanOrEqual(2);
          // Every act that did something is an event.
          expect(next.events.length - attempt.events.length).toBe(next === attempt ? 0 : 1);
          attempt = next;
        }
      }),
    );
  });

  it('a text is tried as it is forgiven', () => {
    const act = { act: 'try' as const, response: { text: ' secret-118 ' } };
    expect(practiceView(courseText, after([act], courseText), rules)).toMatchObject({ verdict: 'right' });
  });
});
