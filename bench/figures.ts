import { sum } from 'remeda';
import { correlationWithRest, questionMoments } from '@/core/analysis/moments';
import { matrixFrom } from '@/core/analysis/pointsMatrix';
import { reliability } from '@/core/analysis/reliability';
import type { RepairDraft } from '@/core/repair/draft';
import { repairEffect } from '@/core/repair/effect';
import { chanceFrom } from '@/core/basics/chance';
import { seatsOf, type SittingRecords } from '@/core/seats/seats';
import { attemptOf, at, samples, sittingOf, studentOf } from '../tests/unit/samples';
import { middle, row } from './measure';

/**
 * Figures of 10,000 × 100 beside a plain loop of two passes that gives mean, variance and covariance with the rest for each question;
 * figures again after a mark at 550 × 50; and what a repair would do at 10,000 × 100. In Node, medians of five.
 */

const now = Date.parse(at) + 1000;

/** Runs both in turns, so that neither has the better of the machine. */
function inTurns(first: () => unknown, second: () => unknown): [number, number] {
  const times: [number[], number[]] = [[], []];
  for (let turn = 0; turn < 7; turn++)
    for (const [index, work] of [first, second].entries()) {
      const begin = performance.now();
      work();
      times[index as 0 | 1].push(performance.now() - begin);
    }
  return [middle(times[0].slice(2)), middle(times[1].slice(2))];
}

const chance = chanceFrom(7);
const [n, k] = [10_000, 100];
const rows = Array.from({ length: n }, () =>
  Array.from({ length: k }, () => (chance.happens(0.6) ? 1 : 0) as number),
);
const matrix = matrixFrom(
  Array.from({ length: k }, (_, column) => ({ id: `q${column}`, max: 1 })),
  rows,
);

/** As anyone would write it. */
function plainLoop(): number {
  const totals = rows.map((cells) => sum(cells));
  let check = 0;
  for (let column = 0; column < k; column++) {
    let [sum, restSum] = [0, 0];
    for (let person = 0; person < n; person++) {
      const value = rows[person]?.[column] ?? 0;
      sum += value;
      restSum += (totals[person] ?? 0) - value;
    }
    const [mean, restMean] = [sum / n, restSum / n];
    let [squares, products] = [0, 0];
    for (let person = 0; person < n; person++) {
      const value = rows[person]?.[column] ?? 0;
      squares += (value - mean) ** 2;
      products += (value - mean) * ((totals[person] ?? 0) - value - restMean);
    }
    check += mean + squares / (n - 1) + products / (n - 1);
  }
  return check;
}

const [ours, plain] = inTurns(
  () => questionMoments(matrix).map(correlationWithRest),
  () => plainLoop(),
);
row(
  'figures of 10,000 × 100, beside a plain loop of two passes',
  `${ours.toFixed(0)} ms, ${plain.toFixed(0)} ms: ${(ours / plain).toFixed(2)} ×`,
);

function recordsOf(students: number, questions: number): SittingRecords {
  const asked = Array.from({ length: questions }, (_, index) => ({ ...samples.oneChoice, id: `q${index}` }));
  return {
    sitting: sittingOf({ closesAt: null, timeLimitMs: null }),
    questions: asked,
    students: Array.from({ length: students }, (_, person) => studentOf({ id: `s${person}` })),
    attempts: Array.from({ length: students }, (_, person) =>
      attemptOf({
        ...{ id: `a${person}`, studentId: `s${person}`, handedInAt: at },
        questionIds: asked.map(({ id }) => id),
        answers: Object.fromEntries(
          asked.map(({ id }) => [id, { response: { picked: [chance.pick(['a', 'b', 'b', 'c'])] }, at }]),
        ),
      }),
    ),
    ...{ allowances: [], marks: [], releases: [], openings: [] },
  };
}

const small = matrixFrom(
  Array.from({ length: 50 }, (_, column) => ({ id: `q${column}`, max: 1 })),
  rows.slice(0, 550).map((cells) => cells.slice(0, 50)),
);
const [again] = inTurns(
  () => [questionMoments(small).map(correlationWithRest), reliability(small)],
  () => undefined,
);
row('all figures again after a mark, 550 × 50', `${again.toFixed(1)} ms`);

const records = recordsOf(n, k);
const seats = seatsOf(records, now);
const question = records.questions[0];
if (!question) throw new Error('no question');
const draft: RepairDraft = {
  ...{ before: question, itemId: question.id, rule: null, nobodyLoses: false },
  changed: { ...question, key: 'c' } as typeof question,
};
const [effect] = inTurns(
  () => repairEffect(records, seats, draft, [0.7], new Date(now).toISOString()),
  () => undefined,
);
row('what a repair would do, 10,000 × 100', `${effect.toFixed(0)} ms`);
