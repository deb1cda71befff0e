import * as Comlink from 'comlink';
import { replyTo } from '@/core/exchange';
import { heldBy, type Ask } from '@/core/exchange/messageList';
import { onDeskChanged } from '@/store/changes';
import { deskPlace } from '@/store/deskPlace';
import { lineChannel } from '../store/lineChannel';

/**
 * The teacher's end of the same-browser carrier. It runs apart from the student's page, so that the page never
 * holds the desk, and answers only with packets. The clock that rules is read here.
 */
const ask: Ask = (name, said) => replyTo(deskPlace, name, heldBy(name, said), Date.now());

/** Where a line to the classroom server is kept, it goes on there as well. */
const line = new BroadcastChannel(lineChannel);
onDeskChanged((table) => {
  if (table === 'attempts' || table === 'requests') line.postMessage({ acted: true });
});

Comlink.expose(ask);
