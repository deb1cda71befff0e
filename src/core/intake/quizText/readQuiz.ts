import {
  answerOf,
  headingOf,
  isKeyHeading,
  keyInLine,
  numberingOf,
  optionOf,
  optionsInLine,
  pointsEach,
  pointsIn,
  remarkOf,
  unmarked,
  type Numbering,
  type OptionLine,
  type QuizLine,
  type SaidOf,
} from './signs';

/** A quiz as it stands in a text, understood line by line. */

/** What a line was taken for; `unclear`: nobody knows, it stands in no question. */
export type LineRole =
  'blank' | 'title' | 'instructions' | 'part' | 'stem' | 'option' | 'answer' | 'remark' | 'key' | 'unclear';

/** A question as it is written, before it is one of a kind. */
export interface WrittenQuestion {
  number: number;
  /** In which part it stands, from 0; null: before the first. */
  part: number | null;
  stem: string[];
  options: OptionLine[];
  /** What stands behind "Answer:" or in the key at the end. */
  answers: string[];
  /** It was called a model answer. */
  model: boolean;
  points: number | null;
  remarks: { of: SaidOf; text: string }[];
  /** The first of its lines, from 0. */
  line: number;
}

export interface WrittenQuiz {
  title: string;
  instructions: string[];
  parts: { title: string; pointsEach: number | null }[];
  questions: WrittenQuestion[];
  /** By line. */
  roles: LineRole[];
}

/** The longest line that can be an option without a letter before it. */
const shortLine = 120;

/** Reads a quiz. Every line is in what it says, or marked as unclear. */
export function readQuiz(lines: readonly QuizLine[]): WrittenQuiz {
  return new Reader(lines).read();
}

class Reader {
  private readonly quiz: WrittenQuiz;
  private open: WrittenQuestion | null = null;
  /** How its questions are numbered, once one was; '': they are not. */
  private style: string | null = null;
  private inKey = false;
  private afterBlank = true;
  private pointsEach: number | null = null;

  constructor(private readonly lines: readonly QuizLine[]) {
    this.quiz = { title: '', instructions: [], parts: [], questions: [], roles: [] };
    if (!lines.some(({ text }) => numberingOf(text))) this.style = '';
  }

  read(): WrittenQuiz {
    this.lines.forEach((line, at) => {
      const role = line.text.trim() === '' ? 'blank' : this.roleOf(line, at);
      this.quiz.roles.push(role);
      this.afterBlank = role === 'blank';
    });
    this.optionsWithoutSigns();
    return this.quiz;
  }

  private roleOf(line: QuizLine, at: number): LineRole {
    const text = line.text.trim();
    if (this.inKey) return this.keyLine(text);
    if (this.beginsKey(text, at)) return 'key';
    const title = headingOf(text);
    if (title !== null && !(this.open && optionOf(line))) return this.part(title);
    const numbered = numberingOf(text);
    if (numbered && this.isQuestion(numbered, line))
      return this.question(numbered.number, numbered.rest, numbered.style, at);
    const { open } = this;
    if (open) {
      const role = this.ofQuestion(open, line);
      if (role) return role;
    }
    if (this.style === '' && this.beginsWithoutNumber(at))
      return this.question(this.quiz.questions.length + 1, text, '', at);
    return this.besides(text, open);
  }

