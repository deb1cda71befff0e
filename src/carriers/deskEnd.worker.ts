import * as Comlink from 'comlink';
import { replyTo } from '@/core/exchange';
import { heldBy, type Ask } from '@/core/exchange/messageList';
import { deskRepository } from '@/store/deskRepository';
import { deskElsewhere } from '@/store/elsewhere';

/**
 * The teacher's end of the same-browser carrier. It runs apart from the student's page, so that the page never
 * holds the desk, and answers only with packets. The clock that rules is read here.
 */
const ask: Ask = async (name, said) => {
  // A desk that another computer holds takes nothing in: who comes in is looked for on the server.
  if ((name === 'greet' || name === 'comeAsGuest') && (await deskElsewhere())) return null;
  return replyTo(deskRepository, name, heldBy(name, said), Date.now());
};

Comlink.expose(ask);
