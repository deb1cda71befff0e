import { proxy, wrap } from 'comlink';
import type { RehearsalProgress, RehearsalWorker } from './rehearsal.worker';
import { Stopped, type Work } from './stoppable';
import { deskWorker } from './deskWorker';

/** A rehearsal under way. */
export interface Rehearsing extends Work<void> {
  setSpeed: (times: number) => void;
}

/** Lets a made-up class sit in a worker; it ends with the worker. */
export function playRehearsal(
  sittingId: string,
  wish: { lengthMs: number; seed: number },
  times: number,
  progress: (now: RehearsalProgress) => void,
): Rehearsing {
  const worker = deskWorker('rehearsal');
  const remote = wrap<RehearsalWorker>(worker);
  let stop: () => void = () => undefined;
  const stopped = new Promise<never>((_, reject) => {
    stop = () => reject(new Stopped('Stopped'));
  });
  const played = remote.play(sittingId, wish, times, proxy(progress));
  return {
    result: Promise.race([played, stopped]).finally(() => worker.terminate()),
    stop,
    setSpeed: (next) => void remote.setSpeed(next),
  };
}