  /** A heading of a key, or one line that is a key. */
  private beginsKey(text: string, at: number): boolean {
    if (this.quiz.questions.length === 0) return false;
    const next = this.lines.slice(at + 1).find((line) => line.text.trim() !== '');
    if (isKeyHeading(text)) {
      // "Answer:" alone, with what it is in the next line, is that of its question.
      const number = next ? /^\(?(\d{1,3})\b/.exec(next.text.trim())?.[1] : undefined;
      this.inKey =
        number !== undefined &&
        (Number(number) === 1 ||
          (this.quiz.questions.some((each) => each.number === Number(number)) && this.isLast(at)));
      return this.inKey;
    }
    const pairs = keyInLine(text);
    if (pairs === null || keyPairs(pairs).length < 2) return false;
    this.inKey = true;
    this.keyLine(pairs);
    return true;
  }

  /** Whether no question comes after this line. */
  private isLast = (at: number) =>
    !this.lines.slice(at + 1).some((line) => optionOf(line)?.letter === 0 || line.text.includes('?'));

  private keyLine(text: string): LineRole {
    const pairs = keyPairs(text);
    let met = 0;
    for (const { number, answer } of pairs) {
      const question = this.quiz.questions.find((each) => each.number === number);
      if (!question) continue;
      question.answers.push(answer);
      met++;
    }
    return met > 0 && met === pairs.length ? 'key' : 'unclear';
  }

  private part(title: string): LineRole {
    const each = pointsEach(title);
    this.pointsEach = each;
    this.quiz.parts.push({ title, pointsEach: each });
    this.open = null;
    return 'part';
  }

  /** Whether a number begins a question, and not an option or the middle of a text. */
  private isQuestion({ number, style, rest }: Numbering, line: QuizLine): boolean {
    const { open } = this;
    if (this.style === null || this.style === '' || style === 'Q:') return true;
    if (style === this.style) return true;
    // Otherwise numbered lines in a question are its options.
    const last = open?.number ?? 0;
    return (
      style === 'word' ||
      (number === last + 1 &&
        !(open && open.options.length + 1 === number && optionOf(line) === null && rest.length < 60))
    );
  }

  private question(number: number, rest: string, style: string, at: number): LineRole {
    this.style ??= style;
    if (this.style === '' && style !== '') this.style = style;
    const known = number > 0 ? number : this.quiz.questions.length + 1;
    this.open = {
      ...{ number: known, part: this.quiz.parts.length > 0 ? this.quiz.parts.length - 1 : null },
      ...{ stem: [], options: [], answers: [], model: false, points: this.pointsEach, remarks: [], line: at },
    };
    this.quiz.questions.push(this.open);
    if (rest.trim()) this.stem(this.open, rest.trim());
    return 'stem';
  }

  private stem(question: WrittenQuestion, text: string): void {
    const inLine = optionsInLine(text);
    const { points, text: said } = pointsIn(inLine ? inLine.before : text);
    if (points !== null) question.points = points;
    if (said) question.stem.push(said);
    for (const option of inLine?.options ?? []) this.option(question, { text: option, strong: false });
  }

  private option(question: WrittenQuestion, line: QuizLine): boolean {
    const option = optionOf(line);
    if (!option) return false;
    // Letters go on; a first letter that is none of them begins a sentence.
    const expected = question.options.length;
    if (option.letter !== null && option.letter !== expected) return false;
    question.options.push(option);
    return true;
  }

  private ofQuestion(question: WrittenQuestion, line: QuizLine): LineRole | null {
    const text = line.text.trim();
    const answer = answerOf(text, this.style === 'Q:');
    if (answer && !(question.options.length === 0 && /^a\b/i.test(text) && this.style !== 'Q:')) {
      question.model ||= answer.model;
      if (answer.text) question.answers.push(answer.text);
      else this.answerComes = question;
      return 'answer';
    }
    if (this.answerComes === question) {
      this.answerComes = null;
      question.answers.push(text);
      return 'answer';
    }
    const remark = remarkOf(text);
    if (remark) {
      question.remarks.push(remark);
      return 'remark';
    }
    const inLine = optionsInLine(text);
    if (inLine && inLine.before === '' && question.options.length === 0) {
      for (const option of inLine.options) this.option(question, { text: option, strong: false });
      return 'option';
    }
    if (this.option(question, line)) return 'option';
    const numbered = numberingOf(text);
    if (
      numbered &&
      numbered.number === question.options.length + 1 &&
      (question.options.length > 0 || /[?:]$/.test(question.stem.at(-1) ?? ''))
    ) {
      question.options.push({ letter: null, ...endMarked(numbered.rest, line.strong) });
      return 'option';
    }
    const { points, text: rest } = pointsIn(text);
    if (points !== null && rest === '') {
      question.points = points;
      return 'stem';
    }
    return null;
  }

  private answerComes: WrittenQuestion | null = null;

  /** Without numbers, a question is a block: its options or its answer follow before the next blank line, or it asks. */
  private beginsWithoutNumber(at: number): boolean {
    if (!this.afterBlank) return false;
    const block: QuizLine[] = [];
    for (const line of this.lines.slice(at)) {
      if (line.text.trim() === '') break;
      block.push(line);
    }
    const [first, ...others] = block;
    if (!first || optionOf(first)) return false;
    const next = this.lines.slice(at + block.length).find((line) => line.text.trim() !== '');
    return (
      /\?\s*(?:[[(].*[\])])?$/.test(first.text.trim()) ||
      /_{2,}/.test(first.text) ||
      others.some((line) => optionOf(line) !== null || answerOf(line.text, false) !== null) ||
      (others.length === 0 && next !== undefined && optionOf(next)?.letter === 0)
    );
  }

  /** What belongs to nothing that was begun: goes on with it, or stands before the first question. */
  private besides(text: string, open: WrittenQuestion | null): LineRole {
    if (!open) {
      if (this.quiz.parts.length === 0 && this.quiz.questions.length === 0) {
        if (this.quiz.title === '' && this.quiz.instructions.length === 0 && text.length < shortLine) {
          this.quiz.title = text;
          return 'title';
        }
        this.pointsEach ??= pointsEach(text);
        this.quiz.instructions.push(text);
        return 'instructions';
      }
      return 'unclear';
    }
    if (open.answers.length > 0) return 'unclear';
    const last = open.options.at(-1);
    if (!last) {
      if (this.style === '' && this.afterBlank && open.stem.length > 0) return 'unclear';
      this.stem(open, text);
      return 'stem';
    }
    if (this.afterBlank) return 'unclear';
    const { text: whole, right } = unmarked(`${last.text} ${text}`);
    last.text = whole;
    last.right ||= right;
    return 'option';
  }

  /**
   * Short lines without letters under a question: they are options where at least two stand there and one is right. Where the
   * question does not end as one, that has to be said by a star.
   */
  private optionsWithoutSigns(): void {
    for (const question of this.quiz.questions) {
      const [first, ...others] = question.stem;
      if (!first || question.options.length > 0 || others.length < 2) continue;
      if (!/[?:]\s*$/.test(first) && !others.some((text) => starred.test(text))) continue;
      if (others.some((text) => text.length > shortLine)) continue;
      const lines = this.lines.slice(question.line + 1, question.line + 1 + others.length);
      const options = others.map((text, at) => ({
        letter: null,
        ...endMarked(text, lines[at]?.strong ?? false),
      }));
      const known =
        options.filter(({ right }) => right).length > 0 ||
        others.some((text) => question.answers.includes(text));
      if (!known && question.answers.every((answer) => !/^[a-h]$/i.test(answer))) continue;
      question.stem = [first];
      question.options = options;
      lines.forEach((_, at) => (this.quiz.roles[question.line + 1 + at] = 'option'));
    }
  }
}

/** What is said to be right by a star or a tick before it. */
const starred = /^\s*(?:\*+|[✓✔√])\s*(.+)$/;

/** A text without the mark that it is right. */
function endMarked(text: string, strong: boolean): { text: string; right: boolean } {
  const option = optionOf({ text: `- ${text.trim()}`, strong });
  const star = starred.exec(option?.text ?? text);
  return {
    text: (star?.[1] ?? option?.text ?? text).trim(),
    right: strong || option?.right === true || star !== null,
  };
}

const pairStart = /(?:^|[\s,;|])(?:q(?:uestion)?\s*)?\(?(\d{1,3})\s*[.):=–-]{0,2}\)?\s*(?=\S)/gi;
const letters = /^[[(]?[A-Ha-h](?:\s*(?:[,&+/]|and)\s*[A-Ha-h])*[\])]?$|^(?:true|false|t|f)$/i;

/** The answers of a key by the numbers of their questions: "1 B, 2 C" or "3. ebb stream". */
export function keyPairs(text: string): { number: number; answer: string }[] {
  const starts = [...text.matchAll(pairStart)];
  const pairs = starts.map((start, at) => ({
    number: Number(start[1]),
    answer: text
      .slice(start.index + start[0].length, starts[at + 1]?.index ?? text.length)
      .replace(/[\s,;|]+$/, '')
      .trim(),
  }));
  // Several in a line only where all of them are letters: figures stand in answers too.
  if (pairs.length > 1 && pairs.every(({ answer }) => letters.test(answer))) return pairs;
  const [first] = starts;
  if (first?.index !== 0 && !/^\s/.test(first?.[0] ?? 'x')) return [];
  if (!first || first.index > 0) return [];
  const answer = text.slice(first[0].length).trim();
  return answer ? [{ number: Number(first[1]), answer }] : [];
}
