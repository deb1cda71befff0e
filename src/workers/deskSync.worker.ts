import { serverConnection } from '@/sync/serverConnection';
import { ServerFault } from '@/core/exchange/serverFault';
import { pairing, pull, push } from '@/sync/mailboxSync';
import { isMailUnderWay, pullMail } from '@/sync/mail';
import { forgetSecret, serverPlace } from '@/sync/copyPlaces';
import { pullMarks } from '@/sync/sharedMarks';
import { shareConnection } from '@/sync/shareConnection';
import { followHolds } from '@/sync/takeOver';
import type { DeskHold } from '@/core/model/deskHold';
import { ChangedRows, onRowsChanged } from '@/store/changes';
import { deskElsewhere, leaveDesk } from '@/store/elsewhere';
import { desk } from '@/store/tables';
import { giveDesk } from './copies';
import { mailboxSources } from '@/sync/mailboxRows';
import type { ConnectionState } from './connection';
import { connectionChannel } from '../store/connectionChannel';
import { tellSeen } from '../store/live/presence';

/** Between two looks at the server: when it tells by itself that something came, and when it does not. */
const listeningMs = 20_000;
const askingMs = 3_000;
/** Between two looks at who is there. */
const presentMs = 4_000;
/** After a change here or there, so that several go together. */
const gatherMs = 250;
/** Where nothing was looked at for so long, what comes comes alone. */
const quietMs = 1_000;
/** While another computer waits for the desk: the worker that sends the last changes may just be opening, and did not hear of it. */
const wantedMs = 500;

const server = serverConnection();
const shares = shareConnection();
const channel = new BroadcastChannel(connectionChannel);
let state: ConnectionState = { reach: 'asking', heardAt: null, aheadMs: 0, stopped: [], arriving: 0 };
/** The rows of the desk that changed since they were put into the mailbox. */
const changed = new ChangedRows();
/** Whether that is not known, and all of them have to be looked at. */
let anew = true;
let timer: ReturnType<typeof setTimeout> | null = null;
let dueAt = Infinity;
let busy = false;
let busySince = 0;
/** Whether another computer waits for the desk, and it was not begun to give it. */
let wanted = false;
let stream: EventSource | null = null;
/** Whether the stream has told anything: what stands between may hold it back. */
let hearing = false;

const said = (next: Partial<ConnectionState>) => {
  state = { ...state, ...next };
  channel.postMessage({ state });
};

/** Looks again after so long, or sooner where that was said before. */
function soon(afterMs: number): void {
  const at = performance.now() + afterMs;
  if (timer && dueAt <= at) return;
  if (timer) clearTimeout(timer);
  dueAt = at;
  timer = setTimeout(() => void turn(), afterMs);
}

async function turn(): Promise<void> {
  timer = null;
  dueAt = Infinity;
  if (busy) return soon(gatherMs);
  busy = true;
  busySince = performance.now();
  wanted = false;
  try {
    const paired = await pairing();
    if (!paired) {
      anew = true;
      changed.take();
      said({ reach: 'notPaired' });
    } else {
      const before = Date.now();
      const news = await newsHere();
      if (!news) {
        anew = true;
        changed.take();
        said({ reach: 'here', heardAt: Date.now(), arriving: 0 });
        return listen();
      }
      const { now: theirs, stopped } = news;
      // What is sent to the server may take long: whoever wants the desk meanwhile is heard.
      listen();
      await hearMarkers();
      if (await isMailUnderWay()) await pullMail(server);
      // Another mailbox knows nothing of what was put into the one before.
      if ((await pairing())?.mailbox !== paired.mailbox) anew = true;
      const [rows, all] = [changed.take(), anew];
      anew = false;
      try {
        if (all || rows.size > 0) await push(server, Date.now(), all ? null : rows);
      } catch (error) {
        anew ||= all;
        for (const [table, keys] of rows) changed.add(table, keys);
        throw error;
      }
      said({ reach: 'here', heardAt: Date.now(), aheadMs: theirs - before, stopped, arriving: 0 });
    }
  } catch (error) {
    const why = error instanceof ServerFault ? error.why : 'failed';
    // Something came in while a sitting was taken off: it is taken in first.
    if (why === 'notYet') return soon(gatherMs);
    if (why === 'forgotten') await isForgotten();
    said({ reach: why === 'notPaired' || why === 'full' || why === 'unreachable' ? why : 'failed' });
    stream?.close();
    stream = null;
  } finally {
    busy = false;
    const told = hearing && stream?.readyState === EventSource.OPEN;
    soon(wanted ? wantedMs : told ? listeningMs : askingMs);
  }
}

