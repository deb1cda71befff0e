import { sumBy } from 'remeda';
import { plainText } from '../../basics/richWords';
import type { Finding } from '../../basics/common';
import { bareOptions, copiedOptions, optionFindings, withoutComments } from '../options';
import { forgiven, forgiveAll } from '../forgiving';
import { guesses } from '../guesses';
import {
  emptyQuestionFields,
  studentFields,
  bareFields,
  type Category,
  type QuestionKind,
} from '../QuestionKind';
import { meant } from '../meant';
import { metAnswer, nearAnswer, withAccepted } from '../shortText/acceptedAnswers';
import { filledText, gapsInText, fillingText } from './gapText';
import { gapsFilling } from './filling';
import { Gaps, GapsResponse, StudentGaps, type Gap, type StudentGap } from './schema';

/** A text with gaps, each typed in or picked; every gap is worth the same. */
export const gaps: QuestionKind<Gaps, StudentGaps, GapsResponse> = {
  ...gapsFilling,
  kind: 'gaps',
  label: 'Gaps in a text',
  schema: Gaps,
  studentSchema: StudentGaps,
  responseSchema: GapsResponse,
  scoredBy: 'key',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'gaps',
    points: 2,
    text: '',
    gaps: [],
    forgive: { case: true, spaces: true, accents: true },
  }),
  copy: (question, newId) => ({
    ...question,
    id: newId(),
    gaps: question.gaps.map((gap) => {
      const { copies, ids } = copiedOptions(gap.options, newId);
      const accepted = gap.accepted.map((each) => ({ ...each, id: newId() }));
      return { ...gap, id: newId(), accepted, options: copies, key: ids.get(gap.key ?? '') ?? null };
    }),
  }),
  findings: gapsFindings,
  hasKey: (question) => {
    const asked = gapsInText(question.text, question.gaps);
    return asked.length > 0 && asked.every(gapHasKey);
  },
  score: (question, response) => {
    const asked = gapsInText(question.text, question.gaps);
    const verdicts = asked.map((gap) => gapVerdict(question, gap, response.gaps[gap.id] ?? ''));
    return {
      share: sumBy(verdicts, (verdict) => verdict.share) / asked.length,
      comments: verdicts.flatMap((verdict) => verdict.comment || []),
    };
  },
  guess: (question, chance) => ({
    gaps: Object.fromEntries(
      question.gaps.map((gap) => [
        gap.id,
        gap.options.length > 0 ? chance.pick(gap.options).id : chance.pick(guesses),
      ]),
    ),
  }),
  sameAs: (question, response) => {
    const filled = gapsInText(question.text, question.gaps).map((gap) =>
      gap.filledBy === 'typing'
        ? forgiven(response.gaps[gap.id] ?? '', question.forgive)
        : (response.gaps[gap.id] ?? ''),
    );
    return filled.some(Boolean) ? JSON.stringify(filled) : '';
  },
  asText: (question, response) =>
    filledText<Gap | StudentGap>(question.text, question.gaps, (gap) =>
      fillingText(gap, response.gaps[gap.id] ?? ''),
    ),
  fromText: (question, text) => {
    const filled = fillingsFrom(question, text);
    return filled && { gaps: filled };
  },
  keyText: (question) =>
    question.gaps.length === 0 ? '' : filledText(question.text, question.gaps, gapKeyText),
  offered: (question) => gapsInText(question.text, question.gaps).flatMap((gap) => offeredIn(gap)),
  categoriesOf: (question, response) =>
    gapsInText(question.text, question.gaps).flatMap((gap) => {
      const filling = response.gaps[gap.id] ?? '';
      if (filling.trim() === '') return [];
      const { id, share } = gapVerdict(question, gap, filling);
      const offered = offeredIn(gap).find((category) => category.id === id);
      if (offered) return [offered];
      const said = `${gap.id}:said:${forgiven(filling, question.forgive)}`;
      const label = `[${gap.number}] ${fillingText(gap, filling).trim()}`;
      return [{ id: said, label, share: gapHasKey(gap) ? share : null, offered: false, part: partOf(gap) }];
    }),
  rightAnswer: (question) =>
    gaps.hasKey(question)
      ? {
          gaps: Object.fromEntries(
            gapsInText(question.text, question.gaps).map((gap) => [gap.id, rightFilling(gap)]),
          ),
        }
      : null,
  keyedBy: (question, response, newId) => ({
    ...question,
    gaps: question.gaps.map((gap) => {
      const filling = response.gaps[gap.id] ?? '';
      return gap.filledBy === 'typing'
        ? { ...gap, accepted: withAccepted(gap.accepted, question.forgive, filling, newId) }
        : { ...gap, key: gap.options.some((option) => option.id === filling) ? filling : gap.key };
    }),
  }),
  unaccepted: (question, response) =>
    gapsInText(question.text, question.gaps).flatMap((gap) => {
      const text = (response.gaps[gap.id] ?? '').trim();
      const open = gap.filledBy === 'typing' && text !== '';
      return open && !metAnswer(gap.accepted, question.forgive, text) ? [{ id: gap.id, text }] : [];
    }),
  accepting: (question, { id, text }, share, newId) => ({
    ...question,
    gaps: question.gaps.map((gap) =>
      gap.id === id
        ? { ...gap, accepted: withAccepted(gap.accepted, question.forgive, text, newId, share) }
        : gap,
    ),
  }),
  partlyRight: (question) => {
    const asked = gapsInText(question.text, question.gaps);
    if (asked.length < 2 || !gaps.hasKey(question)) return null;
    return { gaps: Object.fromEntries(asked.slice(1).map((gap) => [gap.id, rightFilling(gap)])) };
  },
  formOnly: (question, response) =>
    gaps.score({ ...question, forgive: forgiveAll }, response).share > gaps.score(question, response).share,
  nearMiss: (question, response) => {
    const asked = gapsInText(question.text, question.gaps);
    let slips = 0;
    let share = 0;
    const meant = new Map<Gap, string>();
    for (const gap of asked) {
      const filling = response.gaps[gap.id] ?? '';
      const verdict = gapVerdict(question, gap, filling);
      const near =
        verdict.id === '' && gap.filledBy === 'typing'
          ? nearAnswer(gap.accepted, question.forgive, filling)
          : undefined;
      if (near) slips++;
      share += near?.share ?? verdict.share;
      meant.set(gap, near?.text ?? fillingText(gap, filling));
    }
    if (slips === 0) return null;
    const text = filledText(question.text, question.gaps, (gap) => meant.get(gap) ?? '');
    return { text, share: share / asked.length };
  },
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'gaps',
    text: question.text,
    gaps: question.gaps.map(({ id, number, filledBy, options }) => ({
      id,
      number,
      filledBy,
      accepted: [],
      // Options that nobody picks from any more were wrong answers, and the right one.
      options: filledBy === 'picking' ? bareOptions(options) : [],
      key: null,
    })),
    forgive: { case: true, spaces: true, accents: true },
  }),
  forStudent: (question) => ({
    ...studentFields(question),
    kind: 'gaps',
    text: question.text,
    gaps: question.gaps.map(({ id, number, filledBy, options }) => ({
      id,
      number,
      options: filledBy === 'picking' ? withoutComments(options) : null,
    })),
  }),
};

