import * as Comlink from 'comlink';
import { AskRequest, CarriedFile, HandOverRequest, PracticeRequest } from '@/core/exchange/messages';
import * as exchange from '@/core/exchange';
import { onDeskChanged } from '@/store/changes';
import { deskPlace as desk } from '@/store/deskPlace';
import { lineChannel } from './line';

/**
 * The teacher's end of the same-browser carrier. It runs apart from the student's page, so that the page never
 * holds the desk, and answers only with packets. The clock that rules is read here.
 */
const deskEnd = {
  greet: (joinCode: string) => exchange.greet(desk, joinCode),
  home: (joinCode: string) => exchange.home(desk, joinCode, Date.now()),
  comeAsGuest: (name: string, accessCode: string) => exchange.comeAsGuest(desk, name, accessCode, Date.now()),
  start: (joinCode: string, sittingId: string, accessCode: string, tabId: string) =>
    exchange.start(desk, joinCode, sittingId, accessCode, tabId, Date.now()),
  handOver: (joinCode: string, attemptId: string, request: unknown) =>
    exchange.handOver(desk, joinCode, attemptId, HandOverRequest.parse(request), Date.now()),
  practise: (joinCode: string, attemptId: string, questionId: string, doing: unknown) =>
    exchange.practise(desk, joinCode, attemptId, questionId, PracticeRequest.parse(doing), Date.now()),
  ask: (joinCode: string, sittingId: string, request: unknown) =>
    exchange.ask(desk, joinCode, sittingId, AskRequest.parse(request), Date.now()),
  handOverFile: (joinCode: string, attemptId: string, file: unknown) =>
    exchange.handOverFile(desk, joinCode, attemptId, CarriedFile.parse(file), Date.now()),
  file: (joinCode: string, sittingId: string, fileId: string) =>
    exchange.fileFor(desk, joinCode, sittingId, fileId, Date.now()),
  handIn: (joinCode: string, attemptId: string) => exchange.handIn(desk, joinCode, attemptId, Date.now()),
  result: (joinCode: string, sittingId: string, opening: boolean) =>
    exchange.result(desk, joinCode, sittingId, Date.now(), opening),
};
export type DeskEnd = typeof deskEnd;

/** Where a line to the classroom server is kept, it goes on there as well. */
const line = new BroadcastChannel(lineChannel);
onDeskChanged((table) => {
  if (table === 'attempts' || table === 'requests') line.postMessage({ acted: true });
});

Comlink.expose(deskEnd);
