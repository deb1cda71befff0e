import { Pile } from '@/core/model/pile';
import type { PileChange } from '@/core/marking/piles/acts';
import { runCommand } from './command';
import { newId } from './ids';
import { desk } from './tables';

/** Where new piles of a question are made. */
export const pilePlace = (sittingId: string, questionId: string) => ({ sittingId, questionId, newId });

/** Changes which answers are held together. Marks stay as they are. */
export async function changePiles(sittingId: string, { put, remove }: PileChange, said: string, now: string) {
  return runCommand({ command: 'changePiles', said, about: sittingId }, now, async (record) => {
    for (const id of remove) await record.remove('piles', [id]);
    for (const pile of put) {
      if (pile.members.length > 0) await record.put('piles', Pile.parse(pile));
      else await record.remove('piles', [pile.id]);
    }
  });
}

/** The piles of one question, in the order they were made. */
export const pilesOf = (sittingId: string, questionId: string): Promise<Pile[]> =>
  desk.piles.where({ sittingId, questionId }).toArray();