/** A gap as a new one in a text begins, with the lowest number that is free. */
export function emptyGap(question: Pick<Gaps, 'gaps'>, newId: () => string): Gap {
  const taken = new Set(question.gaps.map((gap) => gap.number));
  let number = 1;
  while (taken.has(number)) number++;
  return {
    id: newId(),
    number,
    filledBy: 'typing',
    accepted: [{ id: newId(), text: '', share: 1, comment: '' }],
    options: [],
    key: null,
  };
}

function gapHasKey(gap: Gap): boolean {
  return gap.filledBy === 'typing'
    ? gap.accepted.some((accepted) => accepted.text.trim() !== '')
    : gap.options.some((option) => option.id === gap.key);
}

/** What the key says of one gap; `id` is the category it counts in, '' when it is in none that is offered. */
function gapVerdict(
  question: Gaps,
  gap: Gap,
  filling: string,
): { id: string; share: number; comment: string } {
  if (gap.filledBy === 'typing') {
    const met = metAnswer(gap.accepted, question.forgive, filling);
    return { id: met ? `${gap.id}:${met.id}` : '', share: met?.share ?? 0, comment: met?.comment ?? '' };
  }
  const option = gap.options.find((each) => each.id === filling);
  return {
    id: option ? `${gap.id}:${option.id}` : '',
    share: Number(option !== undefined && option.id === gap.key),
    comment: option?.comment ?? '',
  };
}

