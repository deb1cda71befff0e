import { rowTotals, type PointsMatrix } from './pointsMatrix';

/** What is summed up of one question. Variances and covariances are those of a sample (n − 1). */
export interface QuestionMoments {
  /** How many have points for it. */
  n: number;
  /** NaN while nobody has; the variances while fewer than two have. */
  mean: number;
  variance: number;
  /** Of the points for all other questions of the same attempts. */
  restVariance: number;
  covarianceWithRest: number;
}

/** Mean, variance and covariance with the rest of every question, in two passes over the table. */
export function questionMoments(matrix: PointsMatrix): QuestionMoments[] {
  const { n, points, questions } = matrix;
  const width = questions.length;
  const totals = rowTotals(matrix);
  const [count, mean, meanRest] = [new Float64Array(width), new Float64Array(width), new Float64Array(width)];
  for (let row = 0, cell = 0; row < n; row++) {
    const total = totals[row] ?? 0;
    for (let column = 0; column < width; column++, cell++) {
      const value = points[cell] ?? Number.NaN;
      if (value !== value) continue;
      add(count, column, 1);
      add(mean, column, value);
      add(meanRest, column, total - value);
    }
  }
  for (let column = 0; column < width; column++) {
    mean[column] = at(mean, column) / at(count, column);
    meanRest[column] = at(meanRest, column) / at(count, column);
  }
  const [squares, restSquares, products] = [
    new Float64Array(width),
    new Float64Array(width),
    new Float64Array(width),
  ];
  for (let row = 0, cell = 0; row < n; row++) {
    const total = totals[row] ?? 0;
    for (let column = 0; column < width; column++, cell++) {
      const value = points[cell] ?? Number.NaN;
      if (value !== value) continue;
      const own = value - at(mean, column);
      const rest = total - value - at(meanRest, column);
      add(squares, column, own * own);
      add(restSquares, column, rest * rest);
      add(products, column, own * rest);
    }
  }
  return questions.map((_, column) => {
    const less = at(count, column) < 2 ? Number.NaN : at(count, column) - 1;
    return {
      n: at(count, column),
      mean: at(mean, column),
      variance: at(squares, column) / less,
      restVariance: at(restSquares, column) / less,
      covarianceWithRest: at(products, column) / less,
    };
  });
}

const at = (values: Float64Array, column: number): number => values[column] ?? 0;

function add(values: Float64Array, column: number, by: number): void {
  values[column] = at(values, column) + by;
}

/** The correlation of a question with the rest, −1 to 1; null where either is the same for all. */
export function correlationWithRest({
  variance,
  restVariance,
  covarianceWithRest,
}: QuestionMoments): number | null {
  return variance > 0 && restVariance > 0 ? covarianceWithRest / Math.sqrt(variance * restVariance) : null;
}
