import { sum } from 'remeda';
import type { ColumnStep, TotalSteps, UnitStep } from './total';

/** How good one total is. */
export interface TotalError {
  /** Its standard error, as a share of 1. */
  error: number;
  /** How many columns that count have no standard error of their own and are taken as exact. */
  exact: number;
}

/**
 * The standard error of one student's total: a weighted mean of results whose errors do not hang together has the root of the sum of the
 * squares of each weight times each error. Which results are the best ones is taken as given.
 *
 * @param errors of one result of a column, as a share of its maximum, by column id; absent: not known
 * @returns null where nothing counts, or nothing is known
 * Source: propagation of independent errors; for composites of test scores Feldt & Brennan 1989, from memory.
 */
export function totalError({ units }: TotalSteps, errors: ReadonlyMap<string, number>): TotalError | null {
  const having = units.filter(({ share }) => share !== null);
  const adds = ({ categoryId, columns }: UnitStep) => categoryId === null && columns[0]?.standing === 'bonus';
  const weights = sum(having.filter((unit) => !adds(unit)).map(({ weight }) => weight));
  if (weights <= 0) return null;
  let variance = 0;
  let known = 0;
  let exact = 0;
  for (const unit of having) {
    const counted = unit.columns.filter(isCounted);
    // A column by itself that adds is over what the others weigh.
    const inUnit = adds(unit) ? unit.weight : sum(counted.map(({ weight }) => weight));
    for (const column of unit.columns) {
      if (!isCounted(column) && column.standing !== 'bonus') continue;
      const error = column.standing === 'countsAsNothing' ? undefined : errors.get(column.columnId);
      if (error === undefined) exact++;
      else {
        known++;
        variance += ((unit.weight / weights) * (column.weight / inUnit) * error) ** 2;
      }
    }
  }
  return known === 0 ? null : { error: Math.sqrt(variance), exact };
}

const isCounted = ({ standing }: ColumnStep) => standing === 'counts' || standing === 'countsAsNothing';
