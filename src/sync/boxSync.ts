import { attemptChange, withChange } from '@/core/exchange/attemptChange';
import { mostChanges, plainSecret, type BoxChange, type BoxNews } from '@/core/exchange/box';
import { sha256 } from '@/core/basics/crypto';
import { base64From } from '@/core/basics/base64';
import { sealerWith } from '@/core/formats/packet/sealed';
import { ServerFault } from '@/core/exchange/serverFault';
import type { DeskLine } from '@/sync/deskLine';
import { unnamed } from '@/core/basics/assetBytes';
import { Student } from '@/core/model/people';
import type { Attempt } from '@/core/model/sitting';
import { rowsForBox, scriptsForBox, sittingsOnDevices, type Seal } from './boxRows';
import { dropProgress } from '../store/command';
import { lineKept } from '../store/line';
import { desk, type Line } from '../store/tables';

/**
 * Keeps desk and box alike: what students did comes to the desk, what the teacher did goes into the box. It can be ended
 * at any moment and begun again; what was half done is done again, and changes nothing.
 */

export { lineKept };

/** Pairs this desk with the server. */
export async function pairDesk(line: DeskLine, secret: string): Promise<void> {
  const box = await line.pair(secret);
  await desk.transaction('rw', desk.line, desk.posted, desk.carried, async () => {
    const before = (await desk.line.get('line')) ?? (await desk.line.get('before'));
    const same = before?.box === box;
    await desk.line.put({ key: 'line', box, secret: plainSecret(secret), rev: same ? before.rev : 0 });
    await desk.line.delete('before');
    // What was sealed with another secret has to be sealed anew; so all is put in again.
    if (!same || before.secret !== plainSecret(secret)) await desk.posted.clear();
    // What both sides had is still told by it: the teacher's acts of the meantime hold.
    if (!same) await desk.carried.clear();
  });
}

export async function unpairDesk(line: DeskLine): Promise<void> {
  await line.unpair().catch((error: unknown) => {
    // A server that does not know this desk any more has nothing to forget.
    if (!(error instanceof ServerFault) || error.why !== 'notPaired') throw error;
  });
  await desk.transaction('rw', desk.line, async () => {
    const kept = await lineKept();
    await desk.line.clear();
    if (kept) await desk.line.put({ ...kept, key: 'before', secret: '' });
  });
}

/** Another box is there than the one this desk knows: it knows nothing of what was put into the other. */
async function inBox(box: string): Promise<void> {
  await desk.transaction('rw', desk.line, desk.posted, desk.carried, async () => {
    const kept = await desk.line.get('line');
    if (!kept || kept.box === box) return;
    await desk.line.put({ ...kept, box, rev: 0 });
    await desk.posted.clear();
    await desk.carried.clear();
  });
}

/**
 * Takes the students' news in, all there is.
 *
 * @param arriving is told how many answers are about to be taken in
 * @returns what the server's clock said last, ms since 1970, and who is stopped there
 */
