import { sum } from 'remeda';
import { correlation } from './correlation';
import { groupDifference } from './groupDifference';
import { mantelHaenszel } from './mantelHaenszel';
import { mean } from './mean';
import { correlationWithRest, questionMoments } from './moments';
import { matrixFrom, rowTotals } from './pointsMatrix';
import { quantile } from './quantile';
import { lengthFor, reliability } from './reliability';
import { standardDeviation } from './standardDeviation';
import { partsByRest, upperLower } from './upperLower';

/** A sheet of points or of picks, one row a person. */
export interface FigureSheet {
  names: readonly string[];
  /** Cells as they are written; an empty one: not given, or no points. */
  rows: readonly (readonly string[])[];
  /** What is right in each column; absent: cells are points. */
  key?: readonly string[];
  /** What each column is worth; absent: 1 where there is a key, else the most that anyone has. */
  max?: readonly number[];
  /** The group of each row. */
  groups?: readonly string[];
}

/**
 * All figures of a sheet, as plain data: what `npm run core -- figures` prints. Formulas and sources: docs/figures.md.
 *
 * @throws RangeError with row and column where a cell is no number
 */
export function sheetFigures(sheet: FigureSheet) {
  const { names, rows, groups } = sheet;
  const read = pointsIn(sheet);
  const matrix = matrixFrom(
    names.map((id, column) => ({ id, max: read.maxima[column] ?? 0 })),
    read.points,
  );
  const totals = [...rowTotals(matrix)];
  const trust = reliability(matrix);
  const held = [...new Set(groups ?? [])].sort();
  const two = held.length === 2 ? (row: number) => groups?.[row] === held[0] : null;
  return {
    n: rows.length,
    k: names.length,
    total: spreadOf(totals),
    reliability: trust && {
      n: trust.n,
      alpha: trust.alpha,
      interval95: trust.interval,
      kr20: trust.isKr20 ? trust.alpha : null,
      kr21: trust.kr21,
      standardError: trust.standardError,
      lengthForPoint8: lengthFor(0.8, trust.alpha),
    },
    questions: questionsOf(sheet, read, totals, questionMoments(matrix), trust, two),
    ...(groups && {
      groups: held.map((name) => {
        const of = totals.filter((_, row) => groups[row] === name);
        return { name, n: of.length, mean: mean(of), sd: standardDeviation(of) };
      }),
    }),
    ...(two && {
      difference: groupDifference(
        totals.filter((_, row) => two(row)),
        totals.filter((_, row) => !two(row)),
      ),
    }),
  };
}

interface SheetPoints {
  /** Rows × questions; null where nothing was given. */
  points: (number | null)[][];
  /** What each question is worth. */
  maxima: number[];
}

/** The points of a sheet: as they stand, or a point for what is as the key says. */
function pointsIn({ names, rows, key, max }: FigureSheet): SheetPoints {
  const points = rows.map((cells, row) =>
    names.map((name, column): number | null => {
      const cell = (cells[column] ?? '').trim();
      if (cell === '') return null;
      if (key) return Number(cell === key[column]);
      const value = Number(cell.replace(',', '.'));
      if (!Number.isFinite(value))
        throw new RangeError(`row ${row + 1}, column ${name}: “${cell}” is no number`);
      return value;
    }),
  );
  const maxima = names.map(
    (_, column) => max?.[column] ?? (key ? 1 : Math.max(0, ...points.map((row) => row[column] ?? 0))),
  );
  return { points, maxima };
}

const spreadOf = (totals: readonly number[]) => ({
  mean: mean(totals),
  sd: standardDeviation(totals),
  median: quantile(totals, 0.5),
  quartiles: [quantile(totals, 0.25), quantile(totals, 0.75)],
  min: quantile(totals, 0),
  max: quantile(totals, 1),
});

/** @param two where there are two groups: whether a row is of the first */
function questionsOf(
  { names, rows, key }: FigureSheet,
  { points, maxima }: SheetPoints,
  totals: readonly number[],
  moments: ReturnType<typeof questionMoments>,
  trust: ReturnType<typeof reliability>,
  two: ((row: number) => boolean) | null,
) {
  return names.map((name, column) => {
    const having = points.flatMap((row, at) => (row[column] === null ? [] : [at]));
    const own = having.map((row) => points[row]?.[column] ?? 0);
    const of = having.map((row) => totals[row] ?? 0);
    const found = moments[column];
    const worth = maxima[column] ?? 0;
    return {
      name,
      max: worth,
      n: having.length,
      mean: found?.mean ?? null,
      sd: found ? Math.sqrt(found.variance) : null,
      facility: worth > 0 && own.length > 0 ? mean(own) / worth : null,
      discrimination: found ? correlationWithRest(found) : null,
      upperLower27: upperLower(own, of, worth),
      alphaWithout: trust?.without.get(name) ?? null,
      ...(key && {
        options: optionsOf(
          having.map((row) => (rows[row]?.[column] ?? '').trim()),
          own.map((value, at) => (of[at] ?? 0) - value),
        ),
      }),
      ...(two && {
        equallyAble: mantelHaenszel(
          having.map((row, at) => ({
            first: two(row),
            right: (own[at] ?? 0) >= worth,
            total: of[at] ?? 0,
          })),
        ),
      }),
    };
  });
}

/** Each option with how many chose it, by thirds of the rest, and the correlation of choosing it with the rest. */
function optionsOf(picks: readonly string[], rest: readonly number[]) {
  const third = partsByRest(rest, 3);
  return [...new Set(picks)].sort().map((option) => {
    const chosen = picks.map((pick) => Number(pick === option));
    return {
      option,
      count: sum(chosen),
      thirds: [0, 1, 2].map((part) => chosen.filter((each, row) => each === 1 && third[row] === part).length),
      correlation: correlation(chosen, rest),
    };
  });
}
