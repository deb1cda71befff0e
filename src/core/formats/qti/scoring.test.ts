// @vitest-environment jsdom
import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { processed } from '../../../../tests/unit/qtiProcessor';
import {
  courseText,
  lightColours,
  runDistance,
  samples,
  sides,
  springChoices,
  sternLight,
  streamGaps,
  tideChoice,
  tideOrder,
} from '../../../../tests/unit/samples';
import { kindOf, type Question, type Response } from '../../kinds';
import { identifierOf } from '../../kinds/qti/identifiers';
import { itemFrom } from './writeItem';
import { xmlText } from '../../kinds/qti/xml';

// Documents are built in jsdom, which is slow on a busy machine: each question's once, and no haste.
vi.setConfig({ testTimeout: 60_000 });

const items = new WeakMap<Question, Document>();

function itemOf(question: Question): Document {
  const known = items.get(question);
  if (known) return known;
  const item = new DOMParser().parseFromString(xmlText(itemFrom(question)), 'application/xml');
  items.set(question, item);
  return item;
}

/** What our key gives, and what a processor of QTI gives for the same answer in its words. */
function both(question: Question, response: Response, responses: Record<string, string[]>) {
  const kind = kindOf(question);
  const ours = kind.isBlank(response) ? 0 : kind.score(question, response).share;
  return { ours, theirs: processed(itemOf(question), responses).score };
}

const some = (ids: readonly string[]) => fc.subarray([...ids]);
const ids = ['o0', 'o1', 'o2', 'o3'];

describe('an item scores by QTI what the question scores here', () => {
  it.each(['allOrNothing', 'rightMinusWrong', 'everyOption', 'weights'] as const)(
    'several choices, %s',
    (rule) => {
      const weights = { o0: 0.5, o1: 0.25, o2: 0.25, o3: -0.75 };
      const question = { ...springChoices, rule, weights } as Question;
      fc.assert(
        fc.property(some(ids), (picked) => {
          const { ours, theirs } = both(question, { picked }, { RESPONSE: picked.map(identifierOf) });
          expect(theirs).toBeCloseTo(ours, 9);
        }),
      );
    },
  );

  it.each(['a', 'b', 'c'])('one choice, %s', (picked) => {
    const { ours, theirs } = both(tideChoice, { picked: [picked] }, { RESPONSE: [identifierOf(picked)] });
    expect(theirs).toBe(ours);
  });

  it.each(['true', 'false'])('true or false, %s', (picked) => {
    const { ours, theirs } = both(sternLight, { picked: [picked] }, { RESPONSE: [identifierOf(picked)] });
    expect(theirs).toBe(ours);
  });

  it.each(['secret-118', 'SECRET-half', 'east'])('short text, %s', (text) => {
    const { ours, theirs } = both(courseText, { text }, { RESPONSE: [text] });
    expect(theirs).toBe(ours);
  });

  it('number, with tiers and tolerances', () => {
    const question = { ...runDistance, unitAsked: 'none' } as Question;
    const range = {
      ...question,
      accepted: [
        { id: 'a', form: 'range', value: -4, tolerance: 0, upTo: 3.5, share: 1, comment: '' },
        { id: 'b', form: 'plusMinus', value: 9, tolerance: 0.5, upTo: null, share: 0.25, comment: '' },
      ],
    } as Question;
    fc.assert(
      fc.property(fc.integer({ min: -600, max: 2500 }), (hundredths) => {
        const text = String(hundredths / 100);
        for (const each of [question, range]) {
          const { ours, theirs } = both(each, { text }, { RESPONSE: [text] });
          expect(theirs).toBe(ours);
        }
      }),
    );
  });

  it.each([lightColours, sides, { ...lightColours, wrongTakesOff: true } as Question])(
    'pairs: $kind, wrong takes off: $wrongTakesOff',
    (question) => {
      if (question.kind !== 'matching' && question.kind !== 'categories') throw new Error('no pairs');
      const targets = question.targets.map(({ id }) => id);
      const pair = fc.tuple(...question.items.map(() => fc.constantFrom('', ...targets)));
      fc.assert(
        fc.property(pair, (chosen) => {
          const entries = question.items.map(({ id }, index) => [id, chosen[index] ?? ''] as const);
          const given = entries.filter(([, to]) => to !== '');
          const pairs = Object.fromEntries(given);
          const RESPONSE = given.map(([from, to]) => `${identifierOf(from)} ${identifierOf(to)}`);
          const { ours, theirs } = both(question, { pairs }, { RESPONSE });
          expect(theirs).toBeCloseTo(ours, 9);
        }),
      );
    },
  );

  it('gaps, typed and picked', () => {
    for (const [typed, picked] of [
      ['secret-flood', 'ge'],
      ['flow', 'ge'],
      ['SECRET-FLOOD', 'gs'],
      ['', ''],
    ] as const) {
      const { ours, theirs } = both(
        streamGaps,
        { gaps: { g1: typed, g2: picked } },
        { GAP_1: typed ? [typed] : [], GAP_2: picked ? [identifierOf(picked)] : [] },
      );
      expect(theirs).toBeCloseTo(ours, 9);
    }
  });

  it('ordering, where the whole order counts', () => {
    const question = { ...tideOrder, rule: 'exact' } as Question;
    for (const order of [
      ['p0', 'p1', 'p2', 'p3'],
      ['p1', 'p0', 'p2', 'p3'],
    ]) {
      const { ours, theirs } = both(question, { order }, { RESPONSE: order.map(identifierOf) });
      expect(theirs).toBe(ours);
    }
  });
});

describe('comments are shown by the conditions of the item', () => {
  const shown = (question: Question, ...RESPONSE: string[]) =>
    processed(itemOf(question), { RESPONSE }).feedback;

  it('by the score, and by what was picked', () => {
    expect(shown(tideChoice, '_b')).toEqual(['RIGHT']);
    expect(shown(tideChoice, '_c')).toEqual(['PICKED_c', 'WRONG']);
    const part = { ...springChoices, commentRight: 'r', commentPart: 'p', commentWrong: 'w' } as Question;
    expect(shown(part, '_o0')).toEqual(['PART']);
    expect(shown(part, '_o0', '_o1', '_o2')).toEqual(['RIGHT']);
    expect(shown(part, '_o3')).toEqual(['PICKED_o3', 'WRONG']);
  });

  it('by the accepted answer that was met', () => {
    expect(shown(courseText, 'SECRET-118')).toEqual(['ANSWER_1']);
    const plain = { ...runDistance, unitAsked: 'none' } as Question;
    expect(shown(plain, '18.8')).toEqual(['ANSWER_2']);
  });
});

describe('what is written is well formed', () => {
  // A parser of its own (jsdom's, by the XML 1.0 rules) reads what was built, whatever is in it.
  it.each(Object.values(samples).map((question) => [question.kind, question] as const))(
    '%s',
    (_, question) => {
      fc.assert(
        fc.property(fc.string({ unit: 'binary' }), (words) => {
          const item = itemOf({ ...question, stem: words, commentWrong: words, note: words });
          expect(item.querySelector('parsererror')).toBeNull();
          expect(item.documentElement.localName).toBe('qti-assessment-item');
        }),
        { numRuns: 15 },
      );
    },
  );
});
