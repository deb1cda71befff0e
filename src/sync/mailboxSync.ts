import type { RangeSet } from 'dexie';
import { chunk } from 'remeda';
import { attemptChange, withChange } from '@/core/exchange/attemptChange';
import {
  keyText,
  mostChanges,
  plainSecret,
  type MailboxChange,
  type MailboxNews,
} from '@/core/exchange/mailbox';
import { sha256 } from '@/core/basics/crypto';
import { base64From } from '@/core/basics/base64';
import { sealerWith } from '@/core/formats/packet/sealed';
import { ServerFault } from '@/core/exchange/serverFault';
import type { ServerConnection } from '@/sync/serverConnection';
import { unnamed } from '@/core/basics/assetBytes';
import { Student } from '@/core/model/people';
import type { Attempt, Sitting } from '@/core/model/sitting';
import {
  rowsForMailbox,
  rowsTouched,
  scriptsForMailbox,
  sittingsOnDevices,
  type Seal,
  type TouchedRows,
  type WantedRow,
} from './mailboxRows';
import { dropProgress } from '../store/command';
import { areForgotten } from '../store/forget';
import { thisComputer } from './copyPlaces';
import { pairing } from '../store/pairing';
import { desk, type Pairing } from '../store/tables';

/**
 * Keeps desk and mailbox alike: what students did comes to the desk, what the teacher did goes into the mailbox. It can be ended
 * at any moment and begun again; what was half done is done again, and changes nothing.
 */

export { pairing };

/** Pairs this desk with the server. */
export async function pairDesk(server: ServerConnection, secret: string): Promise<void> {
  const computer = await thisComputer();
  const mailbox = await server.pair(secret, computer);
  await desk.transaction('rw', desk.pairing, desk.posted, desk.carried, async () => {
    const before = (await desk.pairing.get('now')) ?? (await desk.pairing.get('before'));
    const same = before?.mailbox === mailbox;
    await desk.pairing.put({ key: 'now', mailbox, secret: plainSecret(secret), rev: same ? before.rev : 0 });
    await desk.pairing.delete('before');
    // What was sealed with another secret has to be sealed anew; so all is put in again.
    if (!same || before.secret !== plainSecret(secret)) await desk.posted.clear();
    // What both sides had is still told by it: the teacher's acts of the meantime hold.
    if (!same) await desk.carried.clear();
  });
  // It was given another name meanwhile; from here on whoever names it tells the server.
  const named = await thisComputer();
  if (named.name !== computer.name) await server.nameComputer(named);
}

export async function unpairDesk(server: ServerConnection): Promise<void> {
  await server.unpair().catch((error: unknown) => {
    // A server that does not know this desk any more has nothing to forget.
    if (!(error instanceof ServerFault) || error.why !== 'notPaired') throw error;
  });
  await desk.transaction('rw', desk.pairing, async () => {
    const kept = await pairing();
    await desk.pairing.clear();
    if (kept) await desk.pairing.put({ ...kept, key: 'before', secret: '' });
  });
}

/** Another mailbox is there than the one this desk knows: it knows nothing of what was put into the other. */
async function inMailbox(mailbox: string): Promise<void> {
  await desk.transaction('rw', desk.pairing, desk.posted, desk.carried, async () => {
    const kept = await desk.pairing.get('now');
    if (!kept || kept.mailbox === mailbox) return;
    await desk.pairing.put({ ...kept, mailbox, rev: 0 });
    await desk.posted.clear();
    await desk.carried.clear();
  });
}

/**
 * Takes the students' news in, all there is.
 *
 * @param arriving is told how many answers are about to be taken in
 * @param follow looks at who holds the desk, and by whose clock; nothing is taken in where it is not here
 * @returns what the server's clock said last, ms since 1970, and who is stopped there; null: the desk is not here
 */
export async function pull(
  server: ServerConnection,
  arriving: (answers: number) => void = () => undefined,
  follow: (news: Pick<MailboxNews, 'holds' | 'now'>) => Promise<boolean> = async () => true,
): Promise<Pick<MailboxNews, 'now' | 'stopped'> | null> {
  for (;;) {
    const kept = await pairing();
    if (!kept) return { now: 0, stopped: [] };
    const news = await server.news(kept.rev);
    if (news.mailbox !== kept.mailbox) {
      await inMailbox(news.mailbox);
      continue;
    }
    if (!(await follow(news))) return null;
    if (news.attempts.length > 0) arriving(await newAnswers(news.attempts));
    await takeIn(news);
    await fetchFiles(server, news.attempts);
    await desk.pairing.update('now', { rev: Math.max(news.rev, kept.rev) });
    if (!news.more) return news;
  }
}

/** How many answers the desk does not have as they are. */
async function newAnswers(attempts: readonly Attempt[]): Promise<number> {
  const ours = await desk.attempts.bulkGet(attempts.map(({ id }) => id));
  return attempts.reduce(
    (sum, { answers }, index) =>
      sum + Object.entries(answers).filter(([id, { at }]) => ours[index]?.answers[id]?.at !== at).length,
    0,
  );
}

