import type { MarkBook, MarkBookColumn } from '../model/markBook';

/** A mark book once two students are one: what was typed for either, and who was excused. The one that stays goes before. */
export function mergedBook(book: MarkBook, keptId: string, otherId: string): MarkBook {
  const columns = book.columns.map((column): MarkBookColumn => {
    const excused = [...new Set(column.excused.map((id) => (id === otherId ? keptId : id)))];
    if (column.kind === 'sitting') return { ...column, excused };
    const { [otherId]: theirs, ...values } = column.values;
    return {
      ...{ ...column, excused },
      values: theirs === undefined || keptId in values ? values : { ...values, [keptId]: theirs },
    };
  });
  return { ...book, columns };
}
