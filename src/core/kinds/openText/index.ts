import { forgiveAll, forgiven } from '../forgiving';
import { byHand, copied, emptyScheme, schemeFindings } from '../handMarked';
import { saidFrom } from '../guesses';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import { TextResponse } from '../textResponse';
import { openTextFilling } from './filling';
import { OpenText, StudentOpenText } from './schema';

/** An answer in sentences, marked by hand against a model answer and scheme lines. */
export const openText: QuestionKind<OpenText, StudentOpenText, TextResponse> = {
  ...openTextFilling,
  ...byHand,
  kind: 'openText',
  label: 'Open text',
  schema: OpenText,
  studentSchema: StudentOpenText,
  responseSchema: TextResponse,

  empty: (newId) => ({ ...emptyQuestionFields, id: newId(), kind: 'openText', ...emptyScheme(newId) }),
  copy: copied,
  findings: schemeFindings,
  guess: (question, chance) => ({ text: saidFrom(question, chance) }),
  sameAs: (_question, response) => withoutEnd(forgiven(response.text, forgiveAll)),
  asText: (_question, response) => response.text,
  fromText: (_question, text) => ({ text: text.trim() }),
  keyText: (question) => question.modelAnswer,
  categoriesOf: (question, response) => [
    {
      id: `said:${openText.sameAs(question, response)}`,
      label: response.text.trim(),
      share: null,
      offered: false,
    },
  ],
  keyedBy: (question, { text }) => ({ ...question, modelAnswer: text.trim() || question.modelAnswer }),
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'openText',
    modelAnswer: '',
    scheme: [],
    ...(question.workingOf !== undefined && { workingOf: question.workingOf }),
  }),
  forStudent: (question) => ({
    ...studentFields(question),
    kind: 'openText',
    ...(question.workingOf !== undefined && { workingOf: question.workingOf }),
  }),
};

/** Without the signs at its end, unless there is nothing else: a full stop says nothing. */
const withoutEnd = (text: string) => text.replace(/[\p{Po}\s]+$/u, '') || text;
