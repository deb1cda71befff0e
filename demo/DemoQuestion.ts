import type { Question, Response } from '@/core/kinds';

/** One thing an open answer may say: a scheme line met in one of several wordings. */
export interface Saying {
  /** The scheme line it earns; null for what earns nothing. */
  line: string | null;
  /** How likely someone of middling ability says it. */
  likely: number;
  wordings: readonly string[];
}

/** A whole answer, and the scheme lines it earns. */
export interface Stock {
  text: string;
  lines: readonly string[];
}

/** As it is written in the papers: the answer, then its lines. */
type DemoStock = readonly [text: string, ...lines: string[]];

/** A question with what a made-up class does with it. */
export interface DemoQuestion {
  question: Question;
  /** On the scale of ability: 0 is middling, 2 hard. */
  difficulty: number;
  /** Wrong options by how much they draw, in the order of the options. */
  draws?: readonly number[];
  /** What those write who are wrong, in a short text. */
  wrong?: readonly string[];
  /** Answers drawn by a chance of their own, from this seed: those of other questions stay what they were. */
  apart?: number;
  /** The option that is right, where the key says otherwise by mistake. */
  meant?: string;
  /** What some write in place of a right answer, and how many of them: as right, and not accepted. */
  instead?: { response: Response; share: number };
  /** What an open answer is put together from. */
  sayings?: readonly Saying[];
  /** Whole answers that turn up again and again. */
  stock?: readonly Stock[];
}

interface Extras {
  points?: number;
  tags?: string[];
  commentRight?: string;
  commentWrong?: string;
  note?: string;
  difficulty?: number;
}

const fields = (id: string, stem: string, extras: Extras) => ({
  id,
  stem,
  points: extras.points ?? 1,
  tags: extras.tags ?? [],
  commentRight: extras.commentRight ?? '',
  commentWrong: extras.commentWrong ?? '',
  note: extras.note ?? '',
});

/** An option as [text, how much it draws among the wrong, comment]; the right one has draw 0. */
type DemoOption = readonly [text: string, draw: number, comment?: string];

export function one(
  id: string,
  stem: string,
  listed: readonly DemoOption[],
  extras: Extras = {},
): DemoQuestion {
  // Turned by the number of the question, so that the right option is not always the first.
  const turn = Number(id.replace(/\D/g, '')) % listed.length;
  const options = [...listed.slice(turn), ...listed.slice(0, turn)];
  const right = options.findIndex(([, draw]) => draw === 0);
  return {
    question: {
      ...fields(id, stem, extras),
      kind: 'oneChoice',
      options: options.map(([text, , comment], index) => ({
        id: `${id}${'abcdefgh'.charAt(index)}`,
        text,
        comment: comment ?? '',
      })),
      key: right < 0 ? null : `${id}${'abcdefgh'.charAt(right)}`,
    },
    difficulty: extras.difficulty ?? 0,
    draws: options.map(([, draw]) => draw),
  };
}

export function several(
  id: string,
  stem: string,
  options: readonly DemoOption[],
  extras: Extras = {},
): DemoQuestion {
  const made = one(id, stem, options, { points: 2, ...extras });
  if (made.question.kind !== 'oneChoice') throw new Error('unreachable');
  const key = made.question.options
    .filter((_, index) => made.draws?.[index] === 0)
    .map((option) => option.id);
  return { ...made, question: { ...made.question, kind: 'severalChoices', key, rule: 'rightMinusWrong' } };
}

/** Accepted answers as [text, share, comment]. */
type DemoAccepted = readonly [text: string, share: number, comment?: string];

export function short(
  id: string,
  stem: string,
  accepted: readonly DemoAccepted[],
  wrong: readonly string[],
  extras: Extras = {},
): DemoQuestion {
  return {
    question: {
      ...fields(id, stem, extras),
      kind: 'shortText',
      accepted: accepted.map(([text, share, comment], index) => ({
        id: `${id}k${index}`,
        text,
        share,
        comment: comment ?? '',
      })),
      forgive: { case: true, spaces: true, accents: true },
    },
    difficulty: extras.difficulty ?? 0,
    wrong,
  };
}

/** Scheme lines as [id, text, points]. */
type DemoLine = readonly [id: string, text: string, points: number];

export function open(
  id: string,
  stem: string,
  modelAnswer: string,
  scheme: readonly DemoLine[],
  answers: { sayings: readonly Saying[]; stock: readonly DemoStock[] },
  extras: Extras = {},
): DemoQuestion {
  return {
    question: {
      ...fields(id, stem, { points: 3, ...extras }),
      kind: 'openText',
      modelAnswer,
      scheme: scheme.map(([line, text, points]) => ({ id: `${id}${line}`, text, points })),
    },
    difficulty: extras.difficulty ?? 0,
    sayings: answers.sayings.map((saying) => ({ ...saying, line: saying.line && `${id}${saying.line}` })),
    stock: answers.stock.map(([text, ...lines]) => ({ text, lines: lines.map((line) => `${id}${line}`) })),
  };
}

/** A question that is answered with a photo of something drawn; what is drawn is made up apart. */
export function photo(
  id: string,
  stem: string,
  modelAnswer: string,
  scheme: readonly DemoLine[],
  extras: Extras,
): DemoQuestion {
  return {
    question: {
      ...fields(id, stem, extras),
      kind: 'working',
      ways: ['photo'],
      modelAnswer,
      scheme: scheme.map(([line, text, points]) => ({ id: `${id}${line}`, text, points })),
    },
    difficulty: extras.difficulty ?? 0,
  };
}

/** A choice whose key says another option than the class knows to be right. */
export function keyedWrongly(demo: DemoQuestion, as: string): DemoQuestion {
  const { question } = demo;
  if (question.kind !== 'oneChoice') throw new Error('only a choice can be keyed wrongly');
  const key = question.options.find(({ text }) => text === as)?.id ?? null;
  return {
    ...demo,
    apart: 1100,
    question: { ...question, key },
    ...(question.key !== null && { meant: question.key }),
  };
}

/** A gap that is typed, with what is accepted in it. */
export const typedGap = (id: string, number: number, accepted: readonly string[]) => ({
  id,
  number,
  filledBy: 'typing' as const,
  accepted: accepted.map((text, index) => ({ id: `${id}${index}`, text, share: 1, comment: '' })),
  options: [],
  key: null,
});
