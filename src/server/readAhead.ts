import type { KeptRow } from './exchangeStore';

/** What was read for one request: rows by key, undefined for what is not there, and all rows under a beginning of keys. */
export class ReadAhead {
  private readonly rows = new Map<string, unknown>();
  private readonly lists = new Map<string, readonly KeptRow[]>();

  row(key: string): { value: unknown } | null {
    return this.rows.has(key) ? { value: this.rows.get(key) } : null;
  }

  list(prefix: string): KeptRow[] | null {
    for (const [wider, rows] of this.lists)
      if (prefix.startsWith(wider)) return rows.filter(({ key }) => key.startsWith(prefix));
    return null;
  }

  hold(key: string, value: unknown): void {
    this.rows.set(key, value);
  }

  holdList(prefix: string, rows: readonly KeptRow[]): void {
    this.lists.set(prefix, rows);
  }

  /** What was read may be otherwise by now. */
  forget(): void {
    this.rows.clear();
    this.lists.clear();
  }
}
