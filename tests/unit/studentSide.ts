import type { HandOverRequest } from '@/carriers/Carrier';
import type { Answers } from '@/core/model/sitting';
import * as exchangeAttempt from '@/store/exchangeAttempt';
import { start } from '@/store/exchangeStart';

/** What a student's side asks of the desk, from one tab unless another is named. */

export const begins = (joinCode: string, sittingId: string, accessCode: string, now: number, tab = 'tab') =>
  start(joinCode, sittingId, accessCode, tab, now);

export const sends = (
  joinCode: string,
  attemptId: string,
  answers: Answers,
  comeBack: string[] | null,
  now: number,
  more: Partial<HandOverRequest> = {},
) => exchangeAttempt.handOver(joinCode, attemptId, { answers, comeBack, tabId: 'tab', ...more }, now);

export const { handIn: handsIn, practise: practises } = exchangeAttempt;
