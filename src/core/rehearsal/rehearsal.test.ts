import { describe, expect, it } from 'vitest';
import { counter, samples } from '../../../tests/unit/samples';
import { chanceFrom } from '../basics/chance';
import { kindOf, type KindName, type Response } from '../kinds';
import { itemsOf } from '../kinds/items';
import { madeUpClass } from './people';
import { madeUpResponse, rehearsalPlan } from './plan';

const questions = itemsOf(Object.values(samples));

describe('a made-up class', () => {
  it('is the same from the same seed, and another from another', () => {
    const plan = (seed: number) => JSON.stringify(rehearsalPlan(questions, 12, 3_600_000, seed));
    expect(plan(1)).toBe(plan(1));
    expect(plan(1)).not.toBe(plan(2));
  });

  it('each starts before answering, hands in last, and all is in the order of time', () => {
    const plan = rehearsalPlan(questions, 40, 3_600_000, 3);
    for (const [index, step] of plan.entries())
      expect(step.atMs).toBeGreaterThanOrEqual(plan[index - 1]?.atMs ?? 0);
    const whoStarted = new Set(plan.flatMap(({ does, student }) => (does === 'start' ? [student] : [])));
    for (const student of whoStarted) {
      const own = plan.filter((step) => step.student === student);
      expect(own[0]?.does).toBe('start');
      const handsIn = own.findIndex(({ does }) => does === 'handIn');
      if (handsIn >= 0) expect(handsIn).toBe(own.length - 1);
      expect(own.at(-1)?.atMs).toBeLessThanOrEqual(3_600_000);
    }
    expect(whoStarted.size).toBeGreaterThan(30);
    expect(plan.filter(({ does }) => does === 'handIn').length).toBeGreaterThan(30);
  });

  it.each(questions)('answers $kind in the shape of its kind, knowing or not', (question) => {
    const chance = chanceFrom(5);
    const kind = kindOf(question);
    for (const knows of [0, 0.5, 1])
      for (let run = 0; run < 20; run++) {
        const response = madeUpResponse(question, knows, chance);
        expect(kind.responseSchema.safeParse(response).success).toBe(true);
        if (knows === 1 && kind.rightAnswer(question)) expect(kind.score(question, response).share).toBe(1);
      }
  });

  it('whoever knows more scores more', () => {
    const keyed = questions.filter((question) => kindOf(question).scoredBy === 'key');
    const mean = (knows: number) => {
      const chance = chanceFrom(9);
      let sum = 0;
      for (let run = 0; run < 60; run++)
        for (const question of keyed)
          sum += kindOf(question).score(question, madeUpResponse(question, knows, chance)).share;
      return sum / (60 * keyed.length);
    };
    expect(mean(0.2)).toBeLessThan(mean(0.6));
    expect(mean(0.6)).toBeLessThan(mean(0.95));
  });

  it('has as many people as wanted, each with a name of its own', () => {
    const people = madeUpClass(700, 'g', counter('id'), counter('code'));
    expect(new Set(people.map(({ givenName, familyName }) => `${givenName} ${familyName}`)).size).toBe(700);
    expect(new Set(people.map(({ id }) => id)).size).toBe(700);
  });
});

describe('half answered', () => {
  it.each<[KindName, Response, boolean]>([
    ['gaps', { gaps: { g1: 'flood', g2: '' } }, true],
    ['gaps', { gaps: { g1: 'flood', g2: 'ge' } }, false],
    ['matching', { pairs: { i0: 't0' } }, true],
    ['matching', { pairs: { i0: 't0', i1: 't1', i2: 't3' } }, false],
    ['ordering', { order: ['p0', 'p1'] }, true],
    ['ordering', { order: ['p3', 'p0', 'p1', 'p2'] }, false],
  ])('%s with %o: %s', (name, response, half) => {
    const question = kindOf(samples[name]).forStudent(samples[name], 'seed');
    expect(kindOf(question).isHalf?.(question, response)).toBe(half);
  });

  it('a number without the unit that is asked for is half an answer', () => {
    const asked = { ...samples.number, unitAsked: 'required' } as typeof samples.number;
    const question = kindOf(asked).forStudent(asked, 'seed');
    expect(kindOf(question).isHalf?.(question, { text: '18' })).toBe(true);
    expect(kindOf(question).isHalf?.(question, { text: '18 nm' })).toBe(false);
    expect(kindOf(question).isHalf?.(question, { text: 'eighteen' })).toBe(false);
  });
});
