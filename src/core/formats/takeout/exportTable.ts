import type { Cell } from '../csv/table';

/** A column of what is taken out. Columns of one set are chosen together: the points of all questions. */
export interface ExportColumn {
  id: string;
  title: string;
  set?: string;
}

/** What is taken out, as a table. */
export interface ExportTable {
  columns: ExportColumn[];
  rows: Cell[][];
}

/** Something that can be chosen of a table: a column, or a set of them. */
export interface ColumnChoice {
  id: string;
  title: string;
  /** How many columns it is. */
  columns: number;
}

const choiceOf = ({ id, set }: ExportColumn) => set ?? id;

/** What can be chosen of a table, in its order. @param setTitles what sets are called */
export function columnChoices(
  { columns }: ExportTable,
  setTitles: Readonly<Record<string, string>>,
): ColumnChoice[] {
  const ids = [...new Set(columns.map(choiceOf))];
  return ids.map((id) => {
    const of = columns.filter((column) => choiceOf(column) === id);
    return {
      id,
      title: of[0]?.set === undefined ? (of[0]?.title ?? '') : (setTitles[id] ?? id),
      columns: of.length,
    };
  });
}

/** How the columns of a table were chosen and ordered. */
export interface Arrangement {
  /** Choices in their order; those that are not named come last, in the table's own order. */
  order: readonly string[];
  left: readonly string[];
}

/** The choices of a table in their order, those that are not named last. */
export function arranged<T extends { id: string }>(choices: readonly T[], order: readonly string[]): T[] {
  const place = new Map(order.map((id, index) => [id, index]));
  return [...choices].sort((a, b) => (place.get(a.id) ?? Infinity) - (place.get(b.id) ?? Infinity) || 0);
}

/** A table with only the chosen columns, in the chosen order. */
export function arrangedTable(table: ExportTable, { order, left }: Arrangement): ExportTable {
  const ids = [...new Set(table.columns.map(choiceOf))].filter((id) => !left.includes(id));
  const wanted = arranged(
    ids.map((id) => ({ id })),
    order,
  ).flatMap(({ id }) => table.columns.flatMap((column, index) => (choiceOf(column) === id ? [index] : [])));
  return {
    columns: wanted.flatMap((index) => table.columns[index] ?? []),
    rows: table.rows.map((row) => wanted.map((index) => row[index] ?? null)),
  };
}

/** A table as rows, its heading first. */
export const withHeading = ({ columns, rows }: ExportTable): Cell[][] => [
  columns.map(({ title }) => title),
  ...rows,
];

/** A column with what stands in it for each row. */
export interface Written<Row> extends ExportColumn {
  cell: (row: Row) => Cell;
}

/** A table from its columns and what its rows are made from. */
export const tableOf = <Row>(columns: readonly Written<Row>[], rows: readonly Row[]): ExportTable => ({
  columns: columns.map(({ cell: _, ...column }) => column),
  rows: rows.map((row) => columns.map(({ cell }) => cell(row))),
});