export async function pull(
  line: DeskLine,
  arriving: (answers: number) => void = () => undefined,
): Promise<Pick<BoxNews, 'now' | 'stopped'>> {
  for (;;) {
    const kept = await lineKept();
    if (!kept) return { now: 0, stopped: [] };
    const news = await line.news(kept.rev);
    if (news.box !== kept.box) {
      await inBox(news.box);
      continue;
    }
    if (news.attempts.length > 0) arriving(await newAnswers(news.attempts));
    await takeIn(news);
    await fetchFiles(line, news.attempts);
    await desk.line.update('line', { rev: Math.max(news.rev, kept.rev) });
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
export async function takeIn(news: BoxNews): Promise<void> {
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
      for (const theirs of news.attempts) if (known.has(theirs.sittingId)) await takeAttempt(theirs);
      for (const { sittingId, studentId, openedAt } of news.opened) {
        const before = (await openings.get([sittingId, studentId]))?.at ?? [];
        const at = [...new Set([...before, ...openedAt])].sort();
        if (known.has(sittingId) && at.length > before.length)
          await openings.put({ sittingId, studentId, at });
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

/** Fetches the files that answers name and the desk has not. */
async function fetchFiles(line: DeskLine, attempts: readonly Attempt[]): Promise<void> {
  const ids = new Set(attempts.flatMap(({ files }) => files ?? []).map(({ id }) => id));
  for (const id of ids) if (!(await desk.assets.get(id))) await desk.assets.put(await line.file(id));
}

/** Forgets what was put into the box of a sitting, so that all of it is put in again: it was taken off from elsewhere. */
export async function forgetPosted(sittingId: string): Promise<void> {
  await desk.transaction('rw', desk.posted, desk.carried, async () => {
    await desk.posted.clear();
    await desk.carried.where({ sittingId }).delete();
  });
}

/** Puts into the box what changed on the desk. @param scripts whether what was handed back is looked at as well */
export async function push(line: DeskLine, now: number, scripts = true): Promise<void> {
  const kept = await lineKept();
  if (!kept) return;
  const sittings = await sittingsOnDevices();
  const seal = sealerFor(kept);
  const { rows, files } = await rowsForBox(sittings, seal);
  if (scripts) rows.push(...(await scriptsForBox(sittings, now, seal)));
  const posted = new Map((await desk.posted.toArray()).map(({ key, digest }) => [key, digest]));

  for (const id of files) {
    const key = `files/${id}`;
    const asset = posted.has(key) ? undefined : await desk.assets.get(id);
    if (!asset) continue;
    await line.putFile(unnamed(asset));
    await desk.posted.put({ key, digest: '' });
  }

  const due: { change: BoxChange; done: () => Promise<unknown> }[] = [];
  const wantedKeys = new Set(rows.map(({ key }) => key));
  for (const { key, text, change } of rows) {
    const digest = base64From(await sha256(new TextEncoder().encode(text)));
    if (posted.get(key) === digest) continue;
    due.push({ change: await change(), done: () => desk.posted.put({ key, digest }) });
  }
  for (const key of posted.keys()) {
    const [table = '', ...rest] = key.split('/');
    // Files go with the attempts and papers they belong to; scripts only where they were looked at.
    if (wantedKeys.has(key) || table === 'files' || (table === 'releases' && !scripts)) continue;
    const change = { drop: table, key: rest.join('/'), rev: kept.rev } as BoxChange;
    due.push({ change, done: () => desk.posted.delete(key) });
  }
  due.push(...(await attemptsDue(sittings.map(({ id }) => id))));
  for (let from = 0; from < due.length; from += mostChanges) {
    const some = due.slice(from, from + mostChanges);
    await line.put(some.map(({ change }) => change));
    for (const { done } of some) await done();
  }
}

async function attemptsDue(sittingIds: readonly string[]) {
  const due: { change: BoxChange; done: () => Promise<unknown> }[] = [];
  const { students, carried, attempts } = desk;
  // Read as one: another tab may be taking news in, which changes both.
  const [tryOuts, before, ours] = await desk.transaction('r', [students, carried, attempts], async () => [
    new Set((await students.filter(({ role }) => role === 'tryOut').toArray()).map(({ id }) => id)),
    new Map((await carried.toArray()).map((attempt) => [attempt.id, attempt])),
    await attempts
      .where('sittingId')
      .anyOf([...sittingIds])
      .toArray(),
  ]);
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
    else due.push({ change: { drop: 'attempts', key: encodeURIComponent(id) } as BoxChange, done });
  }
  return due;
}

let lastSealer: { secret: string; seal: Seal } | null = null;

/** Seals so that only the server opens it, which has the same secret. Its key takes long to draw, and is drawn once. */
function sealerFor({ secret }: Line): Seal {
  if (lastSealer?.secret !== secret)
    lastSealer = {
      secret,
      seal: sealerWith(secret, (length) => crypto.getRandomValues(new Uint8Array(length))),
    };
  return lastSealer.seal;
}
