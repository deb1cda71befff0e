import { z } from 'zod';
import { base64From } from '../../base64';
import { sha256 } from '../../crypto';
import { PackedAsset, Setting } from '../../model/asset';
import { BankQuestion } from '../../model/bank';
import { Instant } from '../../model/common';
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

export const backupFormat = 'gribbet-desk';
/** 2 has a digest over its content; 1 is still read. */
export const backupVersion = 2;

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

/** The whole desk as one file. */
export const Backup = z.object({
  format: z.literal(backupFormat),
  version: z.number().int().min(1).max(backupVersion),
  savedAt: Instant,
  /** SHA-256 (FIPS 180-4) of when it was saved and of what it holds, in Base64. */
  digest: z.string().optional(),
  tables: DeskTables,
});
export type Backup = z.infer<typeof Backup>;

/** Why a file is not a desk that can be put back; `path` names the place, `expected` what should be there. */
export type BackupFault =
  | { code: 'notJson'; detail: string }
  | { code: 'foreign' }
  | { code: 'newer'; version: number }
  /** Its content is not what was saved: a part is missing or was changed. */
  | { code: 'changed' }
  | { code: 'damaged'; path: string; expected: string; more: number }
  | { code: 'double'; path: string; key: string }
  | { code: 'loose'; path: string; expected: string };

export async function backupText(tables: DeskTables, savedAt: string): Promise<string> {
  const digest = await digestOf(savedAt, tables);
  const head = { format: backupFormat, version: backupVersion, savedAt, digest } as const;
  return JSON.stringify({ ...head, tables } satisfies Backup);
}

async function digestOf(savedAt: unknown, tables: unknown): Promise<string> {
  return base64From(await sha256(new TextEncoder().encode(JSON.stringify([savedAt, tables]))));
}

/** Reads a backup. Either all of it is good, or the fault says where it is not; nothing is read in part. */
export async function backupFrom(text: string): Promise<{ backup: Backup } | { fault: BackupFault }> {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    return { fault: { code: 'notJson', detail: error instanceof Error ? error.message : '' } };
  }
  const head = z.object({ format: z.literal(backupFormat), version: z.number() }).safeParse(raw);
  if (!head.success) return { fault: { code: 'foreign' } };
  if (head.data.version > backupVersion) return { fault: { code: 'newer', version: head.data.version } };
  // Before anything else: what was changed on its way is not looked at any further.
  const { savedAt, digest, tables } = raw as { savedAt?: unknown; digest?: unknown; tables?: unknown };
  if (head.data.version >= 2 && digest !== (await digestOf(savedAt, tables)))
    return { fault: { code: 'changed' } };
  if (depthOf(raw) > mostDepth)
    return { fault: { code: 'damaged', path: '', expected: 'less deeply nested', more: 0 } };
  const parsed = Backup.safeParse(withOpenings(raw));
  if (!parsed.success) {
    const [first, ...more] = parsed.error.issues;
    return {
      fault: {
        code: 'damaged',
        path: first?.path.join('.') ?? '',
        expected: first?.message ?? '',
        more: more.length,
      },
    };
  }
  const double = doubleKey(parsed.data.tables);
  if (double) return { fault: double };
  // Older desks kept what hung on nothing any more: that is left behind.
  const backup = head.data.version < 2 ? { ...parsed.data, tables: swept(parsed.data.tables) } : parsed.data;
  const loose = looseEnd(backup.tables);
  return loose ? { fault: loose } : { backup };
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
const keys: { [T in keyof DeskTables]: (row: DeskTables[T][number]) => string } = {
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

/** The first row that is there twice. */
function doubleKey(tables: DeskTables): BackupFault | null {
  for (const table of Object.keys(keys) as (keyof DeskTables)[]) {
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
function swept(tables: DeskTables): DeskTables {
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

/** Nothing on a desk is nested deeper. */
const mostDepth = 200;

/** How deeply a value is nested; told without recursion, which a hostile file could exhaust. */
function depthOf(value: unknown): number {
  const waiting: [unknown, number][] = [[value, 1]];
  let deepest = 0;
  for (let next = waiting.pop(); next && deepest <= mostDepth; next = waiting.pop()) {
    const [each, depth] = next;
    deepest = Math.max(deepest, depth);
    if (each !== null && typeof each === 'object')
      for (const child of Object.values(each))
        if (typeof child === 'object') waiting.push([child, depth + 1]);
  }
  return deepest;
}

/** The first row that points to something the file does not hold. */
function looseEnd(tables: DeskTables): BackupFault | null {
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
