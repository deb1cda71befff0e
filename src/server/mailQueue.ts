import type { MailJob, MailState } from '@/core/exchange/mail';
import type { ExchangeStore, KeptRow } from './exchangeStore';

/** What became of one attempt to send. */
export type Sent =
  | { outcome: 'sent' }
  /** Not now: the mail server said so (4yz, RFC 5321 section 4.2.1), or could not be reached. */
  | { outcome: 'later'; words: string }
  /** Never: the mail server refused for good (5yz). */
  | { outcome: 'never'; words: string };

/** Sends a message under an id of its own, by which a mail server can know it again. */
export type SendMail = (job: MailJob) => Promise<Sent>;

export interface MailLimits {
  perHour: number;
  perDay: number;
}

/** A message as the server keeps it. */
interface QueuedMail {
  job: MailJob;
  is: MailState['is'];
  at: string;
  words: string;
  tries: number;
  /** Not before, ms since 1970. */
  dueAt: number;
  /** When it was handed to the mail server, ms since 1970: what counts against the limits. */
  sentAt: number | null;
}

const hourMs = 3_600_000;
/** After so long it is tried again, by how often it was tried. */
const waitsMs = [60_000, 5 * 60_000, 30 * 60_000, 2 * hourMs, 8 * hourMs];

const keyOf = (id: string) => `mail/${encodeURIComponent(id)}`;

/**
 * Messages on their way. What is about to be sent is noted before, and what became of it after: a message of which only the first is
 * there after a restart may have gone, and is not sent again by itself.
 */
export class MailQueue {
  private working = false;

  constructor(
    private readonly store: ExchangeStore,
    private readonly send: SendMail,
    private readonly limits: MailLimits,
    /** Once it is aborted nothing more is sent. */
    private readonly stopping?: AbortSignal,
  ) {}

  /** Takes messages in; one that is there already is not taken again. */
  async add(jobs: readonly MailJob[], now: number): Promise<void> {
    const there = new Set((await this.rows()).map(({ job }) => job.id));
    await this.store.commit(
      jobs.filter(({ id }) => !there.has(id)).map((job) => this.change({ ...this.fresh(job, now) })),
    );
  }

  /** Sends these again: what could not be sent, was refused, or may not have gone. */
  async again(ids: readonly string[], now: number): Promise<void> {
    const rows = (await this.rows()).filter(
      ({ job, is }) => ids.includes(job.id) && (is === 'failed' || is === 'bounced' || is === 'unsure'),
    );
    await this.store.commit(
      rows.map((row) => this.change({ ...this.fresh(row.job, now), sentAt: row.sentAt })),
    );
  }

  /** What was on its way when a server ended: nobody knows whether it went. */
  private async recover(now: number): Promise<void> {
    const rows = (await this.rows()).filter(({ is }) => is === 'sending');
    const words = 'The server ended while this was being sent: it may have gone.';
    await this.store.commit(
      rows.map((row) => this.change({ ...row, is: 'unsure', at: new Date(now).toISOString(), words })),
    );
  }

  /** How messages stand that changed since a revision. */
  async states(after: number): Promise<{ rev: number; states: MailState[] }> {
    const { rows, rev } = await this.store.changed(after, ['mail/'], Infinity);
    return {
      rev,
      states: rows.map(({ value }) => {
        const { job, is, at, words } = value as QueuedMail; // put there above
        return { id: job.id, is, at, words };
      }),
    };
  }

  /**
   * Sends what is due, one after another, within the limits.
   *
   * @param clock ms since 1970
   * @returns how many were handed to the mail server
   */
  async work(clock: () => number): Promise<number> {
    if (this.working) return 0;
    this.working = true;
    try {
      // Of several servers one sends at a time: what is on its way then, was on its way when one of them ended.
      return await this.store.locked('mail', async () => {
        await this.recover(clock());
        return await this.sendDue(clock);
      });
    } finally {
      this.working = false;
    }
  }

  /** How many wait to be sent. */
  async waiting(): Promise<number> {
    return (await this.rows()).filter(({ is }) => is === 'queued').length;
  }

  private async sendDue(clock: () => number): Promise<number> {
    for (let count = 0; ; count++) {
      const next = this.stopping?.aborted ? null : await this.next(clock());
      if (!next) return count;
      await this.sendOne(next, clock);
    }
  }

  private async next(now: number): Promise<QueuedMail | null> {
    const rows = await this.rows();
    const sentSince = (ms: number) =>
      rows.filter(({ sentAt }) => sentAt !== null && sentAt > now - ms).length;
    if (sentSince(hourMs) >= this.limits.perHour || sentSince(24 * hourMs) >= this.limits.perDay) return null;
    const due = rows.filter(({ is, dueAt }) => is === 'queued' && dueAt <= now);
    return due.sort((a, b) => a.dueAt - b.dueAt)[0] ?? null;
  }

  private async sendOne(row: QueuedMail, clock: () => number): Promise<void> {
    const begun = clock();
    const sending: QueuedMail = { ...row, is: 'sending', at: new Date(begun).toISOString(), sentAt: begun };
    await this.store.commit([this.change(sending)]);
    const sent = await this.send(row.job);
    await this.store.commit([this.change(this.after(sending, sent, clock()))]);
  }

  private after(row: QueuedMail, sent: Sent, now: number): QueuedMail {
    const at = new Date(now).toISOString();
    const tries = row.tries + 1;
    // What went is no longer needed here: only that it went is.
    const job = { id: row.job.id, to: '', subject: '', text: '' };
    if (sent.outcome === 'sent') return { ...row, job, is: 'sent', at, words: '', tries };
    // What the mail server did not take counts against no limit.
    const not = { ...row, at, words: sent.words, tries, sentAt: null };
    if (sent.outcome === 'never') return { ...not, is: 'bounced' };
    const wait = waitsMs[tries - 1];
    return wait === undefined ? { ...not, is: 'failed' } : { ...not, is: 'queued', dueAt: now + wait };
  }

  private fresh(job: MailJob, now: number): QueuedMail {
    return {
      ...{ job, is: 'queued', at: new Date(now).toISOString(), words: '', tries: 0 },
      ...{ dueAt: now, sentAt: null },
    };
  }

  private change = (row: QueuedMail) => ({ key: keyOf(row.job.id), value: row });
  private rows = async (): Promise<QueuedMail[]> =>
    (await this.store.list('mail/')).map(({ value }: KeptRow) => value as QueuedMail); // put there above
}
