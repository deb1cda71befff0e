import { proxy } from 'comlink';
import type { NearWorker } from './near.worker';
import { stoppable, type Work } from './stoppable';
import { deskWorker } from './deskWorker';

const nearWorker = () => deskWorker('near');

/** Which of these answers are near each other: the places of each pile of two and more. */
export const nearAnswers = (
  answers: readonly string[],
  otherwise: string,
  threshold: number,
  progress: (done: number) => void,
): Work<number[][]> =>
  stoppable<NearWorker, number[][]>(nearWorker(), (worker) =>
    worker.piles(answers, otherwise, threshold, proxy(progress)),
  );

/** The names of the parts that each of these answers is made of. */
export const partsOfAnswers = (answers: readonly string[], otherwise: string): Work<string[][]> =>
  stoppable<NearWorker, string[][]>(nearWorker(), (worker) => worker.parts(answers, otherwise));
