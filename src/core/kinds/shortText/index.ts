import { percentFrom } from '../../basics/percent';
import type { Finding } from '../../basics/common';
import { forgiven, forgiveAll } from '../forgiving';
import { guesses } from '../guesses';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import { TextResponse } from '../textResponse';
import { metAnswer, nearAnswer, phrasesOf, withAccepted } from './acceptedAnswers';
import { shortTextFilling } from './filling';
import { ShortText, StudentShortText, type AcceptedAnswer } from './schema';

/** A word or a few, scored against any number of accepted answers. */
export const shortText: QuestionKind<ShortText, StudentShortText, TextResponse> = {
  ...shortTextFilling,
  kind: 'shortText',
  label: 'Short text',
  schema: ShortText,
  studentSchema: StudentShortText,
  responseSchema: TextResponse,
  scoredBy: 'key',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'shortText',
    accepted: [{ id: newId(), text: '', share: 1, comment: '' }],
    forgive: { case: true, spaces: true, accents: true },
  }),
  copy: (question, newId) => ({
    ...question,
    id: newId(),
    accepted: question.accepted.map((accepted) => ({ ...accepted, id: newId() })),
  }),
  findings: shortTextFindings,
  hasKey: (question) => question.accepted.some((accepted) => accepted.text.trim() !== ''),
  score: (question, response) => {
    const answer = met(question, response);
    return { share: answer?.share ?? 0, comments: answer?.comment ? [answer.comment] : [] };
  },
  guess: (_question, chance) => ({ text: chance.pick(guesses) }),
  sameAs: (question, response) => forgiven(response.text, question.forgive),
  asText: (_question, response) => response.text,
  fromText: (_question, text) => ({ text: text.trim() }),
  keyText: (question) =>
    question.accepted
      .filter((accepted) => accepted.text.trim() && accepted.share > 0)
      .map((accepted) =>
        accepted.share < 1
          ? `${acceptedText(accepted)} (${percentFrom(accepted.share)}%)`
          : acceptedText(accepted),
      )
      .join('; '),
  offered: (question) => question.accepted.filter((accepted) => accepted.text.trim()).map(acceptedCategory),
  categoriesOf: (question, response) => {
    const answer = met(question, response);
    if (answer) return [acceptedCategory(answer)];
    const share = shortText.hasKey(question) ? 0 : null;
    return [
      {
        id: `said:${forgiven(response.text, question.forgive)}`,
        label: response.text.trim(),
        share,
        offered: false,
      },
    ];
  },
  rightAnswer: ({ accepted }) => {
    const full = accepted.find((each) => each.share === 1 && each.text.trim());
    return full ? { text: full.match === 'containsAll' ? phrasesOf(full.text).join(' ') : full.text } : null;
  },
  keyedBy: (question, { text }, newId) => ({
    ...question,
    accepted: withAccepted(question.accepted, question.forgive, text, newId),
  }),
  unaccepted: (question, response) =>
    response.text.trim() === '' || met(question, response)
      ? []
      : [{ id: question.id, text: response.text.trim() }],
  accepting: (question, { text }, share, newId) => ({
    ...question,
    accepted: withAccepted(question.accepted, question.forgive, text, newId, share),
  }),
  partlyRight: (question) => {
    const part = question.accepted.find((accepted) => accepted.share > 0 && accepted.share < 1);
    return part ? { text: part.text } : null;
  },
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'shortText',
    accepted: [],
    forgive: { case: true, spaces: true, accents: true },
  }),
  forStudent: (question) => ({ ...studentFields(question), kind: 'shortText' }),
  formOnly: (question, response) =>
    (met({ ...question, forgive: forgiveAll }, response)?.share ?? 0) > (met(question, response)?.share ?? 0),
  nearMiss: (question, response) => {
    if (met(question, response)) return null;
    const near = nearAnswer(question.accepted, question.forgive, response.text);
    return near ? { text: near.text, share: near.share } : null;
  },
};

/** The accepted answer that a response meets, or nearly meets where the question accepts slips of the keys. */
function met(question: ShortText, { text }: TextResponse): AcceptedAnswer | undefined {
  const { accepted, forgive } = question;
  const exact = metAnswer(accepted, forgive, text);
  return exact ?? (question.acceptsNearMisses ? nearAnswer(accepted, forgive, text) : undefined);
}

/** "ebb", or "contains flood and springs" */
function acceptedText({ text, match }: AcceptedAnswer): string {
  return match === 'containsAll' ? `contains ${phrasesOf(text).join(' and ')}` : text;
}

function acceptedCategory(accepted: AcceptedAnswer) {
  return { id: accepted.id, label: acceptedText(accepted), share: accepted.share, offered: true };
}

function shortTextFindings(question: ShortText): Finding[] {
  const questionId = question.id;
  const findings: Finding[] = [];
  if (!shortText.hasKey(question))
    findings.push({ level: 'look', code: 'noKey', questionId, field: 'accepted' });
  else if (!question.accepted.some((accepted) => accepted.text.trim() && accepted.share === 1))
    findings.push({ level: 'look', code: 'noFullAnswer', questionId, field: 'accepted' });
  const seen = new Set<string>();
  for (const accepted of question.accepted) {
    const field = `accepted-${accepted.id}`;
    const text = forgiven(accepted.text, question.forgive);
    if (!accepted.text.trim() && shortText.hasKey(question))
      findings.push({ level: 'look', code: 'emptyAccepted', questionId, field });
    // Forgiving may leave nothing of it: an accepted answer of signs alone, with punctuation forgiven.
    if (accepted.text.trim() && !text)
      findings.push({ level: 'look', code: 'neverMet', questionId, field, detail: accepted.text });
    if (text && seen.has(text))
      findings.push({ level: 'look', code: 'equalAccepted', questionId, field, detail: accepted.text });
    seen.add(text);
  }
  return findings;
}
