import type { RateLimiterAbstract } from 'rate-limiter-flexible';

/** A row as it is kept: its value, and at which revision it was put there. Values are never changed in place. */
export interface KeptRow {
  key: string;
  value: unknown;
  rev: number;
}

/** A row put under a key, or taken away (null). */
export interface KeptChange {
  key: string;
  value: unknown;
}

/** Rows that were put after a revision. */
export interface RowChanges {
  /** By their revisions, lowest first; those of one revision stay together. */
  rows: KeptRow[];
  /** Up to which revision this is all. */
  rev: number;
  /** Whether more came after them. */
  more: boolean;
}

/**
 * Where the exchange is kept: a folder of this computer (`exchangeFolder`), or a database that several servers share
 * (`postgresStore`). Keys are texts of parts joined by `/`.
 */
export interface ExchangeStore {
  /** Which store it is: drawn when it was made. */
  readonly id: string;
  get(key: string): Promise<unknown>;
  /** The rows whose key begins so. */
  list(prefix: string): Promise<KeptRow[]>;
  /** Runs the work of one short request: what was read ahead in it is not asked for again, until it takes a lock or keeps something. */
  request<W>(work: () => Promise<W>): Promise<W>;
  /** Reads rows, and all rows that begin so, at once. */
  readAhead(keys: readonly string[], prefixes?: readonly string[]): Promise<void>;
  /** The rows whose key begins in one of these ways and which were put after a revision; about so many at once. */
  changed(since: number, prefixes: readonly string[], most: number): Promise<RowChanges>;
  /** The revision of the last row that was put, before which nothing can come any more. */
  rev(): Promise<number>;
  /**
   * Keeps all these changes or none. When it returns, they outlast the end of the process and of the computer.
   *
   * @throws {StoreFull} when there is no room; what was kept before is still there
   */
  commit(changes: readonly KeptChange[]): Promise<void>;
  /** Runs `work` while nobody else holds the same name, in any server. */
  locked<W>(name: string, work: () => Promise<W>): Promise<W>;
  /** Says when something was kept, until the returned function is called. */
  watch(changed: () => void): () => void;
  /** Tells all servers, this one as well, something that need not be kept; it may be lost. At most 7,500 bytes. */
  tell(message: string): void;
  /** Hears what is told, until the returned function is called. */
  hear(heard: (message: string) => void): () => void;
  /** What counts, over all servers, how often somebody did something within so long; beyond `points` it stops them as long again. */
  limiter(name: string, points: number, durationS: number): RateLimiterAbstract;
  /** Keeps bytes under their id, drawn from them: the same bytes again are nothing new. */
  putBytes(id: string, bytes: Uint8Array): Promise<void>;
  bytes(id: string): Promise<Uint8Array | null>;
  dropBytes(id: string): Promise<void>;
  /** Which bytes it keeps, by their ids. */
  files(): Promise<string[]>;
  /** Goes on as the store of this id, which ended at this revision: while it is empty, before it is used. */
  become(id: string, rev: number): Promise<void>;
  /** Ends what is under way, and lets go of it. */
  close(): Promise<void>;
}

/** There is no room left to keep something. */
export class StoreFull extends Error {}
