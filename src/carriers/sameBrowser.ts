import * as Comlink from 'comlink';
import { z } from 'zod';
import type { DeskEnd } from '@/workers/deskEnd.worker';
import { ServerFault } from './ask';
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

/** The worker at the desk's end; one whose script cannot be fetched is not waited for, and begun anew the next time. */
function deskEndWorker() {
  let end: { ask: Comlink.Remote<DeskEnd>; fails: Promise<never> } | null = null;
  const begin = () => {
    const worker = new Worker(new URL('../workers/deskEnd.worker.ts', import.meta.url), { type: 'module' });
    const fails = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        end = null;
        worker.terminate();
        reject(new ServerFault('unreachable'));
      });
    });
    fails.catch(() => undefined);
    return { ask: Comlink.wrap<DeskEnd>(worker), fails };
  };
  return <T>(asks: (deskEnd: Comlink.Remote<DeskEnd>) => T): Promise<Awaited<T>> => {
    end ??= begin();
    return Promise.race([asks(end.ask), end.fails]);
  };
}

/** Carries packets between a student's tab and the desk in the same browser, through a worker. */
export function sameBrowserCarrier(): Carrier {
  const ask = deskEndWorker();
  return {
    greet: async (joinCode) => Greeting.nullable().parse(await ask((end) => end.greet(joinCode))),
    comeAsGuest: async (name, accessCode) =>
      Greeting.nullable().parse(await ask((end) => end.comeAsGuest(name, accessCode))),
    home: async (joinCode) => HomeSitting.array().parse(await ask((end) => end.home(joinCode))),
    start: async (joinCode, sittingId, accessCode, tabId) =>
      StartReply.parse(await ask((end) => end.start(joinCode, sittingId, accessCode, tabId))),
    handOver: async (joinCode, attemptId, request) =>
      AttemptStatus.nullable().parse(await ask((end) => end.handOver(joinCode, attemptId, request))),
    handOverFile: async (joinCode, attemptId, file) =>
      FileReply.parse(await ask((end) => end.handOverFile(joinCode, attemptId, file))),
    file: async (joinCode, sittingId, fileId) =>
      CarriedFile.nullable().parse(await ask((end) => end.file(joinCode, sittingId, fileId))),
    practise: async (joinCode, attemptId, questionId, doing) =>
      PracticeReply.parse(await ask((end) => end.practise(joinCode, attemptId, questionId, doing))),
    ask: async (joinCode, sittingId, request) =>
      z.boolean().parse(await ask((end) => end.ask(joinCode, sittingId, request))),
    handIn: async (joinCode, attemptId) =>
      AttemptStatus.nullable().parse(await ask((end) => end.handIn(joinCode, attemptId))),
    result: async (joinCode, sittingId, opening = true) =>
      ResultReply.parse(await ask((end) => end.result(joinCode, sittingId, opening))),
    toHand: async () => null,
  };
}
