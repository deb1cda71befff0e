import type { SheetFault } from '@/core/intake/sheetFault';
import type { BadCell } from '@/core/intake/sheetRows';
import type { PlannedRow } from '@/core/intake/sheetPlan';
import type { ColumnRole } from '@/core/intake/columns';

/** What a column of a sheet of answers can hold, beside answers and points. */
export const roleWords: Record<Exclude<ColumnRole['is'], 'answers' | 'points'>, string> = {
  nothing: 'leave out',
  fullName: 'whole name',
  familyName: 'family name',
  givenName: 'given name',
  number: 'student number',
  email: 'email',
  group: 'group',
  own: 'a field of your own',
  startedAt: 'when it was started',
  handedInAt: 'when it was handed in',
};

/** Why a cell was not used. */
export const badCellWords: Record<BadCell['why'], string> = {
  noAnswer: 'is none of the answers to this question',
  noPoints: 'is not a number of points',
  tooManyPoints: 'is more than the question is worth',
  noTime: 'is not a date with a time',
  tooLong: 'is too long',
};

/** What becomes of a row. */
export const becomesWords: Record<PlannedRow['becomes'], string> = {
  new: 'new',
  changed: 'changed',
  same: 'as it is already',
  older: 'left out: a later row of the same student counts',
  ambiguous: 'left out: two students have this name, and the row has no number or email',
};

/** What stands in the way of an import. */
export const sheetFaultWords: Record<SheetFault, string> = {
  nothingNew: 'Nothing in it is new.',
  noAnswers: 'No column holds answers.',
  badColumns: 'Some columns can’t be imported as they are: see below the columns.',
  noTitle: 'Name the sitting.',
  noGroupName: 'Name the new group.',
};
