import { percentFrom } from '../../basics/percent';
import type { Finding } from '../../basics/common';
import { forgiveAll, forgiven } from '../forgiving';
import {
  emptyQuestionFields,
  studentFields,
  bareFields,
  type Category,
  type QuestionKind,
} from '../QuestionKind';
import { TextResponse } from '../textResponse';
import { boundsOf, numberVerdict, unitNamed } from './acceptedNumbers';
import { numberFrom } from './numberFrom';
import { numberFilling } from './filling';
import { NumberQuestion, StudentNumberQuestion, type AcceptedNumber } from './schema';

/** A number, with or without a unit. */
export const number: QuestionKind<NumberQuestion, StudentNumberQuestion, TextResponse> = {
  ...numberFilling,
  kind: 'number',
  label: 'Number',
  schema: NumberQuestion,
  studentSchema: StudentNumberQuestion,
  responseSchema: TextResponse,
  scoredBy: 'key',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'number',
    accepted: [emptyAccepted(newId)],
    unitAsked: 'none',
    units: [],
    figures: null,
  }),
  copy: (question, newId) => ({
    ...question,
    id: newId(),
    accepted: question.accepted.map((accepted) => ({ ...accepted, id: newId() })),
    units: question.units.map((unit) => ({ ...unit, id: newId() })),
  }),
  findings: numberFindings,
  hasKey: (question) => question.accepted.some((accepted) => boundsOf(accepted) !== null),
  score: (question, { text }) => {
    const { met, share } = numberVerdict(question, text);
    return { share, comments: met?.comment ? [met.comment] : [] };
  },
  guess: (question, chance) => {
    const value = question.accepted.find((accepted) => accepted.value !== null)?.value ?? 10;
    const off = value === 0 ? chance.whole(1, 9) : value * chance.pick([0.1, 0.5, 0.9, 1.1, 2, 10, 60, -1]);
    const unit = unitOf(question);
    return { text: `${Number(off.toPrecision(3))}${unit && ` ${unit}`}` };
  },
  // Two ways to write one number in one unit are the same answer, unless figures matter.
  sameAs: (question, { text }) => {
    const written = question.figures === null ? numberFrom(text) : null;
    return written
      ? `${written.value} ${forgiven(written.unit, forgiveAll)}`.trim()
      : forgiven(text, forgiveAll);
  },
  asText: (_question, { text }) => text,
  fromText: (_question, text) => ({ text: text.trim() }),
  keyText: (question) =>
    question.accepted
      .filter((accepted) => boundsOf(accepted) !== null && accepted.share > 0)
      .map((accepted) => {
        const share = accepted.share < 1 ? ` (${percentFrom(accepted.share)}%)` : '';
        return acceptedNumberText(accepted, unitOf(question)) + share;
      })
      .join('; '),
  offered: (question) =>
    question.accepted
      .filter((accepted) => boundsOf(accepted) !== null)
      .map((accepted) => category(question, accepted)),
  categoriesOf: (question, response) => {
    const { met } = numberVerdict(question, response.text);
    if (met) return [category(question, met)];
    const share = number.hasKey(question) ? 0 : null;
    const id = `said:${number.sameAs(question, response)}`;
    return [{ id, label: response.text.trim(), share, offered: false }];
  },
  rightAnswer: (question) => {
    const full = question.accepted.find((accepted) => accepted.share === 1 && boundsOf(accepted));
    if (!full || full.value === null) return null;
    const unit = unitOf(question);
    return { text: `${figured(full.value, question.figures)}${unit && ` ${unit}`}` };
  },
  keyedBy: (question, { text }, newId) => {
    const written = numberFrom(text);
    if (!written || numberVerdict(question, text).share === 1) return question;
    const factor = unitNamed(question.units, written.unit)?.factor ?? 1;
    const filled = question.accepted.filter((accepted) => accepted.value !== null);
    return { ...question, accepted: [{ ...emptyAccepted(newId), value: written.value * factor }, ...filled] };
  },
  // The number by itself, whatever was asked of its unit and figures.
  formOnly: (question, { text }) => {
    const value = numberFrom(text)?.value;
    const bare = { ...question, unitAsked: 'none', figures: null } as const;
    return (
      value !== undefined && numberVerdict(bare, String(value)).share > numberVerdict(question, text).share
    );
  },
  partlyRight: (question) => {
    // The ends of each tier: one of them may be outside the better tiers.
    const ends = question.accepted.flatMap((accepted) => boundsOf(accepted) ?? []).map(String);
    const part = ends.find((text) => {
      const { share } = numberVerdict(question, text);
      return share > 0 && share < 1;
    });
    return part === undefined ? null : { text: part };
  },
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'number',
    accepted: [],
    unitAsked: question.unitAsked,
    units: [],
    figures: null,
  }),
  forStudent: (question) => ({
    ...studentFields(question),
    kind: 'number',
    unitAsked: question.unitAsked,
  }),
};

