import { kindNamed, kindOf, Question } from '../../kinds';
import type { PaperContent, PaperPart } from '../../model/paper';
import { withAppended } from '../../model/parts';
import { readQuiz, type LineRole, type WrittenQuestion, type WrittenQuiz } from './readQuiz';
import { blank, truthOf, trueFalseIn, type QuizLine } from './signs';

/** A paper made from a quiz as it was written. */
export interface QuizPaper {
  paper: PaperContent;
  /** What each line was taken for. */
  roles: LineRole[];
  /** By question: the first of its lines, from 0, and whether what was said of its answer is none it can have. */
  read: { line: number; badKey: boolean }[];
}

/** Questions of the kinds that their options and answers look like, with their keys; nothing is made up that is not written. */
export function quizPaper(lines: readonly QuizLine[], newId: () => string): QuizPaper {
  const quiz = readQuiz(lines);
  const roles = [...quiz.roles];
  const parts = quiz.parts.map(({ title }): PaperPart => ({
    ...{ id: newId(), title: title.slice(0, mostTitle), instructions: '' },
    ...{ draw: null, shuffle: false, newPage: false },
  }));
  const questions: Question[] = [];
  const read: QuizPaper['read'] = [];
  for (const written of quiz.questions) {
    const { question, badKey } = questionOf(written, quiz, newId);
    const partId = written.part === null ? undefined : parts[written.part]?.id;
    const parsed = Question.safeParse({ ...question, ...(partId !== undefined && { partId }) });
    if (parsed.success) {
      questions.push(parsed.data);
      read.push({ line: written.line, badKey });
      // More than a question can hold: nothing of it is half taken.
    } else roles[written.line] = 'unclear';
  }
  return {
    paper: {
      ...{ title: quiz.title, instructions: quiz.instructions.join('\n'), questions },
      ...(parts.length > 0 && { parts }),
    },
    roles,
    read,
  };
}

/** A paper with what was read at its end: the title and the instructions where it has none; what stands in no part joins its last one. */
export function withQuiz<P extends PaperContent>(paper: P, quiz: PaperContent): P {
  const inPart = quiz.questions.findIndex(({ partId }) => partId !== undefined);
  const loose = inPart < 0 ? quiz.questions : quiz.questions.slice(0, inPart);
  const parts = [...(paper.parts ?? []), ...(quiz.parts ?? [])];
  return {
    ...paper,
    title: paper.title || quiz.title,
    instructions: paper.instructions === '' ? quiz.instructions : paper.instructions,
    questions: [...withAppended(paper.questions, loose), ...quiz.questions.slice(loose.length)],
    ...(parts.length > 0 && { parts }),
  };
}

const mostTitle = 200;

interface Made {
  question: Question;
  badKey: boolean;
}

function questionOf(written: WrittenQuestion, quiz: WrittenQuiz, newId: () => string): Made {
  const made = keyed(written, quiz, newId);
  const { remarks, points } = written;
  const comment = textOf(remarks, 'comment');
  const note = textOf(remarks, 'note');
  const hints = remarks.flatMap(({ of, text }) => (of === 'hint' ? [text] : []));
  return {
    ...made,
    question: {
      ...made.question,
      points: points ?? (made.question.kind === 'gaps' ? made.question.points : 1),
      ...(comment && { commentRight: comment, commentWrong: comment }),
      ...(note && { note }),
      ...(hints.length > 0 && { hints: hints.map((text) => ({ id: newId(), text, cost: 0 })) }),
    } as Question, // the kind's own fields are untouched
  };
}

const textOf = (remarks: WrittenQuestion['remarks'], which: string) =>
  remarks.flatMap(({ of, text }) => (of === which ? [text] : [])).join('\n');

function keyed(written: WrittenQuestion, quiz: WrittenQuiz, newId: () => string): Made {
  const stem = written.stem.join('\n');
  const answers = written.answers.map((text) => text.replace(/^\s*[–-]\s*/, ''));
  const { options } = written;
  const truths = options.map(({ text }) => truthOf(text));
  if (options.length === 2 && truths.includes(true) && truths.includes(false)) {
    const marked = truths.find((_, at) => options[at]?.right);
    return decided(stem, marked ?? truthIn(answers, truths), answers, newId);
  }
  if (options.length > 0) return choice(written, stem, answers, newId);
  const asks = trueFalseIn(stem);
  const inPart = /true\s*(or|\/)\s*false/i.test(quiz.parts[written.part ?? -1]?.title ?? '');
  if (asks) return decided(asks.text, asks.key ?? truthIn(answers), answers, newId);
  const spoken = answers.length > 0 && answers.every((text) => /^(true|false|t|f)\.?$/i.test(text.trim()));
  if (spoken || inPart) return decided(stem.replace(blank, '').trim(), truthIn(answers), answers, newId);
  if ((stem.match(blank) ?? []).length > 0) return gaps(stem, answers, newId);
  if (answers.length === 0 || written.model || answers.join(' ').split(/\s+/).length > mostWords)
    return open(stem, answers.join('\n'), newId);
  return short(stem, answers, newId);
}

/** A longer answer is a model answer. */
const mostWords = 12;

/** What is said of its truth, in words or by the letter of an option. */
function truthIn(answers: readonly string[], truths: readonly (boolean | null)[] = []): boolean | null {
  const [said = ''] = answers;
  const word = truthOf(said);
  if (word !== null && !/^[a-b]$/i.test(said.trim())) return word;
  const letter = 'ab'.indexOf(said.trim().charAt(0).toLowerCase());
  return said.trim() ? (truths[letter] ?? null) : null;
}

