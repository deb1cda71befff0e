import * as Comlink from 'comlink';
import { AskRequest, CarriedFile, HandOverRequest, PracticeRequest } from '@/core/exchange/messages';
import type { DeskEnd } from './Carrier';
import * as exchange from '@/core/exchange';
import { onDeskChanged } from '@/store/changes';
import { deskPlace as desk } from '@/store/deskPlace';
import { lineChannel } from '../store/lineChannel';

/**
 * The teacher's end of the same-browser carrier. It runs apart from the student's page, so that the page never
 * holds the desk, and answers only with packets. The clock that rules is read here.
 */
const deskEnd: DeskEnd = {
  greet: (joinCode) => exchange.greet(desk, joinCode),
  home: (joinCode) => exchange.home(desk, joinCode, Date.now()),
  comeAsGuest: (name, accessCode) => exchange.comeAsGuest(desk, name, accessCode, Date.now()),
  start: (joinCode, sittingId, accessCode, tabId) =>
    exchange.start(desk, joinCode, sittingId, accessCode, tabId, Date.now()),
  handOver: (joinCode, attemptId, request) =>
    exchange.handOver(desk, joinCode, attemptId, HandOverRequest.parse(request), Date.now()),
  practise: (joinCode, attemptId, questionId, doing) =>
    exchange.practise(desk, joinCode, attemptId, questionId, PracticeRequest.parse(doing), Date.now()),
  ask: (joinCode, sittingId, request) =>
    exchange.ask(desk, joinCode, sittingId, AskRequest.parse(request), Date.now()),
  handOverFile: (joinCode, attemptId, file) =>
    exchange.handOverFile(desk, joinCode, attemptId, CarriedFile.parse(file), Date.now()),
  file: (joinCode, sittingId, fileId) => exchange.fileFor(desk, joinCode, sittingId, fileId, Date.now()),
  handIn: (joinCode, attemptId) => exchange.handIn(desk, joinCode, attemptId, Date.now()),
  result: (joinCode, sittingId, opening) => exchange.result(desk, joinCode, sittingId, Date.now(), opening),
};

/** Where a line to the classroom server is kept, it goes on there as well. */
const line = new BroadcastChannel(lineChannel);
onDeskChanged((table) => {
  if (table === 'attempts' || table === 'requests') line.postMessage({ acted: true });
});

Comlink.expose(deskEnd);
