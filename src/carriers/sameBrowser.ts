import * as Comlink from 'comlink';
import { z } from 'zod';
import type { DeskEnd } from '@/workers/deskEnd.worker';
import {
  AttemptStatus,
  CarriedFile,
  FileReply,
  Greeting,
  HomeSitting,
  PracticeReply,
  ResultReply,
  StartReply,
  type Carrier,
} from './Carrier';

/** Carries packets between a student's tab and the desk in the same browser, through a worker. */
export function sameBrowserCarrier(): Carrier {
  const worker = new Worker(new URL('../workers/deskEnd.worker.ts', import.meta.url), { type: 'module' });
  const deskEnd = Comlink.wrap<DeskEnd>(worker);
  return {
    greet: async (joinCode) => Greeting.nullable().parse(await deskEnd.greet(joinCode)),
    comeAsGuest: async (name, accessCode) =>
      Greeting.nullable().parse(await deskEnd.comeAsGuest(name, accessCode)),
    home: async (joinCode) => HomeSitting.array().parse(await deskEnd.home(joinCode)),
    start: async (joinCode, sittingId, accessCode, tabId) =>
      StartReply.parse(await deskEnd.start(joinCode, sittingId, accessCode, tabId)),
    handOver: async (joinCode, attemptId, request) =>
      AttemptStatus.nullable().parse(await deskEnd.handOver(joinCode, attemptId, request)),
    handOverFile: async (joinCode, attemptId, file) =>
      FileReply.parse(await deskEnd.handOverFile(joinCode, attemptId, file)),
    file: async (joinCode, sittingId, fileId) =>
      CarriedFile.nullable().parse(await deskEnd.file(joinCode, sittingId, fileId)),
    practise: async (joinCode, attemptId, questionId, doing) =>
      PracticeReply.parse(await deskEnd.practise(joinCode, attemptId, questionId, doing)),
    ask: async (joinCode, sittingId, request) =>
      z.boolean().parse(await deskEnd.ask(joinCode, sittingId, request)),
    handIn: async (joinCode, attemptId) =>
      AttemptStatus.nullable().parse(await deskEnd.handIn(joinCode, attemptId)),
    result: async (joinCode, sittingId) => ResultReply.parse(await deskEnd.result(joinCode, sittingId)),
    toHand: async () => null,
  };
}
