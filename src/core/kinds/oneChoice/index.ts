import { plainText } from '../../basics/richWords';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import {
  bareChoice,
  choiceFindings,
  PickedResponse,
  copiedOptions,
  optionFindings,
  pickedText,
  choiceForStudent,
  ofOptions,
} from '../options';
import { oneChoiceFilling } from './filling';
import { OneChoice, StudentOneChoice } from './schema';

/** One option is right. */
export const oneChoice: QuestionKind<OneChoice, StudentOneChoice, PickedResponse> = {
  ...oneChoiceFilling,
  ...ofOptions,
  kind: 'oneChoice',
  label: 'One choice',
  schema: OneChoice,
  studentSchema: StudentOneChoice,
  responseSchema: PickedResponse,
  scoredBy: 'key',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'oneChoice',
    options: Array.from({ length: 4 }, () => ({ id: newId(), text: '', comment: '' })),
    key: null,
  }),
  copy: (question, newId) => {
    const { copies, ids } = copiedOptions(question.options, newId);
    return { ...question, id: newId(), options: copies, key: ids.get(question.key ?? '') ?? null };
  },
  findings: (question) => {
    const findings = optionFindings(question.id, question.options);
    if (!oneChoice.hasKey(question))
      findings.push({ level: 'look', code: 'noKey', questionId: question.id, field: 'options' });
    return [...findings, ...choiceFindings({ ...question, right: question.key ? [question.key] : [] })];
  },
  hasKey: (question) => question.options.some((option) => option.id === question.key),
  score: (question, response) => ({
    share: response.picked.length === 1 && response.picked[0] === question.key ? 1 : 0,
    comments: question.options
      .filter((option) => response.picked.includes(option.id) && option.comment)
      .map((option) => option.comment),
  }),
  guess: ({ options }, chance) => ({ picked: [chance.pick(options).id] }),
  sameAs: (_question, response) => response.picked.join(' '),
  asText: (question, response) => pickedText(question.options, response.picked),
  keyText: (question) => pickedText(question.options, question.key ? [question.key] : []),
  offered: (question) =>
    question.options.map((option) => ({
      id: option.id,
      label: plainText(option.text),
      share: oneChoice.hasKey(question) ? Number(option.id === question.key) : null,
      offered: true,
    })),
  categoriesOf: (question, response) =>
    oneChoice.offered(question).filter((category) => response.picked.includes(category.id)),
  rightAnswer: ({ key }) => (key === null ? null : { picked: [key] }),
  keyedBy: (question, { picked }) => ({ ...question, key: picked[0] ?? question.key }),
  withOptionRight: (question, place) => {
    const option = question.options[place];
    return option ? { ...question, key: option.id } : null;
  },
  partlyRight: () => null,
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'oneChoice',
    ...bareChoice(question),
    key: null,
  }),
  forStudent: (question, seed) => ({
    ...studentFields(question),
    kind: 'oneChoice',
    ...choiceForStudent(question, seed),
  }),
};
