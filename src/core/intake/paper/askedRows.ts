import { optionLetter } from '../../kinds/optionLetter';
import { paperOf } from '../../kinds/papers';
import type { Question } from '../../kinds';
import { around, type Rect } from '../../basics/rect';
import { plainText } from '../../basics/richWords';
import type { AnswerPaper } from '../../model/answerPaper';
import type { Scan, TickState } from '../../model/scan';
import type { NotRead } from '../../model/sitting';
import { asPrinted, boxesOf, inRow, readCopy, scansOf } from './paperAttempt';
import { body } from './sheet';

/** One box of a row that somebody has to look at. */
export interface AskedBox {
  id: string;
  /** The key that stands for it: A for the first. */
  letter: string;
  label: string;
  state: TickState;
}

/** A row of boxes that somebody has to look at, since what is ticked can't be said for sure. */
export interface AskedRow {
  /** Of all rows of a sitting, no other has it. */
  id: string;
  printId: string;
  copy: number;
  page: number;
  questionId: string;
  part: string;
  why: NotRead;
  /** At most one of its boxes can be ticked. */
  single: boolean;
  boxes: AskedBox[];
  /** Where it stands. */
  at: Rect;
  fileId: string;
  /** The boxes that are put forward as ticked. */
  forward: string[];
}

/** All rows that somebody has to look at, by copy, in the order in which they stand. */
export function askedRows(
  prints: readonly AnswerPaper[],
  questionsOf: (print: AnswerPaper) => readonly Question[],
  scans: readonly Scan[],
): AskedRow[] {
  return prints.flatMap((print) => {
    const copies = new Set(scans.flatMap(({ place }) => (place?.printId === print.id ? [place.copy] : [])));
    const questions = questionsOf(print);
    return [...copies].sort((a, b) => a - b).flatMap((copy) => rowsOfCopy(print, copy, questions, scans));
  });
}

function rowsOfCopy(
  print: AnswerPaper,
  copy: number,
  questions: readonly Question[],
  scans: readonly Scan[],
): AskedRow[] {
  const { asked, notRead } = readCopy(print, copy, questions, scans);
  const pages = scansOf(print, copy, scans);
  return Object.entries(asked).flatMap(([questionId, parts]) => {
    const question = questions.find(({ id }) => id === questionId);
    if (!question) return [];
    const printed = asPrinted(question, print);
    const form = paperOf(printed);
    return parts.flatMap((part): AskedRow[] => {
      const row = form.rows(printed).find(({ id }) => id === part);
      const index = print.pages.findIndex((regions) => regions.some(inRow({ questionId, part })));
      const [scan] = pages.get(index + 1) ?? [];
      if (!row || !scan) return [];
      const own = boxesOf(print, scan).filter(({ region }) => inRow({ questionId, part })(region));
      const regions = (print.pages[index] ?? []).filter(inRow({ questionId, part }));
      const boxes = row.boxes.map(({ id, label }, at): AskedBox => ({
        id,
        letter: optionLetter(at),
        label: plainText(label),
        state: own.find(({ region }) => region.box === id)?.state ?? 'doubtful',
      }));
      const single =
        boxes.length > 1 && form.fromTicks(printed, { [part]: boxes.map(({ id }) => id) }) === null;
      const { y, h } = around(regions, 2);
      return [
        {
          ...{ id: `${print.id} ${copy} ${questionId} ${part}`, printId: print.id, copy, page: index + 1 },
          ...{ questionId, part, why: notRead[questionId] ?? 'doubtful', single, boxes },
          ...{ at: { x: body.x, y, w: body.w, h }, fileId: scan.picture.id },
          forward: forwardOf(boxes, single),
        },
      ];
    });
  });
}

/** What is probably meant: what is clearly ticked, else what may be. Nothing where two may be and one can. */
function forwardOf(boxes: readonly AskedBox[], single: boolean): string[] {
  const of = (...states: TickState[]) =>
    boxes.filter(({ state }) => states.includes(state)).map(({ id }) => id);
  const sure = of('ticked');
  const may = sure.length > 0 ? sure : of('doubtful');
  return single && may.length > 1 ? [] : may;
}
