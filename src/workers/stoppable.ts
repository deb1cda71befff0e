import { wrap, type Remote } from 'comlink';

/** Why work has no result that was stopped. */
export class Stopped extends Error {}

/** Work in a worker that can be stopped. */
export interface Work<T> {
  result: Promise<T>;
  stop: () => void;
}

/** Does a job in a worker of its own, which ends with it; stopping rejects the result with `Stopped`. */
export function stoppable<W, T>(worker: Worker, job: (worker: Remote<W>) => Promise<T>): Work<T> {
  let stop: () => void = () => undefined;
  const stopped = new Promise<never>((_, reject) => {
    stop = () => reject(new Stopped('Stopped'));
  });
  const result = Promise.race([job(wrap<W>(worker)), stopped]).finally(() => worker.terminate());
  return { result, stop };
}
