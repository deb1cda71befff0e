import { mapKeys } from 'remeda';
import { plainText } from '../../basics/richWords';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import {
  bareChoice,
  choiceFindings,
  choiceForStudent,
  copiedOptions,
  optionFindings,
  PickedResponse,
  pickedText,
  ofOptions,
} from '../options';
import { meantSeveral } from '../meant';
import { partPointsShare, type PickCounts } from './partPoints';
import { severalChoicesFilling } from './filling';
import { SeveralChoices, StudentSeveralChoices } from './schema';

/** Any number of options are right. */
export const severalChoices: QuestionKind<SeveralChoices, StudentSeveralChoices, PickedResponse> = {
  ...severalChoicesFilling,
  ...ofOptions,
  kind: 'severalChoices',
  label: 'Several choices',
  schema: SeveralChoices,
  studentSchema: StudentSeveralChoices,
  responseSchema: PickedResponse,
  scoredBy: 'key',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'severalChoices',
    points: 2,
    options: Array.from({ length: 5 }, () => ({ id: newId(), text: '', comment: '' })),
    key: [],
    rule: 'rightMinusWrong',
  }),
  copy: (question, newId) => {
    const { copies, ids } = copiedOptions(question.options, newId);
    return {
      ...question,
      id: newId(),
      options: copies,
      key: question.key.flatMap((id) => ids.get(id) ?? []),
      ...(question.weights && { weights: renamed(question.weights, ids) }),
    };
  },
  findings: (question) => {
    const findings = optionFindings(question.id, question.options);
    const place = { questionId: question.id, field: 'options' };
    if (!severalChoices.hasKey(question)) findings.push({ level: 'look', code: 'noKey', ...place });
    else if (question.options.every((option) => question.key.includes(option.id)))
      findings.push({ level: 'look', code: 'everyOptionRight', ...place });
    return [...findings, ...choiceFindings({ ...question, right: question.key })];
  },
  hasKey: (question) => question.options.some((option) => question.key.includes(option.id)),
  score: (question, response) => ({
    share: partPointsShare(question.rule, pickCounts(question, response)),
    comments: question.options
      .filter((option) => response.picked.includes(option.id) && option.comment)
      .map((option) => option.comment),
  }),
  guess: ({ options }, chance) => {
    const some = options.filter(() => chance.happens(0.45));
    return { picked: (some.length > 0 ? some : options.slice(0, 1)).map(({ id }) => id) };
  },
  sameAs: (question, response) =>
    question.options
      .map((option) => option.id)
      .filter((id) => response.picked.includes(id))
      .join(' '),
  asText: (question, response) => pickedText(question.options, response.picked),
  fromText: ({ options }, text) => {
    const found = meantSeveral(options, text);
    return found && { picked: found.map(({ id }) => id) };
  },
  keyText: (question) => pickedText(question.options, question.key),
  offered: (question) =>
    question.options.map((option) => ({
      id: option.id,
      label: plainText(option.text),
      share: severalChoices.hasKey(question) ? Number(question.key.includes(option.id)) : null,
      offered: true,
    })),
  categoriesOf: (question, response) =>
    severalChoices.offered(question).filter((category) => response.picked.includes(category.id)),
  rightAnswer: (question) => (severalChoices.hasKey(question) ? { picked: question.key } : null),
  keyedBy: (question, { picked }) => (picked.length > 0 ? { ...question, key: picked } : question),
  withOptionRight: (question, place) => {
    const option = question.options[place];
    if (!option) return null;
    const right = (id: string) => question.key.includes(id) !== (id === option.id);
    return { ...question, key: question.options.map(({ id }) => id).filter(right) };
  },
  partlyRight,
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'severalChoices',
    ...bareChoice(question),
    key: [],
    rule: 'allOrNothing',
  }),
  forStudent: (question, seed) => ({
    ...studentFields(question),
    kind: 'severalChoices',
    ...choiceForStudent(question, seed),
  }),
};

/** What picking an option gives under the rule of weights; where none is set, right options share the points evenly. */
export function weightOf(question: SeveralChoices, id: string): number {
  return question.weights?.[id] ?? (question.key.includes(id) ? 1 / question.key.length : 0);
}

function renamed(weights: Record<string, number>, ids: ReadonlyMap<string, string>): Record<string, number> {
  return mapKeys(weights, (id) => ids.get(id) ?? id);
}

/** All right options but one; with one right option alone, that and a wrong one. */
function partlyRight(question: SeveralChoices): PickedResponse | null {
  const right = question.options.map((option) => option.id).filter((id) => question.key.includes(id));
  if (right.length > 1) return { picked: right.slice(0, -1) };
  const wrong = question.options.find((option) => !right.includes(option.id));
  return right[0] && wrong ? { picked: [right[0], wrong.id] } : null;
}

/** How an answer stands to the key. An option picked twice or unknown to the question counts as nothing. */
export function pickCounts(question: SeveralChoices, response: PickedResponse): PickCounts {
  const counts = { right: 0, hit: 0, falsePicks: 0, options: question.options.length, weight: 0 };
  for (const { id } of question.options) {
    const picked = response.picked.includes(id);
    if (picked) counts.weight += weightOf(question, id);
    if (question.key.includes(id)) {
      counts.right++;
      if (picked) counts.hit++;
    } else if (picked) counts.falsePicks++;
  }
  return counts;
}
