import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { sum } from 'remeda';
import { correlation } from '@/core/analysis/correlation';
import { groupDifference } from '@/core/analysis/groupDifference';
import { growth } from '@/core/analysis/growth';
import { mantelHaenszel } from '@/core/analysis/mantelHaenszel';
import { correlationWithRest, questionMoments } from '@/core/analysis/moments';
import { matrixFrom, rowTotals } from '@/core/analysis/pointsMatrix';
import { lengthFor, reliability } from '@/core/analysis/reliability';
import { partsByRest, upperLower, upperLowerOfAll } from '@/core/analysis/upperLower';
import { tableFrom } from '@/core/formats/csv/table';

const read = (name: string) => readFileSync(new URL(`../reference/${name}`, import.meta.url), 'utf8');

/** Within a relative distance of the reference. */
function expectClose(actual: number | null | undefined, expected: number, within = 1e-9) {
  expect(Math.abs((actual ?? Number.NaN) - expected)).toBeLessThanOrEqual(
    within * Math.max(1, Math.abs(expected)),
  );
}

interface Items {
  key: number[];
  alpha_raw: number;
  sem: number;
  kr20_population_var: number;
  kr21_population_var: number;
  items: { name: string; mean: number; sd: number; r_rest: number; alpha_if_dropped: number }[];
}
interface More {
  alpha: number;
  alpha_feldt_95: [number, number];
  'spearman_brown_length_for_.9': number;
  option_rest_correlation: Record<string, Record<string, number>>;
  option_counts_by_thirds_of_rest_score: Record<string, Record<'lower' | 'middle' | 'upper', number[]>>;
  upper_lower_27: Record<string, number>;
  mantel_haenszel: Record<string, { odds_ratio: number; chi2: number; p: number; delta: number }>;
  groups: {
    difference: number;
    welch_95: [number, number];
    welch_t: number;
    welch_df: number;
    welch_p: number;
    hedges_g: number;
  };
}

const cellsOf = (name: string) =>
  tableFrom(read(name)).map(({ cells }) => cells) as [string[], ...string[][]];

