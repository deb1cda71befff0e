import { z } from 'zod';
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
  Release,
  Sitting,
  SittingTemplate,
} from '../../model/sitting';

export const backupFormat = 'gribbet-desk';
export const backupVersion = 1;

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
  version: z.literal(backupVersion),
  savedAt: Instant,
  tables: DeskTables,
});
export type Backup = z.infer<typeof Backup>;

/** Why a file is not a desk that can be put back; `path` names the place, `expected` what should be there. */
export type BackupFault =
  | { code: 'notJson'; detail: string }
  | { code: 'foreign' }
  | { code: 'newer'; version: number }
  | { code: 'damaged'; path: string; expected: string; more: number }
  | { code: 'loose'; path: string; expected: string };

export function backupText(tables: DeskTables, savedAt: string): string {
  return JSON.stringify({ format: backupFormat, version: backupVersion, savedAt, tables } satisfies Backup);
}

/** Reads a backup. Either all of it is good, or the fault says where it is not; nothing is read in part. */
export function backupFrom(text: string): { backup: Backup } | { fault: BackupFault } {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    return { fault: { code: 'notJson', detail: error instanceof Error ? error.message : '' } };
  }
  const head = z.object({ format: z.literal(backupFormat), version: z.number() }).safeParse(raw);
  if (!head.success) return { fault: { code: 'foreign' } };
  if (head.data.version > backupVersion) return { fault: { code: 'newer', version: head.data.version } };
  const parsed = Backup.safeParse(raw);
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
  const loose = looseEnd(parsed.data.tables);
  return loose ? { fault: loose } : { backup: parsed.data };
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
  ];
  for (const [table, rows, field, known] of checks) {
    const index = rows.findIndex((row) => !known.has(String(Reflect.get(row, field))));
    if (index >= 0)
      return { code: 'loose', path: `tables.${table}.${index}.${field}`, expected: 'a row in this file' };
  }
  return null;
}
