import type { IndexableType } from 'dexie';
import isDeepEqual from 'fast-deep-equal';
import { CommandFault } from '@/core/model/commandFault';
import { deskTableNames, deskTables, keyOfRow, type DeskTableName } from '@/core/model/desk';
import {
  contentOf,
  isFile,
  noRows,
  type Backup,
  type DeskContent,
  type DeskRows,
  type DeskTables,
  type Progress,
} from '@/core/formats/backup';
import { joinOf, planOf, type ClashChoice, type PartPlan } from '@/core/formats/backup/joinPart';
import { partOf } from '@/core/formats/backup/deskPart';
import { recordedTables, tableNames, type TableName } from '@/core/model/tables';
import { done } from '@/words/done';
import { runCommand } from './command';
import { newId, newJoinCode } from './ids';
import type { Asset } from '@/core/basics/asset';
import type { FileRef } from '@/core/basics/file';
import { desk } from './tables';

/**
 * The whole desk as it is now; its files are read when they are asked for.
 *
 * @param withPages with the pictures of scanned pages, which may be much of it
 */
export async function deskContent(withPages = true): Promise<DeskContent> {
  const rows = await desk.transaction('r', desk.tables, async () => {
    // Asked for together: the database does not wait for the next question.
    const tables = deskTableNames.filter((table) => table !== 'assets');
    const read = await Promise.all(tables.map((table) => desk.table(table).toArray()));
    const all = Object.fromEntries(tables.map((table, at) => [table, read[at]]));
    // One after another: all of them may be more than memory holds.
    const assets: DeskRows['assets'] = [];
    const left = new Set(withPages ? [] : (await desk.scans.toArray()).map(({ picture }) => picture.id));
    await desk.assets.each(({ bytes: _, ...ref }) => {
      if (!left.has(ref.id)) assets.push(ref);
    });
    return { ...all, assets } as DeskRows; // each table gives its own rows
  });
  const bytes = async (id: string) => {
    const asset = await desk.assets.get(id);
    if (!asset) throw new Error(`No file ${id}`);
    return asset.bytes;
  };
  return { rows, bytes };
}

/**
 * Puts a desk in place of the one that is here: all of it, or nothing. Cannot be undone; the caller asks first.
 *
 * @param along what is written in the same step
 * @throws where one of its files is not what it is called, or there is no room; the desk that was here is still there
 */
export async function putInPlace(
  { rows, bytes }: DeskContent,
  progress: Progress = () => undefined,
  along: () => Promise<unknown> = async () => undefined,
): Promise<void> {
  const { assets, ...tables } = rows;
  await withFiles({ rows, bytes }, progress, () =>
    desk.transaction('rw', desk.tables, async () => {
      for (const table of desk.tables) if (table.name !== 'assets') await table.clear();
      const named = new Set(assets.map(({ id }) => id));
      await desk.assets.filter(({ id }) => !named.has(id)).delete();
      for (const [table, all] of Object.entries(tables)) await desk.table(table).bulkAdd(all);
      await along();
    }),
  );
  progress(1);
}

/**
 * Puts a desk in place of an earlier state of the same one: only rows that are not the same are written. All of it, or nothing.
 *
 * @param before the desk as it is here
 * @param along what is written in the same step
 */
export async function replaceRows(
  before: DeskRows,
  { rows, bytes }: DeskContent,
  progress: Progress = () => undefined,
  along: () => Promise<unknown> = async () => undefined,
): Promise<void> {
  await withFiles({ rows, bytes }, progress, () =>
    desk.transaction('rw', desk.tables, async () => {
      for (const table of deskTableNames) {
        const stored = new Map(before[table].map((row) => [keyOfRow(table, row).join(' '), row as object]));
        const changed: object[] = [];
        for (const row of rows[table]) {
          const key = keyOfRow(table, row).join(' ');
          if (!isDeepEqual(stored.get(key), row)) changed.push(row);
          stored.delete(key);
        }
        const gone = [...stored.values()].map((row) => keyIn(table, row));
        await desk.table(table).bulkDelete(gone);
        // Files are there already.
        if (table !== 'assets') await desk.table(table).bulkPut(changed);
      }
      await desk.progress.clear();
      await desk.totals.clear();
      await along();
    }),
  );
  progress(1);
}