function decided(stem: string, key: boolean | null, answers: readonly string[], newId: () => string): Made {
  const empty = kindNamed('trueFalse').empty(newId);
  return { question: { ...empty, stem, key } as Question, badKey: key === null && answers.length > 0 };
}

function choice(
  { options: written }: WrittenQuestion,
  stem: string,
  answers: readonly string[],
  newId: () => string,
): Made {
  const options = written.map(({ text }) => ({ id: newId(), text, comment: '' }));
  const named = answers.flatMap(
    (text) =>
      namedIn(
        text,
        written.map(({ text: said }) => said),
      ) ?? [null],
  );
  const right = new Set([
    ...written.flatMap(({ right: marked }, at) => (marked ? [at] : [])),
    ...named.flatMap((at) => at ?? []),
  ]);
  const ids = options.flatMap(({ id }, at) => (right.has(at) ? [id] : []));
  const badKey = named.includes(null);
  if (right.size > 1) {
    const empty = kindNamed('severalChoices').empty(newId);
    return { question: { ...empty, stem, options, key: ids } as Question, badKey };
  }
  const empty = kindNamed('oneChoice').empty(newId);
  return { question: { ...empty, stem, options, key: ids[0] ?? null } as Question, badKey };
}

/** Which options an answer names, by their letters or by what they say; null where none. */
function namedIn(answer: string, options: readonly string[]): number[] | null {
  const plain = (text: string) =>
    text
      .trim()
      .toLowerCase()
      .replace(/[.\s]+$/, '');
  const whole = options.findIndex((text) => plain(text) === plain(answer));
  if (whole >= 0) return [whole];
  const letters = /^[[(]?([a-h](?:\s*(?:[,;&+/]|and)\s*[a-h])*)[\])]?\.?$/i.exec(answer.trim());
  const numbers = letters
    ? [...(letters[1] ?? '').toLowerCase().replaceAll('and', ',')].flatMap((letter) =>
        /[a-h]/.test(letter) ? [letter.charCodeAt(0) - 97] : [],
      )
    : [];
  if (numbers.length > 0) return numbers.every((at) => at < options.length) ? numbers : null;
  // "B) ebb stream"
  const [, letter, rest = ''] = /^[[(]?([a-h])[.):\]]\s*(.*)$/i.exec(answer.trim()) ?? [];
  const at = (letter ?? '').toLowerCase().charCodeAt(0) - 97;
  return letter && plain(options[at] ?? '') === plain(rest) ? [at] : null;
}

function gaps(stem: string, answers: readonly string[], newId: () => string): Made {
  const lines = stem.split('\n');
  const from = lines.findIndex((line) => line.search(blank) >= 0);
  let count = 0;
  const text = lines
    .slice(from)
    .join('\n')
    .replace(blank, () => `[${++count}]`);
  const parts = answers.flatMap((answer) => answer.split(/\s*[;,]\s*/)).filter(Boolean);
  // One blank may have several answers; several blanks have one each.
  const perGap =
    count === 1
      ? [alternatives(answers)]
      : parts.length === count
        ? parts.map((part) => alternatives([part]))
        : [];
  const made = Array.from({ length: count }, (_, at) => ({
    ...{ id: newId(), number: at + 1, filledBy: 'typing' as const, options: [], key: null },
    accepted: accepted(perGap[at] ?? [''], newId),
  }));
  const empty = kindNamed('gaps').empty(newId);
  return {
    question: {
      ...empty,
      stem: lines.slice(0, from).join('\n'),
      text,
      gaps: made,
      points: Math.max(1, count),
    } as Question,
    badKey: answers.length > 0 && perGap.length !== count,
  };
}

const accepted = (texts: readonly string[], newId: () => string) =>
  (texts.length > 0 ? texts : ['']).map((text) => ({ id: newId(), text, share: 1, comment: '' }));

/** Answers that are all right: "ebb / ebb stream", "ebb or ebb stream", "ebb; ebb stream". */
const alternatives = (answers: readonly string[]): string[] =>
  answers
    .flatMap((text) => text.split(/\s+\/\s+|(?<=\p{L})\/(?=\p{L})|\s*[;|]\s*|\s+or\s+/u))
    .map((text) => text.trim())
    .filter(Boolean);

function open(stem: string, modelAnswer: string, newId: () => string): Made {
  const empty = kindNamed('openText').empty(newId);
  return { question: { ...empty, stem, modelAnswer, scheme: [] } as Question, badKey: false };
}

/** A number, and what it is of. */
const oneNumber = /^[+-]?[\d.,]*\d(\s*[^\d\s.,][^\d]{0,8})?$/;

function short(stem: string, answers: readonly string[], newId: () => string): Made {
  const all = alternatives(answers);
  const [only = ''] = all;
  const [, unit] = oneNumber.exec(only) ?? [];
  const number = {
    ...{ ...kindNamed('number').empty(newId), stem },
    ...(unit && { unitAsked: 'optional', units: [{ id: newId(), names: unit.trim(), factor: 1 }] }),
  } as Question;
  const value = all.length === 1 && oneNumber.test(only) ? kindOf(number).fromText(number, only) : null;
  const withKey = value && kindOf(number).keyedBy(number, value, newId);
  if (withKey && kindOf(withKey).hasKey(withKey)) return { question: withKey, badKey: false };
  const empty = kindNamed('shortText').empty(newId);
  return { question: { ...empty, stem, accepted: accepted(all, newId) } as Question, badKey: false };
}