/** Lays news over what the desk has; what the teacher did meanwhile stays. */
export async function takeIn(news: MailboxNews): Promise<void> {
  const forgotten = await areForgotten(news.attempts.map(({ studentId }) => studentId));
  const { attempts, carried, students, requests, openings, progress, sittings } = desk;
  await desk.transaction(
    'rw',
    [attempts, carried, students, requests, openings, progress, sittings],
    async () => {
      // Of a sitting that was just taken off, too: what came last must not stay behind.
      const known = new Set(await sittings.toCollection().primaryKeys());
      for (const guest of news.guests)
        if (known.has(guest.onlySittingId ?? '') && !(await students.get(guest.id)))
          await students.add(Student.parse({ ...guest, number: '', email: '' }));
      for (const request of news.requests)
        if (known.has(request.sittingId) && !(await requests.get(request.id))) await requests.add(request);
      for (const theirs of news.attempts)
        // Of whoever is forgotten nothing comes back: it is known to lie there, and goes from there next.
        if (forgotten.has(theirs.studentId)) await carried.put(theirs);
        else if (known.has(theirs.sittingId)) await takeAttempt(theirs);
      for (const { sittingId, studentId, openedAt } of news.opened) {
        const before = await openings.get([sittingId, studentId]);
        const joined = (all: readonly string[] = []) => [...new Set([...all, ...openedAt])].sort();
        const at = joined(before?.at);
        if (known.has(sittingId) && at.length > (before?.at.length ?? 0))
          await openings.put({ sittingId, studentId, at, onDevice: joined(before?.onDevice) });
      }
      for (const id of new Set([...news.attempts, ...news.opened].map(({ sittingId }) => sittingId)))
        await dropProgress(desk, id);
    },
  );
}

async function takeAttempt(theirs: Attempt): Promise<void> {
  const before = await desk.carried.get(theirs.id);
  const ours = await desk.attempts.get(theirs.id);
  // Deleted here: that goes to the server next.
  if (before && !ours) return;
  const change = ours && before ? attemptChange(before, ours) : null;
  const merged =
    ours && !before
      ? // Both have it and nobody knows since when: the server's holds, with no answer of the desk lost.
        withChange(theirs.id, theirs, {
          set: {},
          answers: ours.answers,
          added: ours.events,
          dropped: [],
          earlier: { added: ours.earlier ?? [], dropped: [] },
          late: { added: ours.late ?? [], dropped: [] },
        })
      : change
        ? withChange(theirs.id, theirs, change)
        : theirs;
  await desk.attempts.put(merged);
  await desk.carried.put(theirs);
}

/** Fetches the files that answers name and the desk has not; of attempts that were deleted here, none. */
async function fetchFiles(server: ServerConnection, attempts: readonly Attempt[]): Promise<void> {
  const here = await desk.attempts.bulkGet(attempts.map(({ id }) => id));
  const ids = new Set(here.flatMap((attempt) => attempt?.files ?? []).map(({ id }) => id));
  for (const id of ids) if (!(await desk.assets.get(id))) await desk.assets.put(await server.file(id));
}

/** Whether a sitting lies on the server, as far as this desk put it there: its students go ahead of it. */
export const isPosted = async (sittingId: string): Promise<boolean> =>
  (await desk.posted.get(`sittings/${keyText([sittingId])}`)) !== undefined;

/** Forgets what was put into the mailbox of a sitting, so that all of it is put in again: it was taken off from elsewhere. */
export async function forgetPosted(sittingId: string): Promise<void> {
  await desk.transaction('rw', desk.posted, desk.carried, async () => {
    await desk.posted.clear();
    await desk.carried.where({ sittingId }).delete();
  });
}

/** Takes all that would lie in the mailbox for lying there, in whatever state: what goes from the desk then goes from there, too. */
export async function takeForPosted(now: number): Promise<void> {
  const kept = await pairing();
  if (!kept) return;
  const [sittings, seal] = [await sittingsOnDevices(), sealerFor(kept)];
  const { rows } = await rowsForMailbox(sittings, seal);
  rows.push(...(await scriptsForMailbox(sittings, now, seal)));
  await desk.posted.bulkPut(rows.map(({ key }) => ({ key, digest: '' })));
}

/** One thing to put into the mailbox, and what is noted once it is there. */
interface Due {
  change: MailboxChange;
  done: () => Promise<unknown>;
}

/**
 * Puts into the mailbox what changed on the desk.
 *
 * @param changed the rows that changed since; null: it is not known, and all of it is looked at
 */
