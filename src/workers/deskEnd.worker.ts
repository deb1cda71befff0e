import * as Comlink from 'comlink';
import { CarriedFile, HandOverRequest } from '@/carriers/Carrier';
import * as exchange from '@/store/exchange';
import * as exchangeFiles from '@/store/exchangeFiles';

/**
 * The teacher's end of the same-browser carrier. It runs apart from the student's page, so that the page never
 * holds the desk, and answers only with packets. The clock that rules is read here.
 */
const deskEnd = {
  greet: (joinCode: string) => exchange.greet(joinCode),
  home: (joinCode: string) => exchange.home(joinCode, Date.now()),
  start: (joinCode: string, sittingId: string, accessCode: string) =>
    exchange.start(joinCode, sittingId, accessCode, Date.now()),
  handOver: (joinCode: string, attemptId: string, request: unknown) => {
    const { answers, comeBack } = HandOverRequest.parse(request);
    return exchange.handOver(joinCode, attemptId, answers, comeBack, Date.now());
  },
  handOverFile: (joinCode: string, attemptId: string, file: unknown) =>
    exchangeFiles.handOverFile(joinCode, attemptId, CarriedFile.parse(file), Date.now()),
  file: (joinCode: string, sittingId: string, fileId: string) =>
    exchangeFiles.fileFor(joinCode, sittingId, fileId, Date.now()),
  handIn: (joinCode: string, attemptId: string) => exchange.handIn(joinCode, attemptId, Date.now()),
  result: (joinCode: string, sittingId: string) => exchange.result(joinCode, sittingId, Date.now()),
};
export type DeskEnd = typeof deskEnd;

Comlink.expose(deskEnd);
