import type { GradeScale } from '../../model/gradeScale';
import type { MarkBook, MarkBookColumn } from '../../model/markBook';
import type { Student } from '../../model/people';
import type { BookCell, TotalSteps } from '../../markbook/total';
import { gradeOf } from '../../scoring/gradeOf';
import type { Cell } from '../csv/table';

/** A mark book as a table: what each student has in each column, and the total. */
export function bookTable(
  { columns, scale }: MarkBook,
  rows: readonly { student: Student; cells: ReadonlyMap<string, BookCell>; steps: TotalSteps }[],
  titleOf: (column: MarkBookColumn) => string,
  {
    shown,
    names,
    scales,
  }: {
    shown: 'points' | 'percent' | 'grade';
    names: boolean;
    /** By sitting. */
    scales: ReadonlyMap<string, GradeScale>;
  },
): Cell[][] {
  const inColumn = (column: MarkBookColumn, cell: BookCell | undefined): Cell => {
    if (!cell || cell.is === 'ahead' || cell.is === 'missing' || cell.is === 'notGiven') return null;
    if (shown === 'points') return cell.points;
    const own = column.kind === 'sitting' ? scales.get(column.sittingId) : undefined;
    if (shown === 'grade' && own && cell.is === 'points') return gradeOf(own, cell);
    return cell.max > 0 ? Math.round((cell.points / cell.max) * 1000) / 10 : null;
  };
  return [
    [
      ...(names ? ['family name', 'given name'] : []),
      ...['number', 'email'],
      ...columns.map(titleOf),
      ...['total (%)', ...(scale ? ['grade'] : [])],
    ],
    ...rows.map(({ student, cells, steps }) => [
      ...(names ? [student.familyName, student.givenName] : []),
      ...[student.number, names ? student.email : null],
      ...columns.map((column) => inColumn(column, cells.get(column.id))),
      ...[steps.percent, ...(scale ? [steps.grade] : [])],
    ]),
  ];
}
