import { sum } from 'remeda';
import type { GradeScale } from '../model/gradeScale';
import type { MarkBook, MarkBookCategory, MarkBookColumn } from '../model/markBook';
import { gradeOf } from '../scoring/gradeOf';

/** What one student has in one column. */
export type BookCell =
  | { is: 'points'; points: number; max: number }
  /** Some of it has no points yet: it does not count until it has. */
  | { is: 'open'; points: number; max: number }
  /** It is still to be sat, or being sat. */
  | { is: 'ahead' }
  /** It was not sat, and can no longer be. */
  | { is: 'missing' }
  /** The student is not on its list. */
  | { is: 'notGiven' };

/** Why a column counts for a student as it does. */
export type Standing =
  | 'counts'
  | 'bonus'
  | 'countsAsNothing'
  | 'dropped'
  | 'excused'
  | 'missing'
  | 'notAmongBest'
  | 'open'
  | 'ahead'
  | 'notGiven'
  /** It adds to something, and there is nothing it could add to. */
  | 'nothingToAddTo';

export interface ColumnStep {
  columnId: string;
  standing: Standing;
  /** Of its maximum, 0 to 1; null while it has none. */
  share: number | null;
  weight: number;
}

/** A category, or a column that counts by itself. */
export interface UnitStep {
  /** Null for a column by itself. */
  categoryId: string | null;
  weight: number;
  columns: ColumnStep[];
  /** Null while nothing of it counts. */
  share: number | null;
}

/** How the total of one student comes about. */
export interface TotalSteps {
  units: UnitStep[];
  /** 0 to 1, and more by bonus; null while nothing counts. */
  total: number | null;
  /** In percent, rounded once; this is what is shown, exported and graded. */
  percent: number | null;
  grade: string | null;
}

/**
 * The total of one student: in a category the mean of what counts by its weights, of the best where only so many count; over
 * categories, and columns by themselves, the mean by theirs. What is missing counts as nothing or not at all; what is open, ahead,
 * not given or excused never counts as nothing.
 *
 * @param cells by column id; absent: missing
 */
export function studentTotal(
  book: Pick<MarkBook, 'columns' | 'categories' | 'missing' | 'decimals' | 'scale'>,
  cells: ReadonlyMap<string, BookCell>,
  studentId: string,
): TotalSteps {
  const stepOf = (column: MarkBookColumn) =>
    columnStep(column, cells.get(column.id) ?? { is: 'missing' }, studentId, book.missing);
  const known = new Set(book.categories.map(({ id }) => id));
  const alone = book.columns.filter(({ categoryId }) => !known.has(categoryId ?? ''));
  const units = [
    ...book.categories.map((category) =>
      categoryStep(category, book.columns.filter(({ categoryId }) => categoryId === category.id).map(stepOf)),
    ),
    ...alone.map((column): UnitStep => aloneStep(stepOf(column))),
  ];
  const total = overUnits(units);
  const percent = total === null ? null : roundedPercent(total, book.decimals);
  return { units, total, percent, grade: percent === null ? null : gradeOfPercent(book.scale, percent) };
}

/** A share in percent, rounded half up to so many decimals. */
export function roundedPercent(share: number, decimals: number): number {
  const scale = 10 ** decimals;
  // 12 digits: what a decimal becomes by being a binary fraction does not decide.
  return Math.round(Number((share * 100 * scale).toPrecision(12))) / scale;
}

/** The grade of a rounded percentage; null where there is no scale. */
export const gradeOfPercent = (scale: GradeScale | null, percent: number): string | null =>
  scale && gradeOf({ ...scale, by: 'percent' }, { points: percent, max: 100 });

function columnStep(
  { id: columnId, weight, bonus, dropped, excused }: MarkBookColumn,
  cell: BookCell,
  studentId: string,
  missing: MarkBook['missing'],
): ColumnStep {
  const share = cell.is === 'points' || cell.is === 'open' ? shareOf(cell) : null;
  const step = (standing: Standing, of: number | null = share): ColumnStep => ({
    ...{ columnId, standing, weight },
    share: of,
  });
  if (dropped) return step('dropped');
  if (excused.includes(studentId)) return step('excused');
  if (cell.is === 'ahead' || cell.is === 'open' || cell.is === 'notGiven') return step(cell.is);
  if (share !== null) return step(bonus ? 'bonus' : 'counts');
  if (bonus || missing === 'leftOut') return step('missing');
  return step('countsAsNothing', 0);
}

const shareOf = ({ points, max }: { points: number; max: number }) => (max > 0 ? points / max : null);

const isCounted = ({ standing }: ColumnStep) => standing === 'counts' || standing === 'countsAsNothing';

function categoryStep({ id, weight, best }: MarkBookCategory, columns: ColumnStep[]): UnitStep {
  const counted = columns.filter(isCounted);
  const kept = best === null ? counted : [...counted].sort(better).slice(0, best);
  const steps = columns.map((step) =>
    isCounted(step) && !kept.includes(step) ? { ...step, standing: 'notAmongBest' as const } : step,
  );
  return withShare({ categoryId: id, weight, columns: steps });
}

/** The better share first; of equal ones that with more weight. */
const better = (a: ColumnStep, b: ColumnStep) => (b.share ?? 0) - (a.share ?? 0) || b.weight - a.weight;

const aloneStep = (step: ColumnStep): UnitStep => ({
  ...{ categoryId: null, weight: step.weight, columns: [step] },
  share: isCounted(step) || step.standing === 'bonus' ? step.share : null,
});

/** A category with its share: the mean of what counts, and what bonus adds to it. */
function withShare(unit: Omit<UnitStep, 'share'>): UnitStep {
  const counted = unit.columns.filter(isCounted);
  const weights = sum(counted.map(({ weight }) => weight));
  if (weights <= 0)
    return {
      ...unit,
      columns: unit.columns.map((step) =>
        step.standing === 'bonus' ? { ...step, standing: 'nothingToAddTo' } : step,
      ),
      share: null,
    };
  const adding = unit.columns.filter(({ standing }) => standing === 'bonus');
  return { ...unit, share: sum([...counted, ...adding].map(weighted)) / weights };
}

const weighted = ({ weight, share }: { weight: number; share: number | null }) => weight * (share ?? 0);

/** The mean over categories and columns by themselves; those that only add are over what the others weigh. */
function overUnits(units: readonly UnitStep[]): number | null {
  const having = units.filter(({ share }) => share !== null);
  const adds = ({ categoryId, columns }: UnitStep) => categoryId === null && columns[0]?.standing === 'bonus';
  const weights = sum(having.filter((unit) => !adds(unit)).map(({ weight }) => weight));
  return weights > 0 ? sum(having.map(weighted)) / weights : null;
}
