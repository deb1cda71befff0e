import { ServerFault } from '@/core/exchange/serverFault';
import { copyDue, fullRests, sentRests, type Rests } from '@/core/formats/backup/copyDue';
import type { Computer } from '@/core/model/deskHold';
import { deskElsewhere, deskIsHere, isElsewhere, leaveDesk } from '@/store/elsewhere';
import {
  beginCopy,
  breakOffCopy,
  changeServerPlace,
  copyPlaces,
  endCopy,
  keepServerPlace,
  lastDone,
  noteChange,
  notCopiedSince,
  serverPlace,
  takeUpCopies,
  thisComputer,
  type CopyPlace,
} from '@/sync/copyPlaces';
import type { CopyFault } from '@/core/formats/backup/copyDue';
import { onCopyWord, type CopyWord } from './copies';

/** Makes copies of the desk where the teacher wants them, soon after it has changed. */

/** What could not be done is tried again after so long. */
const againMs = 15_000;
/** Places come and go in other tabs; so often they are looked at. */
const lookMs = 5_000;
/** A change is noted after so long at most. */
const notedMs = 200;
/** Between two answers to who wants the desk. */
const answeredMs = 1_000;

const awayMs = 10 * 60_000;

const ended = new Map<CopyPlace['key'], { at: number; tookMs: number }>();
const triedAt = new Map<CopyPlace['key'], number>();
let timer: ReturnType<typeof setTimeout> | null = null;
let busy = false;
let wanted = false;
/** Whether this worker does it for all tabs. */
let mine = false;
/** The last changes are being sent to another computer. */
let giving = false;
/** They were sent, or could not be: it is not tried again before. */
let giveFrom = 0;

function soon(afterMs: number): void {
  if (timer) clearTimeout(timer);
  timer = setTimeout(() => void turn(), afterMs);
}

async function turn(): Promise<void> {
  if (busy) return;
  busy = true;
  const asked = wanted;
  wanted = false;
  try {
    await keepServerPlace();
    for (const place of await copyPlaces.places.toArray()) {
      if (place.key === 'server' && (place.secret === '' || isElsewhere())) continue;
      // What it takes is fetched before another computer waits for it.
      void import('./copying');
      const changed = place.changedSince === null ? null : Date.parse(place.changedSince);
      const due = copyDue(changed, ended.get(place.key) ?? null, await restsOf(place));
      const retry = (triedAt.get(place.key) ?? -Infinity) + againMs;
      const now = Date.now();
      if (asked || place.lastAt === null || (due !== null && due <= now))
        if (asked || place.fault === null || retry <= now) await copyTo(place);
    }
  } finally {
    busy = false;
    soon(wanted ? 0 : lookMs);
  }
}

/** How long a change rests. What was deleted can be brought back until it is in a copy: that is left time. */
async function restsOf({ key }: CopyPlace): Promise<Rests> {
  if (key === 'folder') return fullRests;
  const { deletionsWait } = await import('./copying');
  return (await deletionsWait()) ? fullRests : sentRests;
}

/**
 * Another computer wants the desk: from now on nothing is changed here, and what was changed is sent. Where that can't be done the
 * desk stays here; whoever wants it finds what was sent before.
 */
async function give(computer: Computer): Promise<void> {
  if (!mine || giving || Date.now() < giveFrom) return;
  const where = await deskElsewhere();
  // Giving that was begun by a page that was left meanwhile goes on here.
  if (where && where.why !== 'giving') return;
  giving = true;
  try {
    const { deskId, serverConnection } = await import('./copying');
    const [server, id, own] = [serverConnection(), await deskId(), await thisComputer()];
    const [sent] = await Promise.all([
      sendLast(computer),
      server.hold({ act: 'hear', deskId: id, computer: own }),
    ]);
    if (!sent) return await keepIt();
    await server.hold({ act: 'give', deskId: id, computer: own });
    // What was asked before it was given is answered by that.
    giveFrom = Date.now() + answeredMs;
  } catch (error) {
    console.error('the last changes could not be sent', error);
    await keepIt();
  } finally {
    giving = false;
  }
}

