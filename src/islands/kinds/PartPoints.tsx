import { NativeSelect } from '@mantine/core';
import { kindOf, type Question } from '@/core/kinds';
import { roundPoints } from '@/core/basics/points';
import { points } from '@/words/format';

interface PartPointsProps<R extends string> {
  question: Question;
  /** The rules there are, in words. */
  words: Record<R, string>;
  value: R;
  change: (rule: R) => void;
}

/** The rule for part points, in words, with a case of this very question worked under it. */
export function PartPoints<R extends string>({ question, words, value, change }: PartPointsProps<R>) {
  const rules = Object.keys(words) as R[]; // the keys of a record are its type parameter
  return (
    <NativeSelect
      label="Part points"
      description={workedLine(question)}
      inputWrapperOrder={['label', 'input', 'description']}
      size="sm"
      value={value}
      data={rules.map((rule) => ({ value: rule, label: words[rule] }))}
      onChange={(event) => change(rules.find((rule) => rule === event.currentTarget.value) ?? value)}
    />
  );
}

/** "For example, “red → port” gives 1 of 2 points." */
export function workedLine(question: Question): string {
  const kind = kindOf(question);
  const response = kind.hasKey(question) ? kind.partlyRight(question) : null;
  if (!response) return 'Write more to see an example.';
  const worth = roundPoints(kind.score(question, response).share * question.points);
  return `For example, “${kind.asText(question, response)}” gives ${points(worth)} of ${points(question.points)}.`;
}
