import * as exchange from '@/core/exchange';
import type { AskRequest, CarriedFile, HandOverRequest } from '@/core/exchange/messages';
import type { Answers } from '@/core/model/sitting';
import type { PracticeAct } from '@/core/attempts/practice';
import { deskRepository } from '@/store/deskRepository';

/** What a student's side asks of the desk, from one tab unless another is named. */

export const greets = (joinCode: string) => exchange.greet(deskRepository, joinCode);
export const seesHome = (joinCode: string, now: number) => exchange.home(deskRepository, joinCode, now);
export const comesAsGuest = (name: string, accessCode: string, now: number) =>
  exchange.comeAsGuest(deskRepository, name, accessCode, now);
export const asks = (joinCode: string, sittingId: string, request: AskRequest, now: number) =>
  exchange.ask(deskRepository, joinCode, sittingId, request, now);

export const begins = (joinCode: string, sittingId: string, accessCode: string, now: number, tab = 'tab') =>
  exchange.start(deskRepository, joinCode, sittingId, accessCode, tab, now);

export const sends = (
  joinCode: string,
  attemptId: string,
  answers: Answers,
  comeBack: string[] | null,
  now: number,
  more: Partial<HandOverRequest> = {},
) =>
  exchange.handOver(deskRepository, joinCode, attemptId, { answers, comeBack, tabId: 'tab', ...more }, now);

export const sendsFile = (joinCode: string, attemptId: string, file: CarriedFile, now: number) =>
  exchange.handOverFile(deskRepository, joinCode, attemptId, file, now);
export const fetchesFile = (joinCode: string, sittingId: string, fileId: string, now: number) =>
  exchange.fileFor(deskRepository, joinCode, sittingId, fileId, now);

export const handsIn = (joinCode: string, attemptId: string, now: number) =>
  exchange.handIn(deskRepository, joinCode, attemptId, now);
export const practises = (
  joinCode: string,
  attemptId: string,
  questionId: string,
  doing: PracticeAct,
  now: number,
) => exchange.practise(deskRepository, joinCode, attemptId, questionId, doing, now);
export const reads = (joinCode: string, sittingId: string, now: number) =>
  exchange.result(deskRepository, joinCode, sittingId, true, now);
export const isPresent = (joinCode: string, attemptId: string, now: number, tab = 'tab') =>
  exchange.present(deskRepository, joinCode, attemptId, tab, now);