/** Leaves the desk and has what was done last sent. @returns whether all of it is on the server */
async function sendLast({ name }: Computer): Promise<boolean> {
  await leaveDesk({ computer: name, since: new Date().toISOString(), sentAt: null, why: 'giving' });
  const noted = new Promise((resolve) => setTimeout(resolve, notedMs));
  // What is under way ends first.
  while (busy) await new Promise((resolve) => setTimeout(resolve, 20));
  const place = await serverPlace();
  return (await isSent(noted)) || (place !== undefined && (await copyTo(place)));
}

/** Whether all that was done is on the server. @param noted once what was done last is noted, too */
async function isSent(noted: Promise<unknown>): Promise<boolean> {
  const allCopied = async () => {
    const place = await serverPlace();
    if (!place || notCopiedSince(place) !== null) return false;
    return place.lastDone === (await lastDone());
  };
  if (!(await allCopied())) return false;
  await noted;
  return allCopied();
}

/** The desk stays here, unless it was taken over meanwhile. */
async function keepIt(): Promise<void> {
  giveFrom = Date.now() + againMs;
  if ((await deskElsewhere())?.why === 'giving') await deskIsHere();
}

/** @returns whether it was made */
async function copyTo(place: CopyPlace): Promise<boolean> {
  const began = Date.now();
  const at = new Date(began).toISOString();
  triedAt.set(place.key, began);
  try {
    const {
      copyIntoFolder,
      copyOntoServer,
      deskContent,
      deskId,
      finishDeletions,
      holdDesk,
      serverConnection,
    } = await import('./copying');
    // It gets its name before it is copied, not by it.
    const id = await deskId();
    await beginCopy(place.key, at);
    const server = serverConnection();
    // Whether it can be made at all: what was deleted is brought back as long as it can't.
    if (place.key === 'server') {
      // Whoever gives it up has said so a moment ago.
      if (!giving) await holdDesk(server);
    } else if ((await place.handle.queryPermission({ mode: 'readwrite' })) !== 'granted')
      throw new NoPermission();
    if (!giving) await finishDeletions();
    const content = await deskContent();
    if (place.key === 'folder') await copyIntoFolder(place.handle, content, id, at);
    else {
      const sent = place.sent?.deskId === id ? place.sent : undefined;
      const { id: computer } = await thisComputer();
      const copy = await copyOntoServer(server, place, content, id, at, { computer, sent });
      await changeServerPlace({ sent: { deskId: id, at, ...copy } });
    }
    await endCopy(place.key, at, id);
    ended.set(place.key, { at: Date.now(), tookMs: Date.now() - began });
    return true;
  } catch (error) {
    await breakOffCopy(place.key, at, faultOf(error));
    return false;
  }
}

class NoPermission extends Error {}

function faultOf(error: unknown): CopyFault {
  if (error instanceof NoPermission) return 'permission';
  if (error instanceof ServerFault)
    return error.why === 'full' || error.why === 'unreachable' || error.why === 'notPaired'
      ? error.why
      : 'failed';
  // The names that browsers give (File System Standard; Storage Standard).
  const { name } = error as { name?: string };
  if (name === 'NotAllowedError') return 'permission';
  if (name === 'NotFoundError') return 'gone';
  return name === 'QuotaExceededError' ? 'full' : 'failed';
}

onCopyWord(({ now, give: to }) => {
  if (!mine) return;
  if (to) void give(to);
  if (!now) return;
  wanted = true;
  soon(0);
});

addEventListener('message', ({ data }: MessageEvent<CopyWord>) => {
  wanted ||= data.now === true;
  if (mine) soon(0);
});

/** What changed last before a page was left may not have been noted: what was done since, and a desk that was away, is copied. */
async function begin(): Promise<void> {
  mine = true;
  await takeUpCopies();
  const longAgo = new Date(Date.now() - awayMs).toISOString();
  const done = await lastDone();
  // What another computer holds is not changed here.
  if (await deskElsewhere()) return soon(1_000);
  await noteChange(({ lastAt, lastDone: copied }) => (lastAt ?? '') < longAgo || copied !== done);
  soon(1_000);
}

/** One tab does it for all; where the page is not secure there are no locks, and only the server is a place. */
const locks = (navigator as { locks?: LockManager }).locks;
if (locks) void locks.request('gribbet-copies', () => (void begin(), new Promise(() => undefined)));
else void begin();
