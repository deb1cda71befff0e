import { z } from 'zod';
import { PackedAsset } from '../../basics/asset';
import { assetId, unpackedAsset } from '../../basics/assetBytes';
import { Instant } from '../../basics/common';
import { FileRef } from '../../basics/file';
import { deskTableNames, keyOfRow, tableEntry, type DeskRow, type DeskTableName } from '../../model/desk';
import { splitEntry } from '../../model/log';
import type { Owner } from '../../model/tables';
import { tooDeep } from '../depth';

/** What a whole desk is made of, and whether rows that come from outside make one. */

/** The rows of every table; the files with their bytes, or without. */
function everyTable(files: z.ZodType): z.ZodObject {
  return z.object(
    Object.fromEntries(
      deskTableNames.map((name) => {
        const rows = (name === 'assets' ? files : tableEntry(name).schema).array();
        return [name, tableEntry(name).later ? rows.default([]) : rows];
      }),
    ),
  );
}

export type DeskTables = { [T in DeskTableName]: (T extends 'assets' ? PackedAsset : DeskRow[T])[] };
export const DeskTables = everyTable(PackedAsset) as unknown as z.ZodType<DeskTables>; // as the registry has them

/** A desk without a row. */
export const noRows = (): DeskTables =>
  Object.fromEntries(deskTableNames.map((table) => [table, []])) as unknown as DeskTables; // every table there is

/** The same without the bytes of its pictures and files. */
export type DeskRows = { [T in DeskTableName]: (T extends 'assets' ? FileRef : DeskRow[T])[] };
export const DeskRows = everyTable(FileRef) as unknown as z.ZodType<DeskRows>; // as the registry has them

/** A whole desk; the bytes are asked for one file after another, for they may be more than memory holds. */
export interface DeskContent {
  rows: DeskRows;
  /** @throws where there is no such file */
  bytes: (id: string) => Promise<Uint8Array>;
}

export interface Backup extends DeskContent {
  savedAt: string;
  /** What it is called where it is a part of a desk, to be taken into another one. */
  part?: string;
}

/** Why a file is not a desk that can be put back; `path` names the place, `expected` what should be there. */
export type BackupFault =
  | { code: 'notJson'; detail: string }
  /** A zip that is not whole. */
  | { code: 'torn'; detail: string }
  | { code: 'foreign' }
  | { code: 'newer'; version: number }
  /** Its content is not what was saved: a part is missing or was changed. */
  | { code: 'changed' }
  /** A copy that another secret opens, or none. */
  | { code: 'sealed' }
  | { code: 'tooLarge'; path: string; most: number }
  | { code: 'damaged'; path: string; expected: string; more: number }
  | { code: 'double'; path: string; key: string }
  | { code: 'loose'; path: string; expected: string };

export type BackupRead = { backup: Backup } | { fault: BackupFault };

/** A desk whose bytes stand beside its rows. */
export function contentOf({ assets, ...tables }: DeskTables): DeskContent {
  const all = new Map(assets.map((asset) => [asset.id, unpackedAsset(asset)]));
  return {
    rows: { ...tables, assets: [...all.values()].map(({ bytes: _, ...ref }) => ref) },
    bytes: async (id) => all.get(id)?.bytes ?? missing(id),
  };
}

function missing(id: string): never {
  throw new Error(`No file ${id}`);
}

/** Whether these bytes are the file that is meant: its id is drawn from them. */
export const isFile = async (ref: FileRef, bytes: Uint8Array): Promise<boolean> =>
  bytes.length === ref.size && (await assetId(bytes)) === ref.id;

/**
 * What was read as a desk, all of it good or the first fault.
 *
 * @param raw `{ savedAt, tables }` as they were parsed
 * @param schema with the bytes among the rows, or apart from them
 * @param older of before the desk took along what hangs on what it deletes: that is left behind
 * @param known rows that are part of it and were checked when they came to this desk
 */
export function checkedDesk<T extends DeskTables | DeskRows>(
  raw: unknown,
  schema: z.ZodType<T>,
  older: boolean,
  known?: T,
): { savedAt: string; tables: T } | { fault: BackupFault } {
  if (tooDeep(raw)) return { fault: { code: 'damaged', path: '', expected: 'less deeply nested', more: 0 } };
  const parsed = z.object({ savedAt: Instant, tables: schema }).safeParse(withLogChanges(withOpenings(raw)));
  if (!parsed.success) {
    const [first, ...more] = parsed.error.issues;
    const [path, expected] = [first?.path.join('.') ?? '', first?.message ?? ''];
    return { fault: { code: 'damaged', path, expected, more: more.length } };
  }
  const all = known ? joinedRows(known, parsed.data.tables) : parsed.data.tables;
  const double = doubleKey(all);
  if (double) return { fault: double };
  const tables = older ? swept(all) : all;
  const loose = looseEnd(tables);
  return loose ? { fault: loose } : { savedAt: parsed.data.savedAt, tables };
}

