import { tooDeep } from '../depth';
import { z } from 'zod';
import { PackedAsset, Setting } from '../../basics/asset';
import { assetId, unpackedAsset } from '../../basics/assetBytes';
import { BankQuestion } from '../../model/bank';
import { Instant } from '../../basics/common';
import { FileRef } from '../../basics/file';
import { LogEntry } from '../../model/log';
import { Paper, PaperVersion } from '../../model/paper';
import { Group, Student } from '../../model/people';
import {
  Allowance,
  Attempt,
  ExceptionRequest,
  HandMark,
  Message,
  Opening,
  Release,
  Sitting,
  SittingTemplate,
} from '../../model/sitting';

/** What a whole desk is made of, and whether rows that come from outside make one. */

export const DeskTables = z.object({
  students: Student.array(),
  groups: Group.array(),
  papers: Paper.array(),
  paperVersions: PaperVersion.array(),
  sittings: Sitting.array(),
  allowances: Allowance.array(),
  attempts: Attempt.array(),
  marks: HandMark.array(),
  releases: Release.array(),
  openings: Opening.array().default([]),
  assets: PackedAsset.array(),
  /** Absent in files of before there was a bank. */
  bank: BankQuestion.array().default([]),
  /** These three likewise. */
  requests: ExceptionRequest.array().default([]),
  outbox: Message.array().default([]),
  templates: SittingTemplate.array().default([]),
  settings: Setting.array(),
  log: LogEntry.array(),
});
export type DeskTables = z.infer<typeof DeskTables>;

/** The same without the bytes of its pictures and files. */
export const DeskRows = DeskTables.omit({ assets: true }).extend({ assets: FileRef.array() });
export type DeskRows = z.infer<typeof DeskRows>;
export const deskTableNames = Object.keys(DeskRows.shape) as (keyof DeskRows)[];

/** A whole desk; the bytes are asked for one file after another, for they may be more than memory holds. */
export interface DeskContent {
  rows: DeskRows;
  /** @throws where there is no such file */
  bytes: (id: string) => Promise<Uint8Array>;
}

export interface Backup extends DeskContent {
  savedAt: string;
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
 */
export function checkedDesk<T extends DeskTables | DeskRows>(
  raw: unknown,
  schema: z.ZodType<T>,
  older: boolean,
): { savedAt: string; tables: T } | { fault: BackupFault } {
  if (tooDeep(raw)) return { fault: { code: 'damaged', path: '', expected: 'less deeply nested', more: 0 } };
  const parsed = z.object({ savedAt: Instant, tables: schema }).safeParse(withOpenings(raw));
  if (!parsed.success) {
    const [first, ...more] = parsed.error.issues;
    const [path, expected] = [first?.path.join('.') ?? '', first?.message ?? ''];
    return { fault: { code: 'damaged', path, expected, more: more.length } };
  }
  const double = doubleKey(parsed.data.tables);
  if (double) return { fault: double };
  const tables = older ? swept(parsed.data.tables) : parsed.data.tables;
  const loose = looseEnd(tables);
  return loose ? { fault: loose } : { savedAt: parsed.data.savedAt, tables };
}

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

/** What a row is known by, as it is stored. */
const keys: { [T in keyof DeskRows]: (row: DeskRows[T][number]) => string } = {
  students: ({ id }) => id,
  groups: ({ id }) => id,
  papers: ({ id }) => id,
  paperVersions: ({ paperId, version }) => `${paperId} ${version}`,
  sittings: ({ id }) => id,
  allowances: ({ id }) => id,
  attempts: ({ id }) => id,
  marks: ({ attemptId, questionId }) => `${attemptId} ${questionId}`,
  releases: ({ sittingId, studentId }) => `${sittingId} ${studentId}`,
  openings: ({ sittingId, studentId }) => `${sittingId} ${studentId}`,
  assets: ({ id }) => id,
  bank: ({ id }) => id,
  requests: ({ id }) => id,
  outbox: ({ id }) => id,
  templates: ({ id }) => id,
  settings: ({ key }) => key,
  log: ({ seq }) => (seq === undefined ? '' : String(seq)),
};

type Rows = Record<keyof DeskRows, readonly unknown[]>;

/** The first row that is there twice. */
function doubleKey(tables: Rows): BackupFault | null {
  for (const table of deskTableNames) {
    const keyOf = keys[table] as (row: unknown) => string; // each table with its own rows
    const seen = new Set<string>();
    for (const [index, row] of tables[table].entries()) {
      const key = keyOf(row);
      if (key !== '' && seen.has(key)) return { code: 'double', path: `tables.${table}.${index}`, key };
      seen.add(key);
    }
  }
  return null;
}

/** Without rows that hang on a sitting or student that is not there. */
function swept<T extends DeskTables | DeskRows>(tables: T): T {
  const sittings = new Set(tables.sittings.map(({ id }) => id));
  const students = new Set(tables.students.map(({ id }) => id));
  const stays = ({ sittingId, studentId }: { sittingId: string; studentId: string }) =>
    sittings.has(sittingId) && students.has(studentId);
  return {
    ...tables,
    outbox: tables.outbox.filter(stays),
    requests: tables.requests.filter(stays),
    allowances: tables.allowances.filter(stays),
    releases: tables.releases.filter(stays),
    openings: tables.openings.filter(stays),
  };
}

/** The first row that points to something the file does not hold. */
function looseEnd(tables: Omit<DeskRows, 'assets'>): BackupFault | null {
  const ids = (rows: readonly { id: string }[]) => new Set(rows.map((row) => row.id));
  const [papers, sittings, attempts, students] = [
    ids(tables.papers),
    ids(tables.sittings),
    ids(tables.attempts),
    ids(tables.students),
  ];
  const checks: [string, readonly object[], string, Set<string>][] = [
    ['sittings', tables.sittings, 'paperId', papers],
    ['attempts', tables.attempts, 'sittingId', sittings],
    ['attempts', tables.attempts, 'studentId', students],
    ['marks', tables.marks, 'attemptId', attempts],
    ['releases', tables.releases, 'sittingId', sittings],
    ['allowances', tables.allowances, 'sittingId', sittings],
    ['requests', tables.requests, 'sittingId', sittings],
    ['paperVersions', tables.paperVersions, 'paperId', papers],
    ['marks', tables.marks, 'sittingId', sittings],
    ['releases', tables.releases, 'studentId', students],
    ['openings', tables.openings, 'sittingId', sittings],
    ['openings', tables.openings, 'studentId', students],
    ['allowances', tables.allowances, 'studentId', students],
    ['requests', tables.requests, 'studentId', students],
    ['outbox', tables.outbox, 'sittingId', sittings],
    ['outbox', tables.outbox, 'studentId', students],
  ];
  for (const [table, rows, field, known] of checks) {
    const index = rows.findIndex((row) => !known.has(String(Reflect.get(row, field))));
    if (index >= 0)
      return { code: 'loose', path: `tables.${table}.${index}.${field}`, expected: 'a row in this file' };
  }
  return null;
}
