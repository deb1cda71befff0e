import { PickedResponse } from '../options';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import { trueFalseFilling } from './filling';
import { trueFalseOptions } from './options';
import { truth } from './truth';
import { StudentTrueFalse, TrueFalse } from './schema';

/** A statement that is true or false. */
export const trueFalse: QuestionKind<TrueFalse, StudentTrueFalse, PickedResponse> = {
  ...trueFalseFilling,
  kind: 'trueFalse',
  label: 'True or false',
  schema: TrueFalse,
  studentSchema: StudentTrueFalse,
  responseSchema: PickedResponse,
  scoredBy: 'key',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'trueFalse',
    key: null,
    commentTrue: '',
    commentFalse: '',
  }),
  copy: (question, newId) => ({ ...question, id: newId() }),
  findings: (question) =>
    question.key === null
      ? [{ level: 'look', code: 'noKey', questionId: question.id, field: 'options' }]
      : [],
  hasKey: (question) => question.key !== null,
  score: (question, { picked }) => {
    const comment = picked.includes('true') ? question.commentTrue : question.commentFalse;
    return {
      share: picked.length === 1 && picked[0] === String(question.key) ? 1 : 0,
      comments: picked.length > 0 && comment ? [comment] : [],
    };
  },
  guess: (_question, chance) => ({ picked: [chance.pick(trueFalseOptions).id] }),
  sameAs: (_question, { picked }) => picked.join(' '),
  asText: (_question, { picked }) => wordsOf(picked),
  fromText: (_question, text) => {
    const is = truth(text);
    return is === null ? null : { picked: [String(is)] };
  },
  keyText: (question) => (question.key === null ? '' : wordsOf([String(question.key)])),
  offered: (question) =>
    trueFalseOptions.map(({ id, text }) => ({
      id,
      label: text,
      share: question.key === null ? null : Number(id === String(question.key)),
      offered: true,
    })),
  categoriesOf: (question, { picked }) =>
    trueFalse.offered(question).filter((category) => picked.includes(category.id)),
  rightAnswer: ({ key }) => (key === null ? null : { picked: [String(key)] }),
  keyedBy: (question, { picked }) =>
    picked[0] === undefined ? question : { ...question, key: picked[0] === 'true' },
  withOptionRight: (question, place) => (place > 1 ? null : { ...question, key: place === 0 }),
  partlyRight: () => null,
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'trueFalse',
    key: null,
    commentTrue: '',
    commentFalse: '',
  }),
  forStudent: (question) => ({ ...studentFields(question), kind: 'trueFalse' }),
};

function wordsOf(picked: readonly string[]): string {
  return trueFalseOptions
    .filter((option) => picked.includes(option.id))
    .map((option) => option.text)
    .join('; ');
}
