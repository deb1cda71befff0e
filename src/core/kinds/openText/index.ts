import { schemeTotal } from '../../marking/schemePoints';
import type { Finding } from '../../model/common';
import { forgiveAll, forgiven } from '../forgiving';
import { emptyQuestionFields, studentFields, type QuestionKind } from '../QuestionKind';
import { TextResponse } from '../textResponse';
import { OpenText, StudentOpenText } from './schema';

/** An answer in sentences, marked by hand against a model answer and scheme lines. */
export const openText: QuestionKind<OpenText, StudentOpenText, TextResponse> = {
  kind: 'openText',
  label: 'Open text',
  schema: OpenText,
  studentSchema: StudentOpenText,
  responseSchema: TextResponse,
  scoredBy: 'hand',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'openText',
    points: 3,
    modelAnswer: '',
    scheme: [{ id: newId(), text: '', points: 1 }],
  }),
  copy: (question, newId) => ({
    ...question,
    id: newId(),
    scheme: question.scheme.map((line) => ({ ...line, id: newId() })),
  }),
  findings: openTextFindings,
  hasKey: () => false,
  score: () => ({ share: 0, comments: [] }),
  isBlank: (response) => response.text.trim() === '',
  sameAs: (_question, response) => forgiven(response.text, forgiveAll),
  asText: (_question, response) => response.text,
  keyText: (question) => question.modelAnswer,
  offered: () => [],
  categoriesOf: (question, response) => [
    {
      id: `said:${openText.sameAs(question, response)}`,
      label: response.text.trim(),
      share: null,
      offered: false,
    },
  ],
  rightAnswer: () => null,
  keyedBy: (question, { text }) => ({ ...question, modelAnswer: text.trim() || question.modelAnswer }),
  partlyRight: () => null,
  forStudent: (question) => ({
    ...studentFields(question),
    kind: 'openText',
    ...(question.workingOf !== undefined && { workingOf: question.workingOf }),
  }),
};

function openTextFindings(question: OpenText): Finding[] {
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
