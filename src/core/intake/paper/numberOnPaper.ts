import type { AnswerPaper } from '../../model/answerPaper';
import type { Scan } from '../../model/scan';
import { numberId } from './blocks';
import { boxesOf } from './paperAttempt';

/** The student's number that is ticked on a first page; null where it is not clear, or there is none. */
export function numberOnPaper(print: AnswerPaper, scan: Scan): string | null {
  if (!print.digits || scan.place?.page !== 1) return null;
  const boxes = boxesOf(print, scan).filter(({ region }) => region.questionId === numberId);
  let number = '';
  let ended = false;
  for (let at = 1; at <= print.digits; at++) {
    const row = boxes.filter(({ region }) => region.part === String(at));
    if (row.some(({ state }) => state === 'doubtful')) return null;
    const [figure, another] = row.filter(({ state }) => state === 'ticked');
    // A shorter number leaves the last figures free, none between.
    if (another || (figure && ended)) return null;
    if (figure) number += figure.region.box ?? '';
    else ended = true;
  }
  return number || null;
}
