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
import { percentFrom } from '../../basics/percent';
import { meant } from '../meant';
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
    const also = question.also?.map(({ id, share }) => ({ id: ids.get(id) ?? id, share }));
    return {
      ...question,
      ...{ id: newId(), options: copies, key: ids.get(question.key ?? '') ?? null },
      ...(also && { also }),
    };
  },
  findings: (question) => {
    const findings = optionFindings(question.id, question.options);
    if (!oneChoice.hasKey(question))
      findings.push({ level: 'look', code: 'noKey', questionId: question.id, field: 'options' });
    return [...findings, ...choiceFindings({ ...question, right: question.key ? [question.key] : [] })];
  },
  hasKey: (question) => question.options.some((option) => option.id === question.key),
  score: (question, response) => ({
    share: response.picked.length === 1 ? shareOf(question, response.picked[0]) : 0,
    comments: question.options
      .filter((option) => response.picked.includes(option.id) && option.comment)
      .map((option) => option.comment),
  }),
  guess: ({ options }, chance) => ({ picked: [chance.pick(options).id] }),
  sameAs: (_question, response) => response.picked.join(' '),
  asText: (question, response) => pickedText(question.options, response.picked),
  fromText: ({ options }, text) => {
    const option = meant(options, text);
    return option ? { picked: [option.id] } : null;
  },
  keyText: (question) =>
    [
      pickedText(question.options, question.key ? [question.key] : []),
      ...(question.also ?? []).map(
        ({ id, share }) =>
          `${pickedText(question.options, [id])}${share < 1 ? ` (${percentFrom(share)}%)` : ''}`,
      ),
    ]
      .filter(Boolean)
      .join('; '),
  offered: (question) =>
    question.options.map((option) => ({
      id: option.id,
      label: plainText(option.text),
      share: oneChoice.hasKey(question) ? shareOf(question, option.id) : null,
      offered: true,
    })),
  categoriesOf: (question, response) =>
    oneChoice.offered(question).filter((category) => response.picked.includes(category.id)),
  rightAnswer: ({ key }) => (key === null ? null : { picked: [key] }),
  keyedBy: (question, { picked }) => withKey(question, picked[0] ?? question.key),
  unaccepted: (question, { picked }) =>
    question.options
      .filter(({ id }) => picked.includes(id) && shareOf(question, id) === 0)
      .map(({ id, text }) => ({ id, text: plainText(text) })),
  accepting: (question, { id }, share) => ({
    ...question,
    also: [...(question.also ?? []).filter((each) => each.id !== id), { id, share }],
  }),
  withOptionRight: (question, place) => {
    const option = question.options[place];
    return option ? withKey(question, option.id) : null;
  },
  partlyRight: ({ also = [] }) => {
    const part = also.find(({ share }) => share > 0 && share < 1);
    return part ? { picked: [part.id] } : null;
  },
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

/** What choosing an option gives, 0 to 1. */
function shareOf({ key, also = [] }: OneChoice, id: string | undefined): number {
  return id === key ? 1 : (also.find((each) => each.id === id)?.share ?? 0);
}

/** With another key: what is the key is not taken as well. */
function withKey({ also, ...question }: OneChoice, key: string | null): OneChoice {
  const left = also?.filter(({ id }) => id !== key) ?? [];
  return { ...question, key, ...(left.length > 0 && { also: left }) };
}
