import Dexie, { type Table, type Transaction } from 'dexie';
import type { KeptProgress } from '@/core/analysis/keptProgress';
import { deskTables, type DeskRow, type DeskTableName } from '@/core/model/desk';
import { splitEntry, withMarker } from '@/core/model/log';
import { ownMarker } from '@/core/model/mark';
import type { Scan } from '@/core/model/scan';
import type { SittingTotals } from '@/core/markbook/sittingTotals';
import type { Attempt } from '@/core/model/sitting';
import type { Release } from '@/core/model/release';
import { guardElsewhere, type DeskElsewhere } from './elsewhereGuard';

/** A row in the server's mailbox, as it was put there. */
export interface Posted {
  key: string;
  digest: string;
}

/** How this desk is paired with a server. */
export interface Pairing {
  /** `now`, or `before`: it was ended, and goes on where it stopped when it is the same mailbox again. */
  key: 'now' | 'before';
  mailbox: string;
  /** What sealed papers are sealed with. */
  secret: string;
  /** Up to where its news was taken in. */
  rev: number;
}

/** Tables of this browser alone: in no backup, and nothing that is lost when they are. */
const localTables = {
  /** Each attempt as the classroom server had it last: what was done here since is told against it. */
  carried: { key: ['id'], indexes: ['sittingId'] },
  /** What was put into the server's mailbox, by a digest of it. */
  posted: { key: ['key'] },
  /** The pairing with the server. */
  pairing: { key: ['key'] },
  /** Where the desk is, while another computer holds it. */
  elsewhere: { key: ['key'] },
  /** Scanned pages that were read while their file was not done: it goes on where it stopped. */
  readPages: { key: ['id'], indexes: ['sittingId'] },
  /** A cache: how each sitting stands. Dropped whenever a row it was computed from changes. */
  progress: { key: ['sittingId'] },
  /** A cache: what each student has in a sitting. It holds as long as the progress that it was computed with. */
  totals: { key: ['sittingId'] },
} as const;

interface LocalRow {
  elsewhere: DeskElsewhere;
  carried: Attempt;
  posted: Posted;
  pairing: Pairing;
  readPages: Scan;
  progress: KeptProgress & { key?: string };
  totals: SittingTotals;
}

type Field<Row, Name> = Name extends keyof Row ? NonNullable<Row[Name]> : never;
/** One field is the key itself, several are a list of them. */
type KeyOf<Row, Names extends readonly string[]> = Names extends readonly [infer Only]
  ? Field<Row, Only>
  : { -readonly [I in keyof Names]: Field<Row, Names[I]> };

type Tables = {
  [T in DeskTableName]: Table<DeskRow[T], KeyOf<DeskRow[T], (typeof deskTables)[T]['key']>>;
} & {
  [T in keyof LocalRow]: Table<LocalRow[T], KeyOf<LocalRow[T], (typeof localTables)[T]['key']>>;
};

/** The teacher's database. The student's side has one of its own (`sitTables.ts`). */
export type DeskDatabase = Dexie & Tables;

const all = { ...deskTables, ...localTables };

/** The schema as Dexie writes it: the key first, then the indexes; what has several fields in brackets. */
const stores = Object.fromEntries(
  Object.entries(all).map(([name, { key, ...entry }]) => {
    const indexes = 'indexes' in entry ? entry.indexes : [];
    const keyed = name === 'log' ? '++seq' : key.length > 1 ? `[${key.join('+')}]` : key.join('');
    return [name, [keyed, ...indexes.map((each) => (each.includes('+') ? `[${each}]` : each))].join(', ')];
  }),
);

type PairingBefore = { key: string; box: string };

/**
 * What was done to desks of older versions, by the version that did it. Versions in which only tables came are left out: Dexie
 * makes what is missing, and reads the schema anew for each version, on every page and in every worker.
 */
const upgrades: Record<number, (change: Transaction) => Promise<void>> = {
  // Openings were in the release, and went with it.
  5: async (change) => {
    for (const release of await change.table('releases').toArray()) {
      const { openedAt = [], ...rest } = release as Release & { openedAt?: string[] };
      const { sittingId, studentId } = rest;
      if (openedAt.length > 0) await change.table('openings').put({ sittingId, studentId, at: openedAt });
      await change.table('releases').put(rest);
    }
  },
  // Marks are keyed with their marker. A key cannot be changed in place: they are copied over, and back.
  9: async (change) => {
    const marks: unknown[] = await change.table('marks').toArray();
    // Nothing is parsed: one odd row must not keep the desk from opening.
    await change
      .table('marksAside')
      .bulkAdd(marks.map((mark) => ({ markerId: ownMarker, history: [], ...(mark as object) })));
    await change
      .table('log')
      .toCollection()
      .modify((entry: { changes: Parameters<typeof withMarker>[0][] }) => {
        entry.changes = entry.changes.map(withMarker);
      });
  },
  10: async () => undefined,
  11: async (change) => {
    await change.table('marks').bulkAdd((await change.table('marksAside').toArray()) as unknown[]);
  },
  // What an entry of the log changed stands apart from it.
  13: async (change) => {
    const log = change.table<object, number>('log');
    // One after another: all of them may be more than memory holds.
    for (const seq of await log.toCollection().primaryKeys()) {
      const { entry, changes } = splitEntry((await log.get(seq)) ?? { seq });
      await log.put(entry);
      if (changes.length > 0) await change.table('logChanges').put({ seq, changes });
    }
    // The pairing with a server has the name of what it is.
    for (const row of (await change.table('line').toArray()) as (Omit<Pairing, 'key' | 'mailbox'> &
      PairingBefore)[]) {
      const { key, box, ...rest } = row;
      await change.table('pairing').put({ ...rest, key: key === 'before' ? key : 'now', mailbox: box });
    }
  },
  // Answers on paper came: progress counts what is not read yet, and is made anew.
  19: async (change) => {
    await change.table('progress').clear();
  },
  // The desk on several computers came.
  20: async () => undefined,
};

const marksBefore = '[attemptId+questionId], attemptId, sittingId, [sittingId+questionId]';
/** What was otherwise on the way to a version. */
const otherwise: Record<number, Record<string, string | null>> = {
  5: { marks: marksBefore },
  9: { marks: marksBefore, marksAside: stores.marks ?? '' },
  10: { marks: null, marksAside: stores.marks ?? '' },
  11: { marksAside: stores.marks ?? '' },
};

export const DeskDatabase = class extends Dexie {
  constructor(name = 'gribbet-desk') {
    super(name);
    // Dexie makes what is missing and takes away what is null, from whatever version a desk has.
    for (const [version, upgrade] of Object.entries(upgrades))
      this.version(Number(version))
        .stores({
          ...stores,
          ...{ standings: null, marksAside: null, line: Number(version) < 13 ? 'key' : null },
          ...otherwise[Number(version)],
        })
        .upgrade(upgrade);
  }
} as unknown as new (name?: string) => DeskDatabase; // the tables are there once Dexie has read the schema

/** The tables of the desk by name. */
export type DeskTable = keyof Tables;

export const desk = new DeskDatabase();
guardElsewhere(desk);
