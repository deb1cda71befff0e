import Dexie, { type EntityTable, type Table } from 'dexie';
import type { BankQuestion } from '@/core/model/bank';
import type { Asset, Setting } from '@/core/basics/asset';
import type { LogEntry } from '@/core/model/log';
import type { Paper, PaperVersion } from '@/core/model/paper';
import type { Group, Student } from '@/core/model/people';
import type {
  Allowance,
  Attempt,
  ExceptionRequest,
  HandMark,
  Message,
  Opening,
  Release,
  Sitting,
  SittingTemplate,
} from '@/core/model/sitting';
import type { KeptProgress } from '@/core/analysis/keptProgress';

/** A row in the server's box, as it was put there. */
export interface Posted {
  key: string;
  digest: string;
}

/** How this desk is paired with a server. */
export interface Line {
  /** `before`: it was ended, and goes on where it stopped when it is the same box again. */
  key: 'line' | 'before';
  box: string;
  /** What sealed papers are sealed with. */
  secret: string;
  /** Up to where its news was taken in. */
  rev: number;
}

/** The teacher's database. The student's side has one of its own (`sitTables.ts`). */
export class DeskDatabase extends Dexie {
  declare students: EntityTable<Student, 'id'>;
  declare groups: EntityTable<Group, 'id'>;
  declare papers: EntityTable<Paper, 'id'>;
  declare paperVersions: Table<PaperVersion, [string, number]>;
  declare sittings: EntityTable<Sitting, 'id'>;
  declare allowances: EntityTable<Allowance, 'id'>;
  declare attempts: EntityTable<Attempt, 'id'>;
  declare marks: Table<HandMark, [string, string]>;
  declare releases: Table<Release, [string, string]>;
  /** When each student looked at what was let out: the student's own, and no part of the release. */
  declare openings: Table<Opening, [string, string]>;
  declare assets: EntityTable<Asset, 'id'>;
  declare bank: EntityTable<BankQuestion, 'id'>;
  declare requests: EntityTable<ExceptionRequest, 'id'>;
  declare outbox: EntityTable<Message, 'id'>;
  declare templates: EntityTable<SittingTemplate, 'id'>;
  declare settings: EntityTable<Setting, 'key'>;
  declare log: Table<LogEntry, number>;
  /** Each attempt as the classroom server had it last: what was done here since is told against it. */
  declare carried: EntityTable<Attempt, 'id'>;
  /** What was put into the server's box, by a digest of it. */
  declare posted: EntityTable<Posted, 'key'>;
  /** The line to the server: of this browser alone, and not in a backup. */
  declare line: EntityTable<Line, 'key'>;
  /** A cache: how each sitting stands. Dropped whenever a row it was computed from changes. */
  declare standings: EntityTable<KeptProgress, 'sittingId'>;

  constructor(name = 'gribbet-desk') {
    super(name);
    this.version(1).stores({
      students: 'id, joinCode, number, email, *groupIds',
      groups: 'id, name',
      papers: 'id, changedAt',
      paperVersions: '[paperId+version], paperId',
      sittings: 'id, paperId, *groupIds',
      allowances: 'id, sittingId, [sittingId+studentId]',
      attempts: 'id, sittingId, studentId, [sittingId+studentId]',
      marks: '[attemptId+questionId], attemptId, sittingId, [sittingId+questionId]',
      releases: '[sittingId+studentId], sittingId, studentId',
      assets: 'id',
      settings: 'key',
      log: '++seq, about, command',
      standings: 'sittingId',
    });
    this.version(2)
      .stores({ bank: 'id' })
      // Standings are a cache, and hold more than they did.
      .upgrade((change) => change.table('standings').clear());
    this.version(3).stores({
      requests: 'id, sittingId, [sittingId+studentId]',
      outbox: 'id, sittingId',
      templates: 'id',
    });
    this.version(4).stores({ carried: 'id, sittingId', posted: 'key', line: 'key' });
    this.version(5)
      .stores({ openings: '[sittingId+studentId], sittingId, studentId' })
      // They were in the release, and went with it.
      .upgrade(async (change) => {
        for (const release of await change.table('releases').toArray()) {
          const { openedAt = [], ...rest } = release as Release & { openedAt?: string[] };
          const { sittingId, studentId } = rest;
          if (openedAt.length > 0) await change.table('openings').put({ sittingId, studentId, at: openedAt });
          await change.table('releases').put(rest);
        }
        await change.table('standings').clear();
      });
    // Guests are in no figure any more.
    this.version(6).upgrade((change) => change.table('standings').clear());
    // What is put forward is counted.
    this.version(7).upgrade((change) => change.table('standings').clear());
  }
}

/** The tables of the desk by name. */
export type DeskTable = {
  [K in keyof DeskDatabase]: DeskDatabase[K] extends Table<infer _R, infer _K> ? K : never;
}[keyof DeskDatabase] &
  string;

export const desk = new DeskDatabase();
