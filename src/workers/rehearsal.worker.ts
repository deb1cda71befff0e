import { expose } from 'comlink';
import { playStep, rehearsalSteps } from '@/store/rehearsal';

/** How often a running rehearsal looks whether something is due. */
const tickMs = 200;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** How far a rehearsal has come. */
export interface RehearsalProgress {
  done: number;
  of: number;
}

let speed = 1;

/** The made-up class sits in the background, at a speed that can be changed while it runs. */
const rehearsalWorker = {
  setSpeed: (times: number) => {
    speed = times;
  },
  /**
   * @param times how many times faster than life; Infinity: as fast as it goes
   */
  play: async (
    sittingId: string,
    wish: { lengthMs: number; seed: number },
    times: number,
    progress: (now: RehearsalProgress) => void,
  ): Promise<void> => {
    speed = times;
    const { steps, joinCodes } = await rehearsalSteps(sittingId, wish);
    const attempts = new Map<string, string>();
    let clockMs = 0;
    let last = performance.now();
    let told = 0;
    for (const [done, step] of steps.entries()) {
      while (clockMs < step.atMs) {
        if (speed === Infinity) {
          clockMs = step.atMs;
          break;
        }
        await wait(tickMs);
        const now = performance.now();
        clockMs += (now - last) * speed;
        last = now;
      }
      await playStep(sittingId, joinCodes[step.student] ?? '', step, attempts, Date.now());
      if (performance.now() - told > 200 || done === steps.length - 1) {
        progress({ done: done + 1, of: steps.length });
        told = performance.now();
      }
    }
  },
};
export type RehearsalWorker = typeof rehearsalWorker;

expose(rehearsalWorker);
