import { deskTableNames, tableEntry, type DeskTableName } from '../../model/desk';
import type { DeskRows } from './desk';

/** Some sittings out of a desk, with all they need: a desk of its own that another one can take in. */

/** The rows of every table, whatever they are. */
export type AnyRows = Record<DeskTableName, readonly object[]>;

export const fieldOf = (row: object, field: string): unknown => Reflect.get(row, field);

const textOf = (row: object, field: string) => String(fieldOf(row, field));

/**
 * The part of a desk that some sittings are: they, what hangs on them, their papers with all versions, their groups and students, the
 * comments kept for their questions, the mark books that have no other sittings, and every file that is named in any of it. The log,
 * the settings, the question bank and templates stay behind.
 */
export function partOf(rows: DeskRows, sittingIds: ReadonlySet<string>): DeskRows {
  const sittings = rows.sittings.filter(({ id }) => sittingIds.has(id));
  const papers = rows.papers.filter(({ id }) => sittings.some(({ paperId }) => paperId === id));
  const markBooks = rows.markBooks.filter(({ columns }) => {
    const own = columns.flatMap((column) => (column.kind === 'sitting' ? [column.sittingId] : []));
    return own.length > 0 && own.every((id) => sittingIds.has(id));
  });
  const groupIds = new Set([...sittings, ...markBooks].flatMap((row) => row.groupIds));
  const hanging = hangingRows(rows, sittingIds, new Set(papers.map(({ id }) => id)));
  const named = new Set(
    deskTableNames.flatMap((table) => {
      const { students } = tableEntry(table).owners ?? {};
      return students === undefined ? [] : (hanging[table] ?? []).map((row) => textOf(row, students));
    }),
  );
  const students = rows.students
    .filter(
      ({ id, groupIds: own, onlySittingId }) =>
        named.has(id) ||
        (onlySittingId === undefined
          ? own.some((group) => groupIds.has(group))
          : sittingIds.has(onlySittingId)),
    )
    .map((student) => ({ ...student, groupIds: student.groupIds.filter((id) => groupIds.has(id)) }));
  const questions = new Set(
    [...papers, ...(hanging.paperVersions as DeskRows['paperVersions'])].flatMap((paper) =>
      paper.questions.map(({ id }) => id),
    ),
  );
  const part: AnyRows = {
    ...(Object.fromEntries(
      deskTableNames.map((table) => [table, hanging[table] ?? []]),
    ) as unknown as AnyRows),
    ...{ sittings, papers, markBooks, students },
    groups: rows.groups.filter(({ id }) => groupIds.has(id)),
    commentBank: rows.commentBank.filter(
      ({ questionId }) => questionId !== null && questions.has(questionId),
    ),
  };
  const texts = textsIn(part);
  return { ...part, assets: rows.assets.filter(({ id }) => texts.has(id)) } as DeskRows; // each table has its own rows
}

/** What hangs on sittings and papers, and on attempts among it. */
function hangingRows(
  rows: AnyRows,
  sittings: ReadonlySet<string>,
  papers: ReadonlySet<string>,
): Partial<Record<DeskTableName, readonly object[]>> {
  const hanging: Partial<Record<DeskTableName, readonly object[]>> = {};
  for (const table of deskTableNames) {
    const owners = tableEntry(table).owners ?? {};
    if (table === 'students') continue;
    const { sittings: bySitting, papers: byPaper } = owners;
    if (bySitting !== undefined)
      hanging[table] = rows[table].filter((row) => sittings.has(textOf(row, bySitting)));
    else if (byPaper !== undefined)
      hanging[table] = rows[table].filter((row) => papers.has(textOf(row, byPaper)));
  }
  return hanging;
}

/** Every text that stands anywhere in something. */
function textsIn(value: unknown, into = new Set<string>()): Set<string> {
  if (typeof value === 'string') into.add(value);
  else if (value !== null && typeof value === 'object')
    for (const each of Object.values(value)) textsIn(each, into);
  return into;
}
