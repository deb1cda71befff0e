import type { Chance } from '../../basics/chance';
import { kindOf, type Question } from '../../kinds';
import { paperOf } from '../../kinds/papers';
import type { AnswerPaper } from '../../model/answerPaper';
import { asPrinted } from '../paper/paperAttempt';

/** Which box of a row someone ticks: the one that scores most, or any. */
export type Picks = (questionId: string, part: string, boxes: readonly string[]) => readonly string[];

/**
 * What a made-up student ticks.
 *
 * @param knows how likely the best box of a row is ticked, 0 to 1
 */
export function picksBy(
  questions: readonly Question[],
  print: AnswerPaper,
  knows: number,
  chance: Chance,
): Picks {
  const byId = new Map(questions.map((question) => [question.id, question]));
  return (questionId, part, boxes) => {
    const question = byId.get(questionId);
    if (!question || !chance.happens(knows)) return [chance.pick(boxes)];
    const printed = asPrinted(question, print);
    const kind = kindOf(question);
    const worth = (box: string) => {
      const response = paperOf(printed).fromTicks(printed, { [part]: [box] });
      return response && kind.hasKey(question) ? kind.score(question, response).share : 0;
    };
    const best = boxes.reduce((a, b) => (worth(b) > worth(a) ? b : a));
    return [worth(best) > 0 ? best : chance.pick(boxes)];
  };
}
