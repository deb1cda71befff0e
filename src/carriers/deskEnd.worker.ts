import * as Comlink from 'comlink';
import { replyTo } from '@/core/exchange';
import { heldBy, type Ask } from '@/core/exchange/messageList';
import { deskRepository } from '@/store/deskRepository';

/**
 * The teacher's end of the same-browser carrier. It runs apart from the student's page, so that the page never
 * holds the desk, and answers only with packets. The clock that rules is read here.
 */
const ask: Ask = (name, said) => replyTo(deskRepository, name, heldBy(name, said), Date.now());

Comlink.expose(ask);