export function emptyAccepted(newId: () => string): AcceptedNumber {
  return { id: newId(), form: 'exact', value: null, tolerance: 0, upTo: null, share: 1, comment: '' };
}

/** "12.5 ± 0.5 nm", "6.9 to 7.1", "240 ± 2%" */
export function acceptedNumberText(accepted: AcceptedNumber, unit: string): string {
  const behind = unit && ` ${unit}`;
  switch (accepted.form) {
    case 'range':
      return `${accepted.value ?? ''} to ${accepted.upTo ?? ''}${behind}`;
    case 'plusMinus':
      return `${accepted.value ?? ''} ± ${accepted.tolerance}${behind}`;
    case 'percent':
      return `${accepted.value ?? ''}${behind} ± ${accepted.tolerance}%`;
    default:
      return `${accepted.value ?? ''}${behind}`;
  }
}

/** A number with the figures that are asked for. */
function figured(value: number, figures: NumberQuestion['figures']): string {
  if (figures === null) return String(value);
  return figures.of === 'decimals'
    ? value.toFixed(figures.count)
    : value.toPrecision(Math.max(1, figures.count));
}

/** The first name of the unit the key is in. */
function unitOf(question: NumberQuestion): string {
  return question.unitAsked === 'none' ? '' : (question.units[0]?.names.split(',')[0]?.trim() ?? '');
}

function category(question: NumberQuestion, accepted: AcceptedNumber): Category {
  const label = acceptedNumberText(accepted, unitOf(question));
  return { id: accepted.id, label, share: accepted.share, offered: true };
}

function numberFindings(question: NumberQuestion): Finding[] {
  const questionId = question.id;
  const findings: Finding[] = [];
  if (!number.hasKey(question))
    findings.push({ level: 'look', code: 'noKey', questionId, field: 'accepted' });
  else if (!question.accepted.some((accepted) => boundsOf(accepted) && accepted.share === 1))
    findings.push({ level: 'look', code: 'noFullAnswer', questionId, field: 'accepted' });
  question.accepted.forEach((accepted, index) => {
    const field = `accepted-${accepted.id}`;
    const bounds = boundsOf(accepted);
    if (!bounds) {
      if (number.hasKey(question)) findings.push({ level: 'look', code: 'emptyAccepted', questionId, field });
      return;
    }
    // A tier never comes to bear when one before or after it takes all of it and gives as much.
    const hidden = question.accepted.some((other, place) => {
      const wider = boundsOf(other);
      if (!wider || place === index || wider[0] > bounds[0] || wider[1] < bounds[1]) return false;
      const same = wider[0] === bounds[0] && wider[1] === bounds[1];
      return other.share > accepted.share || (other.share === accepted.share && (!same || place < index));
    });
    const detail = acceptedNumberText(accepted, unitOf(question));
    if (hidden) findings.push({ level: 'look', code: 'hiddenTier', questionId, field, detail });
  });
  if (question.unitAsked !== 'none' && !question.units.some((unit) => unit.names.trim()))
    findings.push({ level: 'stops', code: 'noUnit', questionId, field: 'units' });
  return findings;
}
