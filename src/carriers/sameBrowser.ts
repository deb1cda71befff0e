import * as Comlink from 'comlink';
import { askedBy, type Ask } from '@/core/exchange/messageList';
import { ServerFault } from '@/core/exchange/serverFault';
import type { Carrier } from './Carrier';

/** The worker at the desk's end; one whose script cannot be fetched is not waited for, and begun anew the next time. */
function deskEndWorker(): Ask {
  let end: { ask: Comlink.Remote<Ask>; fails: Promise<never> } | null = null;
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
    return { ask: Comlink.wrap<Ask>(worker), fails };
  };
  return (name, said) => {
    end ??= begin();
    return Promise.race([end.ask(name, said), end.fails]);
  };
}

/** Carries packets between a student's tab and the desk in the same browser, through a worker. */
export const sameBrowserCarrier = (): Carrier => ({
  ...askedBy(deskEndWorker()),
  toHand: async () => null,
});
