import { kindOf, type Question } from '@/core/kinds';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { WorkMark } from '@/core/model/workMark';
import { viewOf } from '../kinds';

/** What was answered, as it looks. */
export function Answer({
  question,
  group,
  small = false,
  work,
}: {
  question: Question;
  group: SameAnswers;
  small?: boolean;
  work?: readonly WorkMark[];
}) {
  const { Show } = viewOf(question);
  const [first] = group.answers;
  return (
    <Show
      question={kindOf(question).forStudent(question, `${first?.attemptId ?? ''} ${question.id}`)}
      response={first?.response ?? null}
      small={small}
      work={work}
    />
  );
}
