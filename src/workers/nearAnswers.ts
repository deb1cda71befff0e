import type { NearWorker } from './near.worker';
import { stoppable, type Work } from './stoppable';

/** Which of these answers are near each other: the places of each pile of two and more. */
export function nearAnswers(
  answers: readonly string[],
  otherwise: string,
  threshold: number,
): Work<number[][]> {
  return stoppable<NearWorker, number[][]>(
    new Worker(new URL('./near.worker.ts', import.meta.url), { type: 'module' }),
    (worker) => worker.piles(answers, otherwise, threshold),
  );
}
