import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lightColours, samples, springChoices, tideChoice, tideOrder } from '../../../../tests/unit/samples';
import { kindNames, kindOf, type Question } from '..';
import { paperOf } from '../papers';
import type { Ticks } from './PaperKind';

const printed = (question: Question) => kindOf(question).forStudent(question, 'attempt1');

describe('a question on paper', () => {
  it.each(kindNames)('%s: every kind has something to tick or somewhere to write', (name) => {
    const question = printed(samples[name]);
    const form = paperOf(question);
    expect(form.rows(question).length + form.areas(question).length).toBeGreaterThan(0);
    const ids = [...form.rows(question), ...form.areas(question)].map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it.each(kindNames)('%s: nothing of the key is printed', (name) => {
    const question = printed(samples[name]);
    const form = paperOf(question);
    const text = JSON.stringify([form.rows(question), form.areas(question), form.above?.(question)]);
    expect(text).not.toContain('SECRET');
  });

  it.each(kindNames)('%s: no ticks are a blank answer, one a row is an answer', (name) => {
    const question = printed(samples[name]);
    const kind = kindOf(question);
    const form = paperOf(question);
    const blank = form.fromTicks(question, {});
    expect(blank && kind.isBlank(blank)).toBe(true);
    fc.assert(
      fc.property(fc.array(fc.nat(20), { minLength: 12, maxLength: 12 }), (picks) => {
        const ticks: Ticks = Object.fromEntries(
          form
            .rows(question)
            .map(({ id, boxes }, row) => [id, [boxes[(picks[row] ?? 0) % boxes.length]?.id ?? '']]),
        );
        const response = form.fromTicks(question, ticks);
        // Of places in an order each can be given once only.
        if (response === null) expect(name).toBe('ordering');
        else expect(kind.responseSchema.safeParse(response).success).toBe(true);
      }),
      { numRuns: 25 },
    );
  });

  it('ticks of the right boxes are the right answer', () => {
    const scored = (question: Question, ticks: Ticks) => {
      const asked = printed(question);
      const response = paperOf(asked).fromTicks(asked, ticks);
      return response && kindOf(question).score(question, response).share;
    };
    expect(scored(tideChoice, { options: ['b'] })).toBe(1);
    expect(scored(tideChoice, { options: ['a'] })).toBe(0);
    const places = kindOf(tideOrder).rightAnswer(tideOrder);
    const order = places && 'order' in places ? places.order : [];
    expect(scored(tideOrder, Object.fromEntries(order.map((id, at) => [id, [String(at + 1)]])))).toBe(1);
    const pairs = kindOf(lightColours).rightAnswer(lightColours);
    const all = pairs && 'pairs' in pairs ? pairs.pairs : {};
    expect(scored(lightColours, Object.fromEntries(Object.entries(all).map(([id, to]) => [id, [to]])))).toBe(
      1,
    );
  });

  it('two ticks where one is asked for are no answer', () => {
    const two = (question: Question, ticks: Ticks) => {
      const asked = printed(question);
      return paperOf(asked).fromTicks(asked, ticks);
    };
    expect(two(tideChoice, { options: ['a', 'b'] })).toBeNull();
    const [one, another] = springChoices.kind === 'severalChoices' ? springChoices.options : [];
    expect(two(springChoices, { options: [one?.id ?? '', another?.id ?? ''] })).not.toBeNull();
  });
});
