import * as Comlink from 'comlink';
import { ServerFault } from './ask';
import type { Carrier, DeskEnd } from './Carrier';

/** The worker at the desk's end; one whose script cannot be fetched is not waited for, and begun anew the next time. */
function deskEndWorker() {
  let end: { ask: Comlink.Remote<DeskEnd>; fails: Promise<never> } | null = null;
  const begin = () => {
    const worker = new Worker(new URL('./deskEnd.worker.ts', import.meta.url), { type: 'module' });
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
    greet: (...asked) => ask((end) => end.greet(...asked)),
    comeAsGuest: (...asked) => ask((end) => end.comeAsGuest(...asked)),
    home: (...asked) => ask((end) => end.home(...asked)),
    start: (...asked) => ask((end) => end.start(...asked)),
    handOver: (...asked) => ask((end) => end.handOver(...asked)),
    handOverFile: (...asked) => ask((end) => end.handOverFile(...asked)),
    file: (...asked) => ask((end) => end.file(...asked)),
    practise: (...asked) => ask((end) => end.practise(...asked)),
    ask: (...asked) => ask((end) => end.ask(...asked)),
    handIn: (...asked) => ask((end) => end.handIn(...asked)),
    result: (joinCode, sittingId, opening = true) => ask((end) => end.result(joinCode, sittingId, opening)),
    toHand: async () => null,
  };
}
