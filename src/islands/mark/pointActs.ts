import { optionLetter } from '@/core/kinds/optionLetter';
import { adjustedMark, clearedPoints, givenPoints } from '@/core/marking/markChanges';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import { withLineSwitched } from '@/core/marking/switchLine';
import type { Adjustment } from '@/core/model/mark';
import { counted, points } from '@/words/format';
import type { MarkBasis } from './markBasis';

const done = { waiting: 0, aside: false, nearMiss: null };

/** Points for answers: given, cleared, adjusted, made of lines; and what is put aside for later. */
export function pointActs({ question, begin, together, countOf, keep }: MarkBasis) {
  const give = (group: SameAnswers, worth: number | null) => {
    begin(group.id);
    const count = counted(countOf(group), 'answer');
    if (worth === null)
      keep(group, clearedPoints, `points of ${count} cleared`, {
        is: ({ answers }) => ({ waiting: answers.length, points: null }),
      });
    else
      keep(group, givenPoints(worth), `${points(worth)} of ${points(question.points)} for ${count}`, {
        joins: `points-${question.id}-${group.id}`,
        is: () => ({ ...done, points: worth }),
      });
  };
  const awardOf = (group: SameAnswers, attemptId: string) =>
    together(group)
      .flatMap(({ answers }) => answers)
      .find((answer) => answer.attemptId === attemptId)?.award ?? { byKey: null };
  /** Gives or takes points beside what there is; null takes that back. */
  const adjust = (group: SameAnswers, adjustment: Adjustment | null) => {
    begin(group.id);
    const said = adjustment
      ? `adjusted by ${adjustment.points > 0 ? '+' : ''}${points(adjustment.points)}: ${adjustment.reason}`
      : 'adjustment removed';
    keep(group, (before) => adjustedMark(awardOf(group, before.attemptId), before, adjustment), said, {
      why: adjustment?.reason ?? '',
      is: () => done,
    });
  };
  const switchLine = (group: SameAnswers, lineId: string) => {
    begin(group.id);
    const letter = optionLetter(schemeOf(question).findIndex((line) => line.id === lineId));
    keep(
      group,
      (before, all) => withLineSwitched(question, before, all, lineId),
      `line ${letter} switched for ${counted(countOf(group), 'answer')}`,
      { is: () => done },
    );
  };
  const setAside = (group: SameAnswers) => {
    keep(
      group,
      (_before, all) => ({ aside: !all.some((mark) => mark.aside) }),
      group.aside ? 'no longer set aside' : 'set aside',
      { is: () => ({ aside: !group.aside }) },
    );
  };

  return { give, adjust, switchLine, setAside };
}
