import * as exchange from '@/core/exchange';
import type { AskRequest, CarriedFile, HandOverRequest } from '@/core/exchange/messages';
import type { Answers } from '@/core/model/sitting';
import type { PracticeAct } from '@/core/attempts/practice';
import { deskPlace } from '@/store/deskPlace';

/** What a student's side asks of the desk, from one tab unless another is named. */

export const greets = (joinCode: string) => exchange.greet(deskPlace, joinCode);
export const seesHome = (joinCode: string, now: number) => exchange.home(deskPlace, joinCode, now);
export const comesAsGuest = (name: string, accessCode: string, now: number) =>
  exchange.comeAsGuest(deskPlace, name, accessCode, now);
export const asks = (joinCode: string, sittingId: string, request: AskRequest, now: number) =>
  exchange.ask(deskPlace, joinCode, sittingId, request, now);

export const begins = (joinCode: string, sittingId: string, accessCode: string, now: number, tab = 'tab') =>
  exchange.start(deskPlace, joinCode, sittingId, accessCode, tab, now);

export const sends = (
  joinCode: string,
  attemptId: string,
  answers: Answers,
  comeBack: string[] | null,
  now: number,
  more: Partial<HandOverRequest> = {},
) => exchange.handOver(deskPlace, joinCode, attemptId, { answers, comeBack, tabId: 'tab', ...more }, now);

export const sendsFile = (joinCode: string, attemptId: string, file: CarriedFile, now: number) =>
  exchange.handOverFile(deskPlace, joinCode, attemptId, file, now);
export const fetchesFile = (joinCode: string, sittingId: string, fileId: string, now: number) =>
  exchange.fileFor(deskPlace, joinCode, sittingId, fileId, now);

export const handsIn = (joinCode: string, attemptId: string, now: number) =>
  exchange.handIn(deskPlace, joinCode, attemptId, now);
export const practises = (
  joinCode: string,
  attemptId: string,
  questionId: string,
  doing: PracticeAct,
  now: number,
) => exchange.practise(deskPlace, joinCode, attemptId, questionId, doing, now);
export const reads = (joinCode: string, sittingId: string, now: number) =>
  exchange.result(deskPlace, joinCode, sittingId, true, now);
export const isPresent = (joinCode: string, attemptId: string, now: number, tab = 'tab') =>
  exchange.present(deskPlace, joinCode, attemptId, tab, now);