export async function push(
  server: ServerConnection,
  now: number,
  changed: ReadonlyMap<string, RangeSet> | null = null,
): Promise<void> {
  const kept = await pairing();
  if (!kept) return;
  const sittings = await sittingsOnDevices();
  const seal = sealerFor(kept);
  const touched = changed && (await rowsTouched(changed, sittings, now, seal));
  const due = touched
    ? await touchedDue(touched, sittings, kept.rev)
    : await allDue(server, sittings, now, seal, kept.rev);
  for (const some of chunk(due, mostChanges)) {
    await server.put(some.map(({ change }) => change));
    for (const { done } of some) await done();
  }
}

const dropped = (key: string, rev: number): Due => {
  const [table, ...rest] = key.split('/');
  // Keys are made from the tables of the mailbox.
  return {
    change: { drop: table, key: rest.join('/'), rev } as MailboxChange,
    done: () => desk.posted.delete(key),
  };
};

/** What of these rows lies there otherwise, or not at all. */
async function rowsDue(
  rows: readonly WantedRow[],
  postedAs: (key: string) => Promise<string | undefined>,
): Promise<Due[]> {
  const due: Due[] = [];
  for (const { key, text, change } of rows) {
    const digest = base64From(await sha256(new TextEncoder().encode(text)));
    if ((await postedAs(key)) === digest) continue;
    due.push({ change: await change(), done: () => desk.posted.put({ key, digest }) });
  }
  return due;
}

async function touchedDue(touched: TouchedRows, sittings: readonly Sitting[], rev: number): Promise<Due[]> {
  const postedAs = async (key: string) => (await desk.posted.get(key))?.digest;
  const due = await rowsDue(touched.rows, postedAs);
  for (const key of touched.gone) if ((await postedAs(key)) !== undefined) due.push(dropped(key, rev));
  return [
    ...due,
    ...(await attemptsDue(
      sittings.map(({ id }) => id),
      touched.attemptIds,
    )),
  ];
}

async function allDue(
  server: ServerConnection,
  sittings: readonly Sitting[],
  now: number,
  seal: Seal,
  rev: number,
): Promise<Due[]> {
  const { rows, files } = await rowsForMailbox(sittings, seal);
  rows.push(...(await scriptsForMailbox(sittings, now, seal)));
  const posted = new Map((await desk.posted.toArray()).map(({ key, digest }) => [key, digest]));
  for (const id of files) {
    const key = `files/${id}`;
    const asset = posted.has(key) ? undefined : await desk.assets.get(id);
    if (!asset) continue;
    await server.putFile(unnamed(asset));
    await desk.posted.put({ key, digest: '' });
  }
  const due = await rowsDue(rows, async (key) => posted.get(key));
  const wantedKeys = new Set(rows.map(({ key }) => key));
  for (const key of posted.keys())
    // Files go with the attempts and papers they belong to.
    if (!wantedKeys.has(key) && !key.startsWith('files/')) due.push(dropped(key, rev));
  return [...due, ...(await attemptsDue(sittings.map(({ id }) => id)))];
}

/** @param only these attempts; absent: all of the sittings, and all that the server had */
async function attemptsDue(sittingIds: readonly string[], only?: readonly string[]): Promise<Due[]> {
  const due: Due[] = [];
  const { students, carried, attempts } = desk;
  // Read as one: another tab may be taking news in, which changes both.
  const [tryOuts, before, ours] = await desk.transaction('r', [students, carried, attempts], async () => {
    const had = only ? await carried.bulkGet([...only]) : await carried.toArray();
    const have = only
      ? (await attempts.bulkGet([...only])).filter(
          (each) => each !== undefined && sittingIds.includes(each.sittingId),
        )
      : await attempts
          .where('sittingId')
          .anyOf([...sittingIds])
          .toArray();
    return [
      new Set((await students.filter(({ role }) => role === 'tryOut').toArray()).map(({ id }) => id)),
      new Map(had.flatMap((attempt) => (attempt ? [[attempt.id, attempt]] : []))),
      have.filter((attempt) => attempt !== undefined),
    ] as const;
  });
  for (const attempt of ours) {
    const known = before.get(attempt.id);
    before.delete(attempt.id);
    const change = tryOuts.has(attempt.studentId) ? null : attemptChange(known ?? null, attempt);
    if (change)
      due.push({
        change: { table: 'attempts', id: attempt.id, change },
        done: () => carried.put(attempt),
      });
  }
  for (const { id, sittingId } of before.values()) {
    const done = () => carried.delete(id);
    // Of a sitting that was taken off the server, the attempts went with it.
    if (!sittingIds.includes(sittingId)) await done();
    else due.push({ change: { drop: 'attempts', key: encodeURIComponent(id) } as MailboxChange, done });
  }
  return due;
}

let lastSealer: { secret: string; seal: Seal } | null = null;

/** Seals so that only the server opens it, which has the same secret. Its key takes long to draw, and is drawn once. */
function sealerFor({ secret }: Pairing): Seal {
  if (lastSealer?.secret !== secret)
    lastSealer = {
      secret,
      seal: sealerWith(secret, (length) => crypto.getRandomValues(new Uint8Array(length))),
    };
  return lastSealer.seal;
}
