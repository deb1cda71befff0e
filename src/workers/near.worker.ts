import { expose } from 'comlink';
import { languageOf } from '@/core/marking/near/language';
import { answerParts } from '@/core/marking/near/parts';
import { nearPiles } from '@/core/marking/near/piles';

/** Answers are put together by nearness here, so that marking goes on meanwhile. */
const nearWorker = {
  /**
   * @param progress told how much is done, 0 to 1
   * @returns for each pile of two and more the places of its answers
   */
  piles: (
    answers: readonly string[],
    otherwise: string,
    threshold: number,
    progress: (done: number) => void,
  ): number[][] =>
    nearPiles(answers, languageOf(answers, otherwise), threshold, progress).filter((pile) => pile.length > 1),

  /** @returns for each answer the names of the parts it is made of */
  parts: (answers: readonly string[], otherwise: string): string[][] =>
    answerParts(answers, languageOf(answers, otherwise)),
};
export type NearWorker = typeof nearWorker;

expose(nearWorker);