/** The key of a row as the database has it: numbers as numbers. */
function keyIn(table: DeskTableName, row: object): IndexableType {
  const parts = deskTables[table].key.map((field) => Reflect.get(row, field) as IndexableType);
  return parts.length === 1 && parts[0] !== undefined ? parts[0] : (parts as IndexableType);
}

/** Files come before the rest: nothing points to them yet, and together they would not fit into one transaction. Where the rest fails they go again. */
async function withFiles(
  { rows: { assets }, bytes }: DeskContent,
  progress: Progress,
  rest: () => Promise<unknown>,
): Promise<void> {
  const added: string[] = [];
  let seen = 0;
  try {
    for (const together of upTo(bytesTogether, assets)) {
      const here = new Set(
        await desk.assets
          .where('id')
          .anyOf(together.map(({ id }) => id))
          .primaryKeys(),
      );
      const files: Asset[] = [];
      for (const ref of together) {
        if (!here.has(ref.id)) {
          const content = await bytes(ref.id);
          if (!(await isFile(ref, content))) throw new CommandFault('fileChanged', ref.name);
          files.push({ ...ref, bytes: Uint8Array.from(content) });
        }
        progress(seen++ / assets.length);
      }
      added.push(...files.map(({ id }) => id));
      await desk.assets.bulkPut(files);
    }
    await rest();
  } catch (error) {
    await desk.assets.bulkDelete(added).catch(() => undefined);
    throw error;
  }
}

/** So many bytes of files are put in by one transaction: one for each took longer than what it wrote. */
const bytesTogether = 8_000_000;

/** Files in their order, so many together that they have no more bytes; a larger one alone. */
function* upTo(most: number, files: readonly FileRef[]): Generator<FileRef[]> {
  let together: FileRef[] = [];
  let bytes = 0;
  for (const file of files) {
    if (together.length > 0 && bytes + file.size > most) {
      yield together;
      [together, bytes] = [[], 0];
    }
    together.push(file);
    bytes += file.size;
  }
  yield together;
}

/** Some sittings of the desk with all they need. */
export async function partContent(sittingIds: ReadonlySet<string>): Promise<DeskContent> {
  const { rows, bytes } = await deskContent();
  return { rows: partOf(rows, sittingIds), bytes };
}

/** What taking a part of another desk in would do to this one. */
export const partPlan = async (part: DeskRows): Promise<PartPlan> => planOf((await deskContent()).rows, part);

/** Takes a part of another desk in, as one step that undo takes back. */
export async function joinPart(
  { part = '', ...content }: Backup,
  choices: ReadonlyMap<string, ClashChoice>,
  now: string,
  progress: Progress = () => undefined,
): Promise<void> {
  const kit = { newId, newCode: newJoinCode, copyTitle: done.copyTitle };
  const { add, put, remove } = joinOf((await deskContent()).rows, content.rows, choices, kit);
  await withFiles(content, progress, () =>
    runCommand({ command: 'joinPart', said: done.partJoined(part) }, now, async (record) => {
      for (const { table, key } of remove) if (isRecorded(table)) await record.remove(table, key);
      for (const { table, row } of put) if (isRecorded(table)) await record.put(table, row);
      // Of answers and marks, which are many, the log keeps a digest.
      for (const table of tableNames) {
        const rows = add[table] ?? [];
        if (many.has(table)) await record.addMany(table, rows);
        else await record.addAll(table, rows);
      }
    }),
  );
  progress(1);
}

const many: ReadonlySet<TableName> = new Set<TableName>(['attempts', 'marks', 'scans']);
const isRecorded = (table: string): table is TableName => table in recordedTables;

/** The same with a desk that is all in memory. */
export const replaceDesk = (tables: DeskTables): Promise<void> => putInPlace(contentOf(tables));

/** A desk with nothing on it, on which the demo course is not laid out again. */
export const emptyTables: DeskTables = {
  ...noRows(),
  settings: [{ key: 'begun', value: 'empty' }],
};
