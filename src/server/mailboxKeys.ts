import { createHash } from 'node:crypto';
import { keyText, mailboxKeys, type MailboxRow, type MailboxTable } from '@/core/exchange/mailbox';
import type { Attempt } from '@/core/model/sitting';

/** The keys under which the mailbox keeps things. Codes are looked up by their digest: how long that takes tells nothing. */
export const keys = {
  of: <T extends MailboxTable>(table: T, row: MailboxRow<T>) =>
    `${table}/${keyText(mailboxKeys[table](row))}`,
  student: (id: string) => `students/${keyText([id])}`,
  code: (joinCode: string) => `codes/${createHash('sha256').update(joinCode).digest('hex')}`,
  sitting: (id: string) => `sittings/${keyText([id])}`,
  attempt: ({ studentId, sittingId, id }: Pick<Attempt, 'studentId' | 'sittingId' | 'id'>) =>
    `attempts/${keyText([studentId, sittingId, id])}`,
  /** Where an attempt lies, and the tokens that may work on it. */
  session: (attemptId: string) => `sessions/${keyText([attemptId])}`,
  paper: (paperId: string, version: number) => `papers/${keyText([paperId, String(version)])}`,
  sealed: (paperId: string, version: number) => `sealed/${keyText([paperId, String(version)])}`,
  release: (studentId: string, sittingId: string) => `releases/${keyText([studentId, sittingId])}`,
  access: (sittingId: string) => `access/${keyText([sittingId])}`,
  file: (id: string) => `files/${keyText([id])}`,
  desk: (tokenDigest: string) => `desks/${tokenDigest}`,
};

/** What every request of a student at work begins with: rows, and beginnings of keys. */
export const readsOf = ({
  studentId,
  sittingId,
}: Pick<Attempt, 'studentId' | 'sittingId'>): [keys: string[], prefixes: string[]] => [
  [keys.student(studentId), keys.sitting(sittingId), keys.access(sittingId)],
  [`attempts/${keyText([studentId])}/`, `allowances/${keyText([studentId, sittingId])}/`],
];