function offeredIn(gap: Gap): Category[] {
  const label = (text: string) => `[${gap.number}] ${text}`;
  return gap.filledBy === 'typing'
    ? gap.accepted
        .filter((accepted) => accepted.text.trim())
        .map(({ id, text, share }) => ({
          ...{ id: `${gap.id}:${id}`, label: label(text), share, offered: true },
          part: partOf(gap),
        }))
    : gap.options.map(({ id, text }) => ({
        id: `${gap.id}:${id}`,
        label: label(plainText(text)),
        share: gapHasKey(gap) ? Number(id === gap.key) : null,
        offered: true,
        part: partOf(gap),
      }));
}

const partOf = (gap: Gap) => ({ id: gap.id, label: `Gap ${gap.number}` });

function rightFilling(gap: Gap): string {
  if (gap.filledBy === 'picking') return gap.key ?? '';
  return gap.accepted.reduce((best, each) => (each.share > best.share ? each : best), {
    text: '',
    share: -1,
  }).text;
}

/** What is accepted in one gap: "flood | ebb" */
function gapKeyText(gap: Gap): string {
  if (gap.filledBy === 'picking') return fillingText(gap, gap.key ?? '');
  return gap.accepted
    .filter((accepted) => accepted.text.trim() && accepted.share > 0)
    .map((accepted) => accepted.text)
    .join(' | ');
}

function gapsFindings(question: Gaps): Finding[] {
  const questionId = question.id;
  const findings: Finding[] = [];
  const inText = gapsInText(question.text, question.gaps);
  if (inText.length === 0) findings.push({ level: 'stops', code: 'noGaps', questionId, field: 'gapText' });
  for (const gap of question.gaps) {
    const field = `gap-${gap.id}`;
    const detail = `[${gap.number}]`;
    if (!inText.includes(gap))
      findings.push({ level: 'look', code: 'gapNotInText', questionId, field, detail });
    else if (!gapHasKey(gap))
      findings.push({ level: 'look', code: 'gapWithoutKey', questionId, field, detail });
    if (gap.filledBy === 'picking')
      findings.push(...optionFindings(questionId, gap.options).map((finding) => ({ ...finding, field })));
  }
  return findings;
}

/** What is in each gap: the whole text with the fillings in brackets, or the fillings alone, in order. */
function fillingsFrom(question: Pick<Gaps, 'text' | 'gaps'>, text: string): Record<string, string> | null {
  const asked = gapsInText(question.text, question.gaps);
  const inText = [...text.matchAll(/\[([^\]]*)\]/g)].map(([, filling = '']) => filling);
  const parts = asked.length === 1 ? [text] : text.split(/[;|\n]/);
  const said = (inText.length === asked.length ? inText : parts).map((part) => part.trim());
  if (said.length > asked.length) return null;
  const filled: Record<string, string> = {};
  for (const [index, gap] of asked.entries()) {
    const words = said[index] ?? '';
    if (!words) continue;
    const filling = gap.filledBy === 'typing' ? words : meant(gap.options, words)?.id;
    if (filling === undefined) return null;
    filled[gap.id] = filling;
  }
  return filled;
}