/** Takes in what students did; null: another computer holds the desk, and takes it in there. */
async function newsHere() {
  if (await deskElsewhere()) {
    const [{ now }, holds] = [await server.state(), await server.holds()];
    if ((await follow(holds, now)) !== true) return null;
  }
  return pull(
    server,
    (arriving) => said({ arriving }),
    ({ holds, now }) => follow(holds, now),
  );
}

/** @returns whether the desk is here */
async function follow(holds: readonly DeskHold[], now: number): Promise<boolean> {
  const { here, asked } = await followHolds(holds, now);
  wanted = asked !== null;
  if (asked) giveDesk(asked);
  return here;
}

let asking = false;

/** Something came while a turn is under way that takes long: that another computer wants the desk does not wait for its end. */
async function hearWanted(): Promise<void> {
  if (asking || performance.now() - busySince < wantedMs) return;
  asking = true;
  try {
    await follow(await server.holds(), Date.now() + state.aheadMs);
  } catch {
    // The turn says how the connection is.
  } finally {
    asking = false;
  }
}

/** This browser was forgotten by the teacher's secret: it forgets the secret. */
async function isForgotten(): Promise<void> {
  const place = await serverPlace();
  await leaveDesk({
    ...{ computer: '', since: new Date().toISOString(), sentAt: place?.lastAt ?? null },
    why: 'forgotten',
  });
  await desk.pairing.clear();
  await forgetSecret();
}

/** Takes in what markers sent. Where that cannot be done, what students send does not wait for it. */
async function hearMarkers(): Promise<void> {
  try {
    await pullMarks(shares, new Date().toISOString());
  } catch (error) {
    if (error instanceof ServerFault && (error.why === 'unreachable' || error.why === 'notPaired'))
      throw error;
    console.error('marks of a share could not be taken in', error);
  }
}

/** By the server's clock: up to where its signs of life were told here. */
let heardOf = 0;

/** Tells the tabs of this desk who gave a sign of life to the server since last asked. */
async function hearPresent(): Promise<void> {
  if (state.reach !== 'here') return;
  try {
    const { now, seen } = await server.present(heardOf);
    heardOf = Math.max(heardOf, ...seen.map(([, at]) => at));
    // In this computer's time, as all that is shown.
    tellSeen(seen.map(([id, at]) => [id, at + Date.now() - now]));
  } catch {
    // How the connection is, the next look says.
  }
}

/** Lets the server tell when something came (HTML Living Standard, server-sent events). */
function listen(): void {
  if (stream && stream.readyState !== EventSource.CLOSED) return;
  hearing = false;
  stream = new EventSource('/api/exchange/desk/stream');
  stream.onmessage = () => {
    hearing = true;
    if (busy) void hearWanted();
    // What comes alone does not wait for others.
    soon(performance.now() - busySince > quietMs ? 0 : gatherMs);
  };
  stream.onerror = () => soon(askingMs);
}

onRowsChanged((table, keys) => {
  const source = mailboxSources.includes(table);
  if (source) changed.add(table, keys);
  // Pairing wakes it; that news was taken in is written there as well, and is nothing new.
  const paired = table === 'pairing' && state.reach === 'notPaired';
  if (paired) said({ reach: 'asking' });
  if (paired || table === 'elsewhere' || source) soon(gatherMs);
});
channel.onmessage = ({ data }: MessageEvent<{ tell?: true; again?: true }>) => {
  if (data.tell) channel.postMessage({ state });
  if (data.again) {
    anew = true;
    soon(0);
  }
};

/** One tab does it for all; where the page is not secure there are no locks, and doing it twice does no harm. */
const locks = (navigator as { locks?: LockManager }).locks;
const begin = () => {
  soon(0);
  setInterval(() => void hearPresent(), presentMs);
};
if (locks) void locks.request('gribbet-desk-connection', () => (begin(), new Promise(() => undefined)));
else begin();
