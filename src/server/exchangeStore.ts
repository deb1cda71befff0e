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

/**
 * Where the exchange is kept. A folder of this computer is one (`exchangeFolder`); a store that several servers share
 * would be another. Keys are texts of parts joined by `/`.
 */
export interface ExchangeStore {
  /** Which store it is: drawn when it was made. */
  readonly id: string;
  get(key: string): Promise<unknown>;
  /** The rows whose key begins so. */
  list(prefix: string): Promise<KeptRow[]>;
  /** The revision of the last change. */
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
  /** Keeps bytes under their id, drawn from them: the same bytes again are nothing new. */
  putBytes(id: string, bytes: Uint8Array): Promise<void>;
  bytes(id: string): Promise<Uint8Array | null>;
  dropBytes(id: string): Promise<void>;
}

/** There is no room left to keep something. */
export class StoreFull extends Error {}