// Source: psychTools::iqitems (SAPA project); values by R 4.2.2, as the two files say.
describe('1,523 people × 16 choice questions', () => {
  const expected = JSON.parse(read('iqitems.expected.json')) as Items;
  const more = JSON.parse(read('iqitems-more.expected.json')) as More;
  const [names, ...picks] = cellsOf('iqitems.csv');
  const matrix = matrixFrom(
    names.map((id) => ({ id, max: 1 })),
    picks.map((row) => row.map((pick, column) => (Number(pick) === expected.key[column] ? 1 : 0))),
  );
  const totals = [...rowTotals(matrix)];
  const column = (at: number) => picks.map((_, row) => matrix.points[row * names.length + at] ?? Number.NaN);
  const restOf = (at: number) => column(at).map((value, row) => (totals[row] ?? 0) - value);
  const whole = reliability(matrix);

  it('has R’s mean, deviation, correlation with the rest and alpha without each question', () => {
    const moments = questionMoments(matrix);
    expected.items.forEach((item, at) => {
      expectClose(moments[at]?.mean, item.mean);
      expectClose(Math.sqrt(moments[at]?.variance ?? Number.NaN), item.sd);
      expectClose(moments[at] && correlationWithRest(moments[at]), item.r_rest);
      expectClose(whole?.without.get(item.name), item.alpha_if_dropped);
    });
  });

  it('has R’s alpha with Feldt’s interval, KR-20, KR-21, standard error, and the length for 0.9', () => {
    expectClose(whole?.alpha, more.alpha);
    expectClose(whole?.alpha, expected.kr20_population_var);
    expect(whole?.isKr20).toBe(true);
    expectClose(whole?.kr21, expected.kr21_population_var);
    expectClose(whole?.standardError, expected.sem);
    // Quantiles to 1e-6, as measures.md says.
    expectClose(whole?.interval[0], more.alpha_feldt_95[0], 1e-6);
    expectClose(whole?.interval[1], more.alpha_feldt_95[1], 1e-6);
    expectClose(lengthFor(0.9, more.alpha), more['spearman_brown_length_for_.9']);
  });

  it('has R’s upper–lower index, option counts by thirds and option–rest correlations', () => {
    names.forEach((name, at) => {
      expectClose(upperLower(column(at), totals, 1), more.upper_lower_27[name] ?? Number.NaN);
      expectClose(upperLowerOfAll(matrix)[at], more.upper_lower_27[name] ?? Number.NaN);
      const rest = restOf(at);
      const thirds = partsByRest(rest, 3);
      const wanted = more.option_counts_by_thirds_of_rest_score[name];
      (['lower', 'middle', 'upper'] as const).forEach((third, index) => {
        const counts = new Array<number>(9).fill(0);
        picks.forEach((row, person) => {
          const pick = Number(row[at]);
          if (thirds[person] === index) counts[pick] = (counts[pick] ?? 0) + 1;
        });
        expect(counts).toEqual(wanted?.[third]);
      });
      for (const [option, r] of Object.entries(more.option_rest_correlation[name] ?? {}))
        expectClose(
          correlation(
            picks.map((row) => Number(row[at] === option)),
            rest,
          ),
          r,
        );
    });
  });

  it('has R’s Mantel–Haenszel over equal totals for a made-up group', () => {
    names.forEach((name, at) => {
      const found = mantelHaenszel(
        column(at).map((value, row) => ({
          first: row % 2 === 0,
          right: value === 1,
          total: totals[row] ?? 0,
        })),
      );
      const wanted = more.mantel_haenszel[name];
      expectClose(found?.oddsRatio, wanted?.odds_ratio ?? Number.NaN);
      expectClose(found?.chiSquare, wanted?.chi2 ?? Number.NaN);
      expectClose(found?.delta, wanted?.delta ?? Number.NaN);
      expectClose(found?.p, wanted?.p ?? Number.NaN, 1e-6);
    });
  });

  it('has R’s Welch interval and Hedges’ g of two groups', () => {
    const of = (odd: boolean) => totals.filter((_, row) => (row % 2 === 0) === odd);
    const found = groupDifference(of(true), of(false));
    const { groups } = more;
    expectClose(found?.difference, groups.difference);
    expectClose(found?.t, groups.welch_t);
    expectClose(found?.df, groups.welch_df);
    expectClose(found?.g, groups.hedges_g);
    expectClose(found?.p, groups.welch_p, 1e-6);
    expectClose(found?.interval[0], groups.welch_95[0], 1e-6);
    expectClose(found?.interval[1], groups.welch_95[1], 1e-6);
  });

  it('has R’s growth from the first eight questions to the other eight', () => {
    const wanted = JSON.parse(read('growth.expected.json')) as {
      n: number;
      mean_before: number;
      mean_after: number;
      mean_difference: number;
      ci95: [number, number];
      sd_difference: number;
      r: number;
    };
    const half = (row: number, from: number) =>
      sum([...matrix.points.subarray(row * 16 + from, row * 16 + from + 8)]);
    const found = growth(picks.map((_, row) => ({ before: half(row, 0), after: half(row, 8) })));
    expect(found?.n).toBe(wanted.n);
    expectClose(found?.before, wanted.mean_before);
    expectClose(found?.after, wanted.mean_after);
    expectClose(found?.difference, wanted.mean_difference);
    expectClose(found?.deviation, wanted.sd_difference);
    expectClose(found?.correlation, wanted.r);
    expectClose(found?.interval[0], wanted.ci95[0], 1e-6);
    expectClose(found?.interval[1], wanted.ci95[1], 1e-6);
  });
});

// Source: Bock & Lieberman 1970 as in psych::lsat6; values by R 4.2.2, as tests/reference/lsat6.expected.json says.
describe('LSAT6', () => {
  const expected = JSON.parse(read('lsat6.expected.json')) as Items;
  const [names, ...rows] = cellsOf('lsat6.csv');
  const matrix = matrixFrom(
    names.map((id) => ({ id, max: 1 })),
    rows.map((row) => row.map(Number)),
  );

  it('has R’s alpha, standard error and figures of each question', () => {
    const whole = reliability(matrix);
    expectClose(whole?.alpha, expected.alpha_raw);
    expectClose(whole?.kr21, expected.kr21_population_var);
    expectClose(whole?.standardError, expected.sem);
    questionMoments(matrix).forEach((moments, at) => {
      expectClose(correlationWithRest(moments), expected.items[at]?.r_rest ?? Number.NaN);
      expectClose(whole?.without.get(names[at] ?? ''), expected.items[at]?.alpha_if_dropped ?? Number.NaN);
    });
  });
});

describe('a table with gaps', () => {
  it('is read over what each question has; the total is trusted over whole rows alone', () => {
    const questions = [
      { id: 'a', max: 1 },
      { id: 'b', max: 1 },
      { id: 'c', max: 2 },
    ];
    const whole = [
      [1, 1, 2],
      [1, 0, 1],
      [0, 0, 0],
      [1, 1, 1],
    ];
    const gaps = matrixFrom(questions, [...whole, [1, null, 2], [null, null, null]]);
    expect(reliability(gaps)).toEqual(reliability(matrixFrom(questions, whole)));
    expect(questionMoments(gaps).map(({ n }) => n)).toEqual([5, 4, 5]);
    expect(questionMoments(gaps)[0]?.mean).toBe(0.8);
    expect(() => matrixFrom(questions, [[1]])).toThrow(/row 1 has 1 cells/);
  });
});
