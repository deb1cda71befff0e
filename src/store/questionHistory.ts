import { sittingLooksWrong } from '@/core/analysis/sittingLooksWrong';
import type { LooksWrong } from '@/core/analysis/looksWrong';
import { itemsOf } from '@/core/kinds/items';
import type { Repair } from '@/core/model/repair';
import { inFigures, isIn, seatsOf } from '@/core/seats/seats';
import { sittingRecords } from './queries';

/** What looks wrong with a question in one sitting, and what was done about it there, the latest first. */
export interface QuestionHistory {
  findings: LooksWrong[];
  repairs: Repair[];
}

/** @param questionId of the paper, or of what is asked beside its answer */
export async function questionHistory(
  sittingId: string,
  questionId: string,
  now: number,
): Promise<QuestionHistory> {
  const records = await sittingRecords(sittingId);
  if (!records) return { findings: [], repairs: [] };
  const seats = inFigures(seatsOf(records, now)).filter(isIn);
  const suspects = sittingLooksWrong(records.questions, seats) ?? [];
  return {
    findings: suspects.find(({ question }) => question.id === questionId)?.findings ?? [],
    repairs: records.repairs
      .filter(({ before }) => itemsOf([before]).some(({ id }) => id === questionId))
      .sort((a, b) => (a.at < b.at ? 1 : -1)),
  };
}
