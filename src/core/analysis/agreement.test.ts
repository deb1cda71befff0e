import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { agreement, isFew, kappaStep } from './agreement';

const reference = JSON.parse(
  readFileSync(new URL('../../../tests/reference/markers.expected.json', import.meta.url), 'utf8'),
) as Record<string, number> & { marker1: number[]; marker2: number[] };
const pairs = reference.marker1.map((a, at): [number, number] => [a, reference.marker2[at] ?? 0]);

describe('agreement of two markers', () => {
  // R 4.2.2: Cohen 1968 (quadratic weights) and Shrout and Fleiss 1979, ICC(2,1), computed in base R.
  it('is what another program computes of the same marks', () => {
    const found = agreement(pairs);
    expect(found?.answers).toBe(40);
    expect(found?.exact).toBeCloseTo(reference.exact ?? NaN, 12);
    expect(found?.withinHalf).toBeCloseTo(reference.within_half ?? NaN, 12);
    expect(found?.meanDifference).toBeCloseTo(reference.mean_difference ?? NaN, 12);
    expect(found?.sdDifference).toBeCloseTo(reference.sd_difference ?? NaN, 10);
    expect(found?.kappa).toBeCloseTo(reference.kappa_quadratic ?? NaN, 10);
    expect(found?.icc).toBeCloseTo(reference.icc_2_1 ?? NaN, 10);
  });

  // Common practice, no source.
  it('says nothing where nothing can be said', () => {
    expect(agreement([])).toBeNull();
    expect(agreement([[2, 2]])).toMatchObject({ exact: 1, sdDifference: null, kappa: null, icc: null });
    expect(
      agreement([
        [1, 1],
        [1, 1],
      ]),
    ).toMatchObject({ exact: 1, kappa: null, icc: null });
  });

  // Landis and Koch 1977, from memory.
  it('has a step by its kappa, and says where the answers are few', () => {
    const steps = [-0.1, 0.4, 0.41, 0.6, 0.61, 0.8, 0.81, 1].map((kappa) => kappaStep({ kappa }));
    expect(steps).toEqual([
      ...(['little', 'little', 'moderate', 'moderate'] as const),
      ...(['substantial', 'substantial', 'almostPerfect', 'almostPerfect'] as const),
    ]);
    expect(kappaStep({ kappa: null })).toBeNull();
    expect([29, 30].map((answers) => isFew({ answers }))).toEqual([true, false]);
  });

  it('is whole where both gave the same, and never more', () => {
    const points = fc.integer({ min: 0, max: 20 }).map((each) => each / 4);
    fc.assert(
      fc.property(fc.array(fc.tuple(points, points), { minLength: 2, maxLength: 40 }), (given) => {
        const same = agreement(given.map(([a]) => [a, a]));
        expect(same?.exact).toBe(1);
        if (same?.kappa !== null) expect(same?.kappa).toBeCloseTo(1, 9);
        const found = agreement(given);
        for (const figure of [found?.kappa, found?.icc])
          if (figure !== null && figure !== undefined) expect(figure).toBeLessThanOrEqual(1 + 1e-9);
        expect(agreement(given.map(([a, b]) => [b, a]))?.meanDifference).toBeCloseTo(
          -(found?.meanDifference ?? 0),
          9,
        );
      }),
    );
  });

  // The formula written out: observed over expected disagreement in the whole table of points (Cohen 1968).
  it('kappa is that of the table of both markers’ points', () => {
    const values = [...new Set(pairs.flat())];
    const share = (a: number, b: number) =>
      pairs.filter(([x, y]) => x === a && y === b).length / pairs.length;
    const edge = (place: 0 | 1, value: number) =>
      pairs.filter((pair) => pair[place] === value).length / pairs.length;
    let observed = 0;
    let expected = 0;
    for (const a of values)
      for (const b of values) {
        observed += (a - b) ** 2 * share(a, b);
        expected += (a - b) ** 2 * edge(0, a) * edge(1, b);
      }
    expect(agreement(pairs)?.kappa).toBeCloseTo(1 - observed / expected, 12);
  });
});
