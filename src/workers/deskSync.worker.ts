import { deskLine } from '@/sync/deskLine';
import { ServerFault } from '@/core/exchange/serverFault';
import { lineKept, pull, push } from '@/sync/boxSync';
import { onDeskChanged } from '@/store/changes';
import type { LineState } from './line';
import { lineChannel } from '../store/lineChannel';
import { tellSeen } from '../store/live/presence';

/** Between two looks at the server: when it tells by itself that something came, and when it does not. */
const listeningMs = 20_000;
const askingMs = 3_000;
/** Between two looks at who is there. */
const presentMs = 4_000;
/** After a change here or there, so that several go together. */
const gatherMs = 250;

const line = deskLine();
const channel = new BroadcastChannel(lineChannel);
let state: LineState = { reach: 'asking', heardAt: null, aheadMs: 0, stopped: [], arriving: 0 };
/** The tables of the desk that changed since they were put into the box; null: all have to be looked at. */
let changed: Set<string> | null = null;
let timer: ReturnType<typeof setTimeout> | null = null;
let dueAt = Infinity;
let busy = false;
let stream: EventSource | null = null;
/** Whether the stream has told anything: what stands between may hold it back. */
let hearing = false;

const said = (next: Partial<LineState>) => {
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

/** What is put into the box is made from these; of what students do nothing has to be put back. */
const told = ['students', 'groups', 'sittings', 'allowances', 'requests', 'paperVersions', 'log'];
const scripted = ['releases', 'marks', 'log', 'sittings', 'paperVersions'];

async function turn(): Promise<void> {
  timer = null;
  dueAt = Infinity;
  if (busy) return soon(gatherMs);
  busy = true;
  try {
    const paired = await lineKept();
    if (!paired) {
      changed = null;
      said({ reach: 'notPaired' });
    } else {
      const before = Date.now();
      const { now: theirs, stopped } = await pull(line, (arriving) => said({ arriving }));
      // Another box knows nothing of what was put into the one before.
      if ((await lineKept())?.box !== paired.box) changed = null;
      const waits = changed;
      changed = new Set();
      try {
        if (waits === null || told.some((table) => waits.has(table)) || waits.has('acted'))
          await push(line, Date.now(), waits === null || scripted.some((table) => waits.has(table)));
      } catch (error) {
        changed = waits === null ? null : new Set([...waits, ...changed]);
        throw error;
      }
      said({ reach: 'here', heardAt: Date.now(), aheadMs: theirs - before, stopped, arriving: 0 });
      listen();
    }
  } catch (error) {
    const why = error instanceof ServerFault ? error.why : 'failed';
    // Something came in while a sitting was taken off: it is taken in first.
    if (why === 'notYet') return soon(gatherMs);
    said({ reach: why === 'notPaired' || why === 'full' || why === 'unreachable' ? why : 'failed' });
    stream?.close();
    stream = null;
  } finally {
    busy = false;
    soon(hearing && stream?.readyState === EventSource.OPEN ? listeningMs : askingMs);
  }
}

/** By the server's clock: up to where its signs of life were told here. */
let heardOf = 0;

/** Tells the tabs of this desk who gave a sign of life to the server since last asked. */
async function hearPresent(): Promise<void> {
  if (state.reach !== 'here') return;
  try {
    const { now, seen } = await line.present(heardOf);
    heardOf = Math.max(heardOf, ...seen.map(([, at]) => at));
    // In this computer's time, as all that is shown.
    tellSeen(seen.map(([id, at]) => [id, at + Date.now() - now]));
  } catch {
    // How the line is, the next look says.
  }
}

/** Lets the server tell when something came (HTML Living Standard, server-sent events). */
function listen(): void {
  if (stream && stream.readyState !== EventSource.CLOSED) return;
  hearing = false;
  stream = new EventSource('/api/exchange/desk/stream');
  stream.onmessage = () => {
    hearing = true;
    soon(gatherMs);
  };
  stream.onerror = () => soon(askingMs);
}

onDeskChanged((table) => {
  changed?.add(table);
  // Pairing wakes it; that news was taken in is written there as well, and is nothing new.
  const woken = table === 'line' && state.reach === 'notPaired';
  if (woken || told.includes(table) || scripted.includes(table)) soon(gatherMs);
});
channel.onmessage = ({ data }: MessageEvent<{ tell?: true; acted?: true; again?: true }>) => {
  if (data.tell) channel.postMessage({ state });
  if (data.again) {
    changed = null;
    soon(0);
  }
  if (data.acted) {
    changed?.add('acted');
    soon(gatherMs);
  }
};

/** One tab does it for all; where the page is not secure there are no locks, and doing it twice does no harm. */
const locks = (navigator as { locks?: LockManager }).locks;
const begin = () => {
  soon(0);
  setInterval(() => void hearPresent(), presentMs);
};
if (locks) void locks.request('gribbet-desk-line', () => (begin(), new Promise(() => undefined)));
else begin();
