import type { Finding } from '../../model/common';
import { forgiven } from '../forgiving';
import { emptyQuestionFields, type QuestionKind } from '../QuestionKind';
import { TextResponse } from '../textResponse';
import { ShortText, StudentShortText, type AcceptedAnswer } from './schema';

/** A word or a few, scored against any number of accepted answers. */
export const shortText: QuestionKind<ShortText, StudentShortText, TextResponse> = {
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
    const met = metAnswer(question, response);
    return { share: met?.share ?? 0, comments: met?.comment ? [met.comment] : [] };
  },
  isBlank: (response) => response.text.trim() === '',
  sameAs: (question, response) => forgiven(response.text, question.forgive),
  asText: (_question, response) => response.text,
  keyText: (question) =>
    question.accepted
      .filter((accepted) => accepted.text.trim() && accepted.share > 0)
      .map((accepted) =>
        accepted.share < 1 ? `${accepted.text} (${Math.round(accepted.share * 100)} %)` : accepted.text,
      )
      .join('; '),
  offered: (question) => question.accepted.filter((accepted) => accepted.text.trim()).map(acceptedCategory),
  categoriesOf: (question, response) => {
    const met = metAnswer(question, response);
    if (met) return [acceptedCategory(met)];
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
  forStudent: ({ id, kind, stem, points }) => ({ id, kind, stem, points }),
};

/** The accepted answer that a response meets; of several equal ones the most generous. */
function metAnswer(question: ShortText, response: TextResponse): AcceptedAnswer | undefined {
  return acceptedTexts(question).get(forgiven(response.text, question.forgive));
}

// Questions are never changed in place, so what they accept is worked out once for all their answers.
const acceptedTextsOf = new WeakMap<ShortText, Map<string, AcceptedAnswer>>();

/** The accepted answers of a question by their forgiven text. */
function acceptedTexts(question: ShortText): Map<string, AcceptedAnswer> {
  const known = acceptedTextsOf.get(question);
  if (known) return known;
  const texts = new Map<string, AcceptedAnswer>();
  for (const accepted of question.accepted) {
    const text = forgiven(accepted.text, question.forgive);
    const before = texts.get(text);
    if (text && (!before || before.share < accepted.share)) texts.set(text, accepted);
  }
  acceptedTextsOf.set(question, texts);
  return texts;
}

function acceptedCategory(accepted: AcceptedAnswer) {
  return { id: accepted.id, label: accepted.text, share: accepted.share, offered: true };
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
    if (!text && shortText.hasKey(question))
      findings.push({ level: 'look', code: 'emptyAccepted', questionId, field });
    if (text && seen.has(text))
      findings.push({ level: 'look', code: 'equalAccepted', questionId, field, detail: accepted.text });
    seen.add(text);
  }
  return findings;
}
