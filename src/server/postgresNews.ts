import { setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';

/** What was changed goes out together, once in so long. */
const gatherMs = 50;
/** While nothing is heard from the database, who watches is told to look so often. */
const askMs = 2_000;
/** A notification holds less than 8000 bytes (PostgreSQL 15, NOTIFY). */
const mostBytes = 7_500;

const changes = 'gribbet_changes';
const messages = 'gribbet_messages';

/**
 * What the servers of one database tell each other at once: that something was kept, and words that need not be kept. It
 * goes over a connection of its own, so that no commit waits for it (a notification holds up the commits of others). Where
 * that connection breaks it is made anew, and who watches looks by the clock until then.
 */
export class PostgresNews {
  private client: pg.Client | null = null;
  private closed = false;
  private timer: NodeJS.Timeout | null = null;
  private changeWaits = false;
  private readonly waiting: string[] = [];
  private readonly watchers = new Set<() => void>();
  private readonly hearers = new Set<(message: string) => void>();

  constructor(
    private readonly settings: pg.ClientConfig,
    private readonly log: (line: string) => void,
  ) {}

  async open(): Promise<void> {
    const client = new pg.Client(this.settings);
    client.on('error', () => this.lost(client));
    client.on('end', () => this.lost(client));
    client.on('notification', ({ channel, payload = '' }) => {
      if (channel === changes) for (const watcher of this.watchers) watcher();
      else for (const hearer of this.hearers) hearer(payload);
    });
    await client.connect();
    // What it tells need not outlast anything.
    await client.query(`set synchronous_commit = off; listen ${changes}; listen ${messages}`);
    this.client = client;
  }

  watch(changed: () => void): () => void {
    this.watchers.add(changed);
    return () => this.watchers.delete(changed);
  }

  hear(heard: (message: string) => void): () => void {
    this.hearers.add(heard);
    return () => this.hearers.delete(heard);
  }

  /** Tells every server that something was kept, soon. */
  tellChange(): void {
    this.changeWaits = true;
    this.soon();
  }

  /** Tells every server, this one as well, soon; it may be lost. */
  tell(message: string): void {
    if (Buffer.byteLength(message) > mostBytes) throw new Error('Too long to be told');
    this.waiting.push(message);
    this.soon();
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
    await this.client?.end().catch(() => undefined);
  }

  private soon(): void {
    this.timer ??= setTimeout(() => void this.send(), gatherMs);
  }

  private async send(): Promise<void> {
    this.timer = null;
    const told = this.waiting.splice(0);
    const change = this.changeWaits;
    this.changeWaits = false;
    if (!this.client) return;
    try {
      await this.client.query(
        `select pg_notify(channel, message) from unnest($1::text[], $2::text[]) as told (channel, message)`,
        [
          [...told.map(() => messages), ...(change ? [changes] : [])],
          [...told, ...(change ? [''] : [])],
        ],
      );
    } catch {
      // Who watches is told to look below.
    }
  }

  private lost(client: pg.Client): void {
    if (this.closed || this.client !== client) return;
    this.client = null;
    this.log('news of the database stopped: asking every two seconds until they are back');
    void this.again();
  }

  private async again(): Promise<void> {
    while (!this.closed && !this.client) {
      await sleep(askMs, undefined, { ref: false });
      for (const watcher of this.watchers) watcher();
      await this.open().catch(() => undefined);
    }
    if (this.client) this.log('news of the database are back');
    for (const watcher of this.watchers) watcher();
  }
}
