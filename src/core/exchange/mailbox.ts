import { z } from 'zod';
import { Sealed } from '../formats/packet/sealed';
import { ScriptPacket } from '../handback/script';
import { Id, Instant } from '../basics/common';
import { PaperVersion } from '../model/paper';
import { DeskHold } from '../model/deskHold';
import { Group, Student } from '../model/people';
import { Allowance, Attempt, ExceptionRequest, Sitting } from '../model/sitting';
import { Invites, Release, ReleaseStage } from '../model/release';
import { AttemptChange } from './attemptChange';

/**
 * What lies in the mailbox of the classroom server. The desk puts in what students may have; the students' answers wait in
 * it for the desk. No key lies there open: a paper is put in without, and with it only sealed, where students are to
 * see at once how they did.
 */

/** A student as the mailbox has him: with nothing that only the desk needs. */
export const MailboxStudent = Student.omit({ number: true, email: true, fields: true });
export type MailboxStudent = z.infer<typeof MailboxStudent>;

export const SealedPaper = z.object({ paperId: Id, version: z.number().int().min(1), seal: Sealed });
export type SealedPaper = z.infer<typeof SealedPaper>;

/**
 * A student's result with its script, made on the desk with all that any of its stages shows: sealed, so that it is opened
 * in memory only, and cut there to what is let out at the moment.
 */
export const MailboxRelease = Release.extend({
  openedAt: Instant.array(),
  /** Absent: as servers of an older version have it, all of `shows` from `releasedAt` on. */
  stages: ReleaseStage.array().optional(),
  invites: Invites.optional(),
  seal: Sealed.optional(),
  /** As servers of an older version have it. */
  packet: ScriptPacket.optional(),
});
export type MailboxRelease = z.infer<typeof MailboxRelease>;

/** The access code of a sitting, sealed: its row has none. */
export const SealedCode = z.object({ sittingId: Id, seal: Sealed });
export type SealedCode = z.infer<typeof SealedCode>;

const rows = {
  sittings: Sitting,
  groups: Group,
  students: MailboxStudent,
  allowances: Allowance,
  requests: ExceptionRequest,
  papers: PaperVersion,
  sealed: SealedPaper,
  releases: MailboxRelease,
  access: SealedCode,
} as const;
export type MailboxTable = keyof typeof rows;
export type MailboxRow<T extends MailboxTable> = z.infer<(typeof rows)[T]>;
export const mailboxTables = Object.keys(rows) as MailboxTable[];

/** Under which key a row lies, its parts joined by `/`. */
export const mailboxKeys: { [T in MailboxTable]: (row: MailboxRow<T>) => string[] } = {
  sittings: ({ id }) => [id],
  groups: ({ id }) => [id],
  students: ({ id }) => [id],
  allowances: ({ studentId, sittingId, id }) => [studentId, sittingId, id],
  requests: ({ studentId, sittingId, id }) => [studentId, sittingId, id],
  papers: ({ paperId, version }) => [paperId, String(version)],
  sealed: ({ paperId, version }) => [paperId, String(version)],
  releases: ({ studentId, sittingId }) => [studentId, sittingId],
  access: ({ sittingId }) => [sittingId],
};

/** A key as one text. */
export const keyText = (parts: readonly string[]) => parts.map(encodeURIComponent).join('/');

const put = <T extends MailboxTable>(table: T) => z.object({ table: z.literal(table), row: rows[table] });

/** One thing that the desk puts in, changes or takes out. */
export const MailboxChange = z.union([
  z.discriminatedUnion('table', [
    put('sittings'),
    put('groups'),
    put('students'),
    put('allowances'),
    put('requests'),
    put('papers'),
    put('sealed'),
    put('releases'),
    put('access'),
    /** What the teacher did to an attempt. */
    z.object({ table: z.literal('attempts'), id: Id, change: AttemptChange }),
  ]),
  z.object({
    drop: z.enum(['attempts', ...mailboxTables]),
    key: z.string().max(300),
    rev: z.number().int().optional(),
  }),
]);
export type MailboxChange = z.infer<typeof MailboxChange>;

/** So many changes go at once. */
export const mostChanges = 500;
export const MailboxChanges = z.object({ changes: MailboxChange.array().max(mostChanges) });

/**
 * Who is stopped for a while because too much was guessed: an address (join codes, or access codes of guests), or a student
 * (access codes), by id.
 */
export const Stopped = z.object({
  from: z.string(),
  until: z.number(),
  what: z.enum(['codes', 'guests', 'access']),
});
export type Stopped = z.infer<typeof Stopped>;

/** What has changed on the students' side since the desk last asked. */
export const MailboxNews = z.object({
  /** Which mailbox it is: a new one knows nothing of what was put into another. */
  mailbox: Id,
  /** Up to where this tells; asked for again from there. */
  rev: z.number().int().min(0),
  /** What the clock of the server says, ms since 1970. */
  now: z.number(),
  /** Whether there is more. */
  more: z.boolean(),
  attempts: Attempt.array(),
  guests: MailboxStudent.array(),
  requests: ExceptionRequest.array(),
  opened: z.object({ sittingId: Id, studentId: Id, openedAt: Instant.array() }).array(),
  stopped: Stopped.array(),
  /** Which computers hold the desks that this server has copies of; none from a server of an older version. */
  holds: DeskHold.array().default([]),
});
export type MailboxNews = z.infer<typeof MailboxNews>;

/** Who was heard of since the desk last asked, and when, by the server's clock, ms since 1970. */
export const MailboxPresence = z.object({ now: z.number(), seen: z.tuple([Id, z.number()]).array() });
export type MailboxPresence = z.infer<typeof MailboxPresence>;

/** How the mailbox stands, for the teacher. */
export const MailboxState = z.object({
  mailbox: Id,
  rev: z.number().int().min(0),
  now: z.number(),
  /** Where students find it: what the school set, else every address of this computer in its networks. */
  addresses: z.url({ protocol: /^https?$/ }).array(),
  sittings: z.object({ id: Id, title: z.string() }).array(),
  stopped: Stopped.array(),
});
export type MailboxState = z.infer<typeof MailboxState>;

/** The teacher's secret without what typing adds. */
export const plainSecret = (typed: string) => typed.toUpperCase().replace(/[\s-]+/g, '');
