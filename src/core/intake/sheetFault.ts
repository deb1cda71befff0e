/** What stands in the way of bringing a sheet in. */
export type SheetFault = 'nothingNew' | 'noAnswers' | 'noTitle' | 'noGroupName' | 'badColumns';

/** What is known of a sheet before it is brought in. */
export interface SheetReady {
  /** Rows that are new or changed. */
  rows: number;
  questions: number;
  /** Questions that cannot be made as they are. */
  stops: number;
  /** Of the sitting; null where it is there already. */
  title: string | null;
  /** Of the group that is made for new students; null where none is. */
  groupName: string | null;
}

/** What stands in the way, the first of it; null where nothing does. */
export function sheetFault({ rows, questions, stops, title, groupName }: SheetReady): SheetFault | null {
  if (questions === 0) return 'noAnswers';
  if (rows === 0) return 'nothingNew';
  if (stops > 0) return 'badColumns';
  if (title !== null && !title.trim()) return 'noTitle';
  return groupName !== null && !groupName.trim() ? 'noGroupName' : null;
}
