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
export function sheetFigures({ names, rows, key, max, groups }: FigureSheet) {
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
  const matrix = matrixFrom(
    names.map((id, column) => ({ id, max: maxima[column] ?? 0 })),
    points,
  );
  const totals = [...rowTotals(matrix)];
  const trust = reliability(matrix);
  const moments = questionMoments(matrix);
  const held = [...new Set(groups ?? [])].sort();
  const inFirst = (row: number) => groups?.[row] === held[0];
  return {
    n: rows.length,
    k: names.length,
    total: {
      mean: mean(totals),
      sd: standardDeviation(totals),
      median: quantile(totals, 0.5),
      quartiles: [quantile(totals, 0.25), quantile(totals, 0.75)],
      min: quantile(totals, 0),
      max: quantile(totals, 1),
    },
    reliability: trust && {
      n: trust.n,
      alpha: trust.alpha,
      interval95: trust.interval,
      kr20: trust.isKr20 ? trust.alpha : null,
      kr21: trust.kr21,
      standardError: trust.standardError,
      lengthForPoint8: lengthFor(0.8, trust.alpha),
    },
    questions: names.map((name, column) => {
      const having = points.flatMap((row, at) => (row[column] === null ? [] : [at]));
      const own = having.map((row) => points[row]?.[column] ?? 0);
      const of = having.map((row) => totals[row] ?? 0);
      const rest = own.map((value, at) => (of[at] ?? 0) - value);
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
            rest,
          ),
        }),
        ...(held.length === 2 && {
          equallyAble: mantelHaenszel(
            having.map((row, at) => ({
              first: inFirst(row),
              right: (own[at] ?? 0) >= worth,
              total: of[at] ?? 0,
            })),
          ),
        }),
      };
    }),
    ...(groups && {
      groups: held.map((name) => {
        const of = totals.filter((_, row) => groups[row] === name);
        return { name, n: of.length, mean: mean(of), sd: standardDeviation(of) };
      }),
    }),
    ...(held.length === 2 && {
      difference: groupDifference(
        totals.filter((_, row) => inFirst(row)),
        totals.filter((_, row) => !inFirst(row)),
      ),
    }),
  };
}

/** Each option with how many chose it, by thirds of the rest, and the correlation of choosing it with the rest. */
function optionsOf(picks: readonly string[], rest: readonly number[]) {
  const third = partsByRest(rest, 3);
  return [...new Set(picks)].sort().map((option) => {
    const chosen = picks.map((pick) => Number(pick === option));
    return {
      option,
      count: chosen.reduce((sum, each) => sum + each, 0),
      thirds: [0, 1, 2].map((part) => chosen.filter((each, row) => each === 1 && third[row] === part).length),
      correlation: correlation(chosen, rest),
    };
  });
}
