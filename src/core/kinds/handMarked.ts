import { schemeTotal } from './schemePoints';
import { Text, type Finding } from '../basics/common';
import { SchemeLine } from './schemeLine';

/** What a marker goes by, in every kind that is marked by hand. */
export const schemeFields = { modelAnswer: Text, scheme: SchemeLine.array().max(26) };

interface HandMarked {
  id: string;
  points: number;
  modelAnswer: string;
  scheme: SchemeLine[];
}

/** The same at the start. */
export const emptyScheme = (newId: () => string) => ({
  points: 3,
  modelAnswer: '',
  scheme: [{ id: newId(), text: '', points: 1 }],
});

export function copied<Q extends HandMarked>(question: Q, newId: () => string): Q {
  return { ...question, id: newId(), scheme: question.scheme.map((line) => ({ ...line, id: newId() })) };
}

/** What there is of a kind without a key: the same for all that are marked by hand. */
export const byHand = {
  scoredBy: 'hand',
  hasKey: () => false,
  score: () => ({ share: 0, comments: [] }),
  offered: () => [],
  rightAnswer: () => null,
  partlyRight: () => null,
  scheme: (question: HandMarked) => question.scheme,
  withScheme: <Q extends HandMarked>(question: Q, scheme: SchemeLine[]): Q => ({ ...question, scheme }),
} as const;

/** No model answer nor scheme, lines without words, or lines that do not reach the points. */
export function schemeFindings(question: HandMarked): Finding[] {
  const questionId = question.id;
  const written = question.scheme.filter((line) => line.text.trim());
  if (written.length === 0 && !question.modelAnswer.trim())
    return [{ level: 'look', code: 'noScheme', questionId, field: 'modelAnswer' }];
  const findings: Finding[] = question.scheme
    .filter((line) => !line.text.trim() && question.scheme.length > 1)
    .map((line) => ({ level: 'look', code: 'emptySchemeLine', questionId, field: `line-${line.id}` }));
  const reachable = schemeTotal(written.filter((line) => line.points > 0));
  if (written.length > 0 && reachable < question.points)
    findings.push({
      level: 'look',
      code: 'schemeBelowPoints',
      questionId,
      field: 'scheme',
      detail: `${reachable}`,
    });
  return findings;
}
