/** A table of points as figures read it: a row an attempt, a column a question. */
export interface PointsMatrix {
  /** In the order of the columns: the ids and what each question is worth. */
  questions: readonly { id: string; max: number }[];
  /** How many rows. */
  n: number;
  /** Row by row, n × questions; NaN where the question was not given, or has no points yet. */
  points: Float64Array;
}

/** A matrix from rows of numbers. @throws RangeError where a row is not as long as there are questions */
export function matrixFrom(
  questions: PointsMatrix['questions'],
  rows: readonly (readonly (number | null)[])[],
): PointsMatrix {
  const points = new Float64Array(rows.length * questions.length);
  rows.forEach((row, index) => {
    if (row.length !== questions.length) throw new RangeError(`row ${index + 1} has ${row.length} cells`);
    row.forEach((value, column) => {
      points[index * questions.length + column] = value ?? Number.NaN;
    });
  });
  return { questions, n: rows.length, points };
}

/** The sum of what each row has, so far. */
export function rowTotals({ questions, n, points }: PointsMatrix): Float64Array {
  const totals = new Float64Array(n);
  for (let row = 0, cell = 0; row < n; row++) {
    let total = 0;
    for (let column = 0; column < questions.length; column++, cell++) {
      const value = points[cell] ?? Number.NaN;
      if (value === value) total += value;
    }
    totals[row] = total;
  }
  return totals;
}

/** The rows that have points for every question; the same matrix where all have. */
export function completeRows(matrix: PointsMatrix): PointsMatrix {
  const { questions, n, points } = matrix;
  const width = questions.length;
  const kept: number[] = [];
  for (let row = 0; row < n; row++) {
    let whole = true;
    for (let cell = row * width; cell < (row + 1) * width && whole; cell++)
      whole = !Number.isNaN(points[cell] ?? Number.NaN);
    if (whole) kept.push(row);
  }
  if (kept.length === n) return matrix;
  const next = new Float64Array(kept.length * width);
  kept.forEach((row, at) => next.set(points.subarray(row * width, (row + 1) * width), at * width));
  return { questions, n: kept.length, points: next };
}