/** Two parts of a desk as one. */
export const joinedRows = <T extends DeskTables | DeskRows>(one: T, other: T): T =>
  Object.fromEntries(
    deskTableNames.map((table) => [table, [...(one as Rows)[table], ...(other as Rows)[table]]]),
  ) as unknown as T; // every table there is

/** Files of before openings were rows of their own have them in the releases. */
function withOpenings(raw: unknown): unknown {
  const { tables, ...rest } = raw as { tables?: { releases?: unknown; openings?: unknown } };
  if (!tables || tables.openings !== undefined || !Array.isArray(tables.releases)) return raw;
  const openings = (tables.releases as Record<string, unknown>[]).flatMap((release) => {
    const { sittingId, studentId, openedAt } = release ?? {};
    return Array.isArray(openedAt) && openedAt.length > 0 ? [{ sittingId, studentId, at: openedAt }] : [];
  });
  return { ...rest, tables: { ...tables, openings } };
}

/** Files of before the changes of the log stood apart have them in its entries. */
function withLogChanges(raw: unknown): unknown {
  const { tables, ...rest } = raw as { tables?: { log?: unknown; logChanges?: unknown } };
  if (!tables || tables.logChanges !== undefined || !Array.isArray(tables.log)) return raw;
  const split = (tables.log as { seq?: unknown }[]).map((entry) => splitEntry(entry ?? {}));
  const logChanges = split.flatMap(({ entry, changes }) =>
    changes.length > 0 ? [{ seq: entry.seq, changes }] : [],
  );
  return { ...rest, tables: { ...tables, log: split.map(({ entry }) => entry), logChanges } };
}

type Rows = Record<DeskTableName, readonly object[]>;

/** The first row that is there twice. */
function doubleKey(tables: Rows): BackupFault | null {
  for (const table of deskTableNames) {
    const seen = new Set<string>();
    for (const [index, row] of tables[table].entries()) {
      // An entry of the log that was never numbered gets its number when it is put back.
      const key = keyOfRow(table, row).join(' ');
      if (key !== 'undefined' && seen.has(key))
        return { code: 'double', path: `tables.${table}.${index}`, key };
      seen.add(key);
    }
  }
  return null;
}

/** Without rows that hang on a sitting or student that is not there; an attempt that does is a fault all the same. */
function swept<T extends DeskTables | DeskRows>(tables: T): T {
  const all: Rows = tables;
  const known = { sittings: idsOf(all.sittings), students: idsOf(all.students) };
  const kept = deskTableNames.flatMap((table) => {
    const { sittings, students } = tableEntry(table).owners ?? {};
    if (!sittings || !students || table === 'attempts') return [];
    const stays = (row: object) =>
      known.sittings.has(named(row, sittings)) && known.students.has(named(row, students));
    return [[table, all[table].filter(stays)]];
  });
  return { ...tables, ...(Object.fromEntries(kept) as Partial<T>) };
}

const named = (row: object, field: string) => String(Reflect.get(row, field));
const idsOf = (rows: readonly object[]) => new Set(rows.map((row) => named(row, 'id')));

/** The first row that points to something the file does not hold. */
function looseEnd(tables: Omit<Rows, 'assets'>): BackupFault | null {
  const known = {
    papers: idsOf(tables.papers),
    sittings: idsOf(tables.sittings),
    attempts: idsOf(tables.attempts),
    students: idsOf(tables.students),
  };
  for (const table of deskTableNames) {
    // A guest whose sitting is gone is a guest all the same.
    if (table === 'assets' || table === 'students') continue;
    const { owners, needs } = tableEntry(table);
    for (const [owner, field] of Object.entries({ ...needs, ...owners })) {
      const index = tables[table].findIndex((row) => !known[owner as Owner].has(named(row, field)));
      if (index >= 0)
        return { code: 'loose', path: `tables.${table}.${index}.${field}`, expected: 'a row in this file' };
    }
  }
  return null;
}
