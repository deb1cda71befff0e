import { describe, expect, it } from 'vitest';
import { at, paperQuestions, sittingOf } from '../../tests/unit/samples';
import type { SittingProgress } from '@/core/seats/progress';
import { findingWords } from '@/words/findings';
import { counted, countdown, duration } from '@/words/format';
import { glyphWords } from '../ui/FillGlyph';
import { paperStages, stripStages } from './stripStages';

const now = Date.parse(at);
const paper = { title: 'Tides', instructions: '', questions: paperQuestions };
const nobody: SittingProgress = {
  sittingId: 'sitting1',
  students: 30,
  notStarted: 30,
  working: 0,
  in: 0,
  waiting: 0,
  byHand: 0,
  noKey: 0,
  notRead: 0,
  aside: 0,
  forward: 0,
  ready: 0,
  released: 0,
  opened: 0,
  meanShare: null,
  validUntil: null,
};
const words = (progress: Partial<SittingProgress>, instant = now) =>
  stripStages(sittingOf(), paper, { ...nobody, ...progress }, instant).map((stage) => stage.words);

describe('a strip says what is left in each stage', () => {
  it('before anyone has started', () => {
    expect(words({})).toEqual([
      '4 questions, 8 points',
      '30 not started',
      'nothing handed in',
      'nothing handed in',
      'nothing handed in',
    ]);
    expect(words({}, now - 60_000)[1]).toMatch(/^opens today /);
  });

  it('while students work and answers come in', () => {
    const running = { notStarted: 3, working: 7, in: 20, waiting: 14, byHand: 20, meanShare: 0.614 };
    expect(words(running).slice(1)).toEqual([
      '7 still working, 3 not started, 20 handed in',
      '14 answers wait',
      'mean 61% of what is marked',
      'nothing ready',
    ]);
  });

  it('an answer that is nearly right is said, and is not all there is to mark', () => {
    expect(words({ in: 5, forward: 1 })[2]).toBe('1 put forward');
    expect(words({ in: 5, waiting: 2, forward: 3, aside: 1 })[2]).toBe(
      '2 answers wait, 3 put forward, 1 set aside',
    );
  });

  it('when all is marked and handed back', () => {
    const done = { notStarted: 0, in: 30, byHand: 30, ready: 30, meanShare: 0.7 };
    expect(words(done).slice(1)).toEqual([
      'all 30 handed in',
      'all marked',
      'mean 70%',
      '30 ready to hand back',
    ]);
    expect(words({ ...done, released: 12 })[4]).toBe('handed back to 12 of 30');
    expect(words({ ...done, released: 30, opened: 9 })[4]).toBe('handed back to all, 9 opened');
  });

  it('of a sitting that is over and nobody came to, nothing is next', () => {
    const over = sittingOf({ closesAt: new Date(now - 1).toISOString() });
    const next = (progress: Partial<SittingProgress>) =>
      stripStages(over, paper, { ...nobody, ...progress }, now).find((stage) => stage.next)?.stage ?? null;
    expect(next({})).toBeNull();
    expect(next({ in: 3, ready: 3 })).toBe('handBack');
    expect(next({ in: 3, ready: 3, released: 3 })).toBeNull();
  });

  it('one answer waits, two wait; put aside and keyless ones are named', () => {
    const some = { in: 5, notStarted: 25 };
    expect(words({ ...some, waiting: 1, byHand: 5 })[2]).toBe('1 answer waits');
    expect(words({ ...some, aside: 2, noKey: 3 })[2]).toBe('2 set aside, 3 without a key');
  });

  it('a paper that is ready leads to giving it out; one that is not leads back to writing', () => {
    expect(paperStages('p', paper).find((stage) => stage.next)).toMatchObject({
      stage: 'run',
      href: '/papers/p/give',
    });
    expect(paperStages('p', { ...paper, title: '' }).find((stage) => stage.next)).toMatchObject({
      stage: 'write',
      href: '/papers/p',
    });
  });
});

describe('words for what is found and seen', () => {
  it('a finding names its question by number', () => {
    expect(findingWords({ level: 'look', code: 'noKey', questionId: 'q3' }, paperQuestions)).toBe(
      'Question 3: there is no key yet, so answers won’t be scored',
    );
    expect(findingWords({ level: 'stops', code: 'noTitle' }, paperQuestions)).toBe('The paper has no title');
  });

  it('the glyph says in words what it draws', () => {
    expect(glyphWords({ share: 0, answered: false })).toBe('not answered');
    expect(glyphWords({ share: 0.5, answered: true, overridden: true })).toBe(
      '50% of the points, overridden by hand',
    );
    expect(glyphWords({ share: null, answered: false, waiting: true })).toBe(
      'not answered, waits for a mark',
    );
  });

  it('numbers and times read as a person would say them', () => {
    expect([counted(1, 'answer'), counted(14, 'answer')]).toEqual(['1 answer', '14 answers']);
    expect([duration(42 * 60_000), duration(65 * 60_000)]).toEqual(['42 min', '1 h 05 min']);
    expect([countdown(581_000), countdown(4_181_000), countdown(-5)]).toEqual(['09:41', '1:09:41', '00:00']);
  });
});
