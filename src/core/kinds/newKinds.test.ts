import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { lightColours, sides, springChoices, streamGaps, tideOrder } from '../../../tests/unit/samples';
import { shuffled } from '../basics/shuffled';
import { gaps } from './gaps';
import { emptyGap } from './gaps';
import { segmentsOf } from './gaps/gapText';
import type { Gaps } from './gaps/schema';
import { kindOf, type Question } from './index';
import { ordering } from './ordering';
import { orderShare } from './ordering/orderShare';
import type { Ordering } from './ordering/schema';
import type { SeveralChoices } from './severalChoices/schema';

const codes = (question: Question) =>
  kindOf(question)
    .findings(question)
    .map((finding) => finding.code);
const share = (question: Question, response: Parameters<ReturnType<typeof kindOf>['score']>[1]) =>
  kindOf(question).score(question, response).share;

describe('matching and categories', () => {
  it('two of three right pairs give two thirds', () => {
    expect(share(lightColours, { pairs: { i0: 't0', i1: 't1', i2: 't3' } })).toBeCloseTo(2 / 3, 12);
    expect(share(lightColours, { pairs: { i0: 't0' } })).toBeCloseTo(1 / 3, 12);
  });

  // Formula: measures.md, "Part points": share of right pairs, optional wrong = −.
  it('where wrong pairs take off, three right and one wrong of four give a half, never below 0', () => {
    expect(share(sides, { pairs: { m0: 's0', m1: 's1', m2: 's0', m3: 's0' } })).toBe(0.5);
    expect(share(sides, { pairs: { m0: 's1', m1: 's0' } })).toBe(0);
  });

  it('an item that belongs nowhere is right when it is left, and a wrong pair when it is not', () => {
    const odd = { ...sides, key: { m0: 's0', m1: 's1', m2: 's0' } } as Question;
    expect(share(odd, { pairs: { m0: 's0', m1: 's1', m2: 's0' } })).toBe(1);
    expect(share(odd, { pairs: { m0: 's0', m1: 's1', m2: 's0', m3: 's0' } })).toBeCloseTo(2 / 3, 12);
    expect(codes(odd)).toEqual(['itemWithoutKey']);
  });

  it('pairs with what is not there count as nothing', () => {
    expect(share(lightColours, { pairs: { i0: 'gone', ghost: 't0' } })).toBe(0);
    expect(kindOf(lightColours).categoriesOf(lightColours, { pairs: { i0: 'gone' } })).toEqual([]);
  });

  it('statistics: each right pair is offered, a wrong one counts under its own words', () => {
    expect(
      kindOf(lightColours)
        .offered(lightColours)
        .map((category) => category.label),
    ).toEqual(['port → red', 'starboard → green', 'stern → white']);
    expect(kindOf(lightColours).categoriesOf(lightColours, { pairs: { i0: 't1' } })).toEqual([
      {
        ...{ id: 'i0=t1', label: 'port → green', share: 0, offered: false },
        part: { id: 'i0', label: 'port' },
      },
    ]);
  });

  it('what is not ready: too few, empty, twice the same, no key', () => {
    const bare = { ...lightColours, items: [{ id: 'x', text: '' }], targets: [], key: {} } as Question;
    expect(codes(bare)).toEqual(['fewItems', 'fewTargets', 'noKey', 'emptyItem']);
    const twice = {
      ...sides,
      targets: [
        { id: 's0', text: 'Port' },
        { id: 's1', text: 'port ' },
      ],
    } as Question;
    expect(codes(twice)).toEqual(['equalItems']);
  });
});

describe('ordering', () => {
  // Formulas: measures.md, "Part points", worked by hand for 2 1 3 4 of four and for the order turned round.
  it.each([
    ['exact', [0, 1, 2, 3], 1],
    ['exact', [1, 0, 2, 3], 0],
    ['places', [1, 0, 2, 3], 1 / 2],
    ['neighbours', [1, 0, 2, 3], 2 / 3],
    ['pairs', [1, 0, 2, 3], 5 / 6],
    ['places', [3, 2, 1, 0], 0],
    ['neighbours', [3, 2, 1, 0], 0],
    ['pairs', [3, 2, 1, 0], 0],
  ] as const)('%s: %j gives %d', (rule, places, expected) =>
    expect(orderShare(rule, places, 4)).toBeCloseTo(expected, 12),
  );

  it('every rule gives 0 to 1, and 1 only for the right order', () => {
    const orders = fc.shuffledSubarray([0, 1, 2, 3, 4], { minLength: 5 });
    fc.assert(
      fc.property(orders, fc.constantFrom('exact', 'places', 'neighbours', 'pairs'), (places, rule) => {
        const got = orderShare(rule, places, 5);
        expect(got).toBeGreaterThanOrEqual(0);
        expect(got).toBeLessThanOrEqual(1);
        expect(got === 1).toBe(places.every((place, index) => place === index));
      }),
    );
  });

  // Kendall 1938: tau = 1 − 4 · discordant/(n(n−1)), so the share of pairs in order is (tau + 1)/2.
  it('the rule of pairs is Kendall’s tau on a scale from 0 to 1', () => {
    const orders = fc.shuffledSubarray([0, 1, 2, 3, 4, 5], { minLength: 6 });
    fc.assert(
      fc.property(orders, (places) => {
        let discordant = 0;
        for (let i = 0; i < 6; i++)
          for (let j = i + 1; j < 6; j++) if ((places[i] ?? 0) > (places[j] ?? 0)) discordant++;
        const tau = 1 - (4 * discordant) / (6 * 5);
        expect(orderShare('pairs', places, 6)).toBeCloseTo((tau + 1) / 2, 12);
      }),
    );
  });

  it('items that are missing, unknown or there twice are not in place', () => {
    const order = tideOrder as Ordering;
    expect(ordering.score(order, { order: ['p0', 'p0', 'ghost', 'p1'] }).share).toBeCloseTo(1 / 6, 12);
  });

  it('students see any order, the right one among them: one that never comes would tell', () => {
    const items = ['a1', 'a2', 'a3'].map((id) => ({ id, text: id }));
    const seen = new Map<string, number>();
    for (let attempt = 0; attempt < 600; attempt++) {
      const order = ordering.forStudent({ ...(tideOrder as Ordering), items }, `attempt${attempt}`).items;
      const text = order.map(({ id }) => id).join();
      seen.set(text, (seen.get(text) ?? 0) + 1);
    }
    // 3! = 6 orders, each about 100 times.
    expect(seen.size).toBe(6);
    expect(Math.min(...seen.values())).toBeGreaterThan(60);
  });
});

