import type { z } from 'zod';
import { Setting } from '../basics/asset';
import { LogChanges, LogEntry } from './log';
import { entry, recordedTables, type TableEntry } from './tables';

/** All that a desk is made of: what a backup holds. What can be computed or fetched again is the store's alone. */
export const deskTables = {
  ...recordedTables,
  settings: entry({ schema: Setting, key: ['key'] }),
  /** Its `seq` is counted up by the database. */
  log: entry({ schema: LogEntry, key: ['seq'], indexes: ['about', 'command'] }),
  logChanges: entry({ schema: LogChanges, key: ['seq'], later: true }),
};

export type DeskTableName = keyof typeof deskTables;
export const deskTableNames = Object.keys(deskTables) as DeskTableName[]; // the keys of a literal object are its names

/** What a row of each table is. */
export type DeskRow = { [T in DeskTableName]: z.infer<(typeof deskTables)[T]['schema']> };

/** The entry of a table, for callers that hold any. */
export const tableEntry = (name: DeskTableName): TableEntry => deskTables[name];

/** The key of a row, each field of it as text. */
export const keyOfRow = (table: DeskTableName, row: object): string[] =>
  deskTables[table].key.map((field) => String((row as Record<string, unknown>)[field]));
