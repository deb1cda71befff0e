import * as Comlink from 'comlink';
import { AskRequest, CarriedFile, HandOverRequest, PracticeRequest } from '@/carriers/Carrier';
import * as exchange from '@/store/exchange';
import * as exchangeAttempt from '@/store/exchangeAttempt';
import { result } from '@/store/exchangeResult';
import { start } from '@/store/exchangeStart';
import * as exchangeFiles from '@/store/exchangeFiles';

/**
 * The teacher's end of the same-browser carrier. It runs apart from the student's page, so that the page never
 * holds the desk, and answers only with packets. The clock that rules is read here.
 */
const deskEnd = {
  greet: (joinCode: string) => exchange.greet(joinCode),
  home: (joinCode: string) => exchange.home(joinCode, Date.now()),
  comeAsGuest: (name: string, accessCode: string) => exchange.comeAsGuest(name, accessCode, Date.now()),
  start: (joinCode: string, sittingId: string, accessCode: string, tabId: string) =>
    start(joinCode, sittingId, accessCode, tabId, Date.now()),
  handOver: (joinCode: string, attemptId: string, request: unknown) =>
    exchangeAttempt.handOver(joinCode, attemptId, HandOverRequest.parse(request), Date.now()),
  practise: (joinCode: string, attemptId: string, questionId: string, doing: unknown) =>
    exchangeAttempt.practise(joinCode, attemptId, questionId, PracticeRequest.parse(doing), Date.now()),
  ask: (joinCode: string, sittingId: string, request: unknown) =>
    exchange.ask(joinCode, sittingId, AskRequest.parse(request), Date.now()),
  handOverFile: (joinCode: string, attemptId: string, file: unknown) =>
    exchangeFiles.handOverFile(joinCode, attemptId, CarriedFile.parse(file), Date.now()),
  file: (joinCode: string, sittingId: string, fileId: string) =>
    exchangeFiles.fileFor(joinCode, sittingId, fileId, Date.now()),
  handIn: (joinCode: string, attemptId: string) => exchangeAttempt.handIn(joinCode, attemptId, Date.now()),
  result: (joinCode: string, sittingId: string) => result(joinCode, sittingId, Date.now()),
};
export type DeskEnd = typeof deskEnd;

Comlink.expose(deskEnd);