describe('gaps', () => {
  const question = streamGaps as Gaps;

  it('each gap gives its part: one of two right is a half', () => {
    expect(gaps.score(question, { gaps: { g1: 'secret-flood', g2: 'gs' } })).toEqual({
      share: 0.5,
      comments: ['SECRET-GAP-COMMENT', 'SECRET-OPTION-COMMENT'],
    });
    expect(gaps.score(question, { gaps: { g2: 'ge' } }).share).toBe(0.5);
  });

  it('reads as the text with what was filled in', () => {
    expect(gaps.asText(question, { gaps: { g1: 'flow', g2: 'ge' } })).toBe(
      'The stream that comes in is the [flow], the one that goes out the [ebb].',
    );
    expect(gaps.keyText(question)).toBe(
      'The stream that comes in is the [SECRET-FLOOD], the one that goes out the [ebb].',
    );
  });

  it('a number in brackets that is no gap stays text, and a gap is one place only', () => {
    const gap = { number: 1 };
    expect(segmentsOf('see [2] and [1], [1]', [gap])).toEqual([
      { text: 'see [2] and ' },
      { gap },
      { text: ', [1]' },
    ]);
  });

  it('statistics: wrong fillings count under their gap and their own words', () => {
    expect(gaps.categoriesOf(question, { gaps: { g1: 'Flow', g2: 'gs' } })).toMatchObject([
      { label: '[1] Flow', share: 0, offered: false },
      { label: '[2] slack', share: 0, offered: true },
    ]);
  });

  it('a new gap takes the lowest number that is free', () => {
    const [first, second] = question.gaps;
    if (!first || !second) throw new Error('no gaps');
    expect(emptyGap(question, () => 'n').number).toBe(3);
    expect(emptyGap({ gaps: [second] }, () => 'n').number).toBe(1);
  });

  it('what is not ready: no gap in the text, a gap that is not in it, a gap without a key', () => {
    expect(codes({ ...question, text: 'No gap' } as Question)).toEqual([
      'noGaps',
      'gapNotInText',
      'gapNotInText',
    ]);
    const keyless = question.gaps.map((gap) => ({ ...gap, key: null, accepted: [] }));
    expect(codes({ ...question, gaps: keyless } as Question)).toEqual(['gapWithoutKey', 'gapWithoutKey']);
    expect(gaps.hasKey({ ...question, gaps: keyless })).toBe(false);
  });
});

describe('several choices by weights', () => {
  const weighed = {
    ...(springChoices as SeveralChoices),
    rule: 'weights',
    weights: { o0: 0.5, o1: 0.5, o3: -0.25 },
  } as Question;

  // QTI 3.0 information model, "Mapping": the sum of the mapped values, kept within lowerBound and upperBound.
  it('the weights of what was picked add up, within 0 and 1', () => {
    expect(share(weighed, { picked: ['o0', 'o3'] })).toBe(0.25);
    expect(share(weighed, { picked: ['o3'] })).toBe(0);
    // o2 is right and has no weight set: a third.
    expect(share(weighed, { picked: ['o0', 'o1', 'o2'] })).toBe(1);
  });
});

describe('orders drawn by chance', () => {
  const letters = [...'abcdefgh'];

  it('hold everything once, the same for the same seed, and pinned ones in their places', () => {
    fc.assert(
      fc.property(fc.string(), fc.subarray(letters), (seed, pinned) => {
        const order = shuffled(letters, seed, (letter) => pinned.includes(letter));
        expect([...order].sort()).toEqual(letters);
        expect(shuffled(letters, seed, (letter) => pinned.includes(letter))).toEqual(order);
        for (const letter of pinned) expect(order.indexOf(letter)).toBe(letters.indexOf(letter));
      }),
    );
  });

  it('are even: over many attempts each letter comes first about as often', () => {
    const first = new Map<string, number>();
    for (let attempt = 0; attempt < 4000; attempt++) {
      const [letter = ''] = shuffled(letters, `attempt ${attempt}`);
      first.set(letter, (first.get(letter) ?? 0) + 1);
    }
    // Chi-square with 7 degrees of freedom is above 24.3 once in a thousand (tables of Pearson's test, from memory).
    const expected = 4000 / letters.length;
    const chiSquare = sumBy(letters, (each) => ((first.get(each) ?? 0) - expected) ** 2 / expected);
    expect(chiSquare).toBeLessThan(24.3);
  });
});
