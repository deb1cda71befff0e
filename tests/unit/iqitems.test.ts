import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { mean } from '@/core/analysis/mean';
import { quantile } from '@/core/analysis/quantile';
import { standardDeviation } from '@/core/analysis/standardDeviation';
import { facility } from '@/core/analysis/facility';
import { tableFrom } from '@/core/formats/csv/table';
import { oneChoice } from '@/core/kinds/oneChoice';
import type { Question } from '@/core/kinds';
import { scoreAttempt } from '@/core/scoring/scoreAttempt';

interface Expected {
  key: number[];
  n: number;
  k: number;
  total: { mean: number; sd: number; median: number; min: number; max: number; q: Record<string, number> };
  items: { name: string; mean: number; sd: number }[];
}

const read = (name: string) => readFileSync(new URL(`../reference/${name}`, import.meta.url), 'utf8');

/** Within 1e-9 of the reference, relatively. */
function expectClose(actual: number | null, expected: number) {
  expect(Math.abs((actual ?? Number.NaN) - expected)).toBeLessThanOrEqual(
    1e-9 * Math.max(1, Math.abs(expected)),
  );
}

// Source: psychTools::iqitems (SAPA project); values by R 4.2.2 and psych 2.2.9, as tests/reference/iqitems.expected.json says.
describe('1,523 people × 16 choice questions, scored by the key', () => {
  const expected = JSON.parse(read('iqitems.expected.json')) as Expected;
  const [header, ...rows] = tableFrom(read('iqitems.csv'));
  const questions: Question[] = (header?.cells ?? []).map((name, column) => ({
    ...oneChoice.empty(() => name),
    kind: 'oneChoice',
    id: name,
    stem: name,
    options: Array.from({ length: 8 }, (_, pick) => ({
      id: String(pick + 1),
      text: String(pick + 1),
      comment: '',
    })),
    key: String(expected.key[column]),
  }));
  const at = '2026-01-01T00:00:00.000Z';
  const cards = rows.map(({ cells }, row) =>
    scoreAttempt(
      questions,
      {
        id: `a${row}`,
        studentId: `s${row}`,
        questionIds: questions.map((question) => question.id),
        answers: Object.fromEntries(
          cells.map((pick, column) => [questions[column]?.id ?? '', { response: { picked: [pick] }, at }]),
        ),
      },
      [],
    ),
  );
  const totals = cards.map((card) => card.total);

  it('reads every row', () => {
    expect(rows).toHaveLength(expected.n);
    expect(questions).toHaveLength(expected.k);
  });

  it('has R’s mean, standard deviation, median, least and most of the totals', () => {
    expectClose(mean(totals), expected.total.mean);
    expectClose(standardDeviation(totals), expected.total.sd);
    expectClose(quantile(totals, 0.5), expected.total.median);
    expectClose(quantile(totals, 0), expected.total.min);
    expectClose(quantile(totals, 1), expected.total.max);
  });

  it('has R’s quantiles (type 7)', () => {
    for (const [percent, value] of Object.entries(expected.total.q))
      expectClose(quantile(totals, Number.parseFloat(percent) / 100), value);
  });

  it('has R’s mean and standard deviation of every question; the mean of a 0/1 question is its facility', () => {
    expected.items.forEach((item, column) => {
      const points = cards.map((card) => card.awards[column]?.points ?? Number.NaN);
      expectClose(facility(points, 1), item.mean);
      expectClose(standardDeviation(points), item.sd);
    });
  });
});

// Source: Bock & Lieberman 1970 as in psych::lsat6; values by R 4.2.2, as tests/reference/lsat6.expected.json says.
describe('LSAT6, 1,000 people × 5 questions', () => {
  const expected = JSON.parse(read('lsat6.expected.json')) as Expected;
  const totals = tableFrom(read('lsat6.csv'))
    .slice(1)
    .map(({ cells }) => sumBy(cells, (cell) => Number(cell)));

  it('has R’s mean, standard deviation and quantiles', () => {
    expect(totals).toHaveLength(expected.n);
    expectClose(mean(totals), expected.total.mean);
    expectClose(standardDeviation(totals), expected.total.sd);
    for (const [percent, value] of Object.entries(expected.total.q))
      expectClose(quantile(totals, Number.parseFloat(percent) / 100), value);
  });
});
