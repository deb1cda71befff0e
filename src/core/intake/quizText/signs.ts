/** How people write quizzes: what a line of one looks like. */

/** One line of a quiz. */
export interface QuizLine {
  text: string;
  /** Bold or underlined as a whole. */
  strong: boolean;
}

/** The lines of a pasted text; what is set between two stars or two low lines is bold or underlined. */
export const linesFrom = (text: string): QuizLine[] => text.replace(/\r\n?/g, '\n').split('\n').map(lineFrom);

function lineFrom(raw: string): QuizLine {
  const text = raw.replace(/[\u00a0\t]/g, ' ').trimEnd();
  const plain = text.trim();
  const [, lead = '', strong] =
    /^((?:\(?[A-Za-z0-9]{1,2}[.):]\s*)?)(?:\*\*|__)(?=\S)(.+?)(?:\*\*|__)$/.exec(plain) ?? [];
  return strong === undefined || /^_+$/.test(strong)
    ? { text, strong: false }
    : { text: `${lead}${strong}`, strong: true };
}

/** How a question is numbered: "Question 3", "3.", "3)". */
export interface Numbering {
  number: number;
  style: string;
  rest: string;
}

const worded =
  /^(question|q|no\.?|nr\.?|number|item|exercise|problem|task)\s*#?\s*(\d{1,3})\s*([.):–-]?)\s*(.*)$/i;
const bare = /^(\(?)(\d{1,3})\s?([.):]\)?|\s[–-])(?:\s+(.*)|)$/;
const asked = /^Q\s*[:.]\s*(.+)$/;

export function numberingOf(text: string): Numbering | null {
  const line = text.trim();
  const byWord = worded.exec(line);
  if (byWord) return { number: Number(byWord[2]), style: 'word', rest: byWord[4] ?? '' };
  const byFigure = bare.exec(line);
  if (byFigure)
    return {
      number: Number(byFigure[2]),
      style: `${byFigure[1]}${byFigure[3]?.trim()}`,
      rest: byFigure[4] ?? '',
    };
  const byLetter = asked.exec(line);
  return byLetter ? { number: 0, style: 'Q:', rest: byLetter[1] ?? '' } : null;
}

/** An option as it is written. */
export interface OptionLine {
  /** From 0 for A; null: it has a box or a dash. */
  letter: number | null;
  text: string;
  right: boolean;
}

const rightBefore = /^\s*(?:\*+|[✓✔√+=>→])\s*(?=\(?[A-Za-z][.):])/;
const lettered = /^\s*[([]?([A-Za-z])\s?[.):\]]\)?\s+(.*)$/;
const boxed = /^\s*(?:\[\s*([xX✓✔*]?)\s*\]|\(\s*([xX✓✔*•]?)\s*\)|([☐☑☒○●◯◉]))\s*(.+)$/;
const dashed = /^\s*[-–—•·▪◦]\s+(.+)$/;
const rightBehind =
  /\s*(?:\*+|[✓✔√]|[([](?:correct|right|true answer|answer|x|\*)[)\]]|(?:<-+|←)\s*(?:correct|right|answer)?)\s*$/i;

/** The mark that an answer is right, taken off its end. */
export function unmarked(text: string): { text: string; right: boolean } {
  const cut = text.replace(rightBehind, '');
  return { text: cut.trim(), right: cut !== text && cut.trim() !== '' };
}

export function optionOf({ text, strong }: QuizLine): OptionLine | null {
  // "[x]" is a box and no letter.
  const byBox = boxed.exec(text);
  if (byBox) {
    const [, square = '', round = '', sign = '', said = ''] = byBox;
    return {
      letter: null,
      text: said.trim(),
      right: square !== '' || round !== '' || '☑☒●◉'.includes(sign || '-'),
    };
  }
  const before = rightBefore.test(text);
  const line = text.replace(rightBefore, '');
  const byLetter = lettered.exec(line);
  if (byLetter) {
    const { text: said, right } = unmarked(byLetter[2] ?? '');
    const letter = (byLetter[1] ?? 'a').toLowerCase().charCodeAt(0) - 97;
    return { letter, text: said, right: before || right || strong };
  }
  const byDash = dashed.exec(text);
  if (!byDash) return null;
  const { text: said, right } = unmarked(byDash[1] ?? '');
  const star = /^\*+\s*/.exec(said);
  return { letter: null, text: said.slice(star?.[0].length ?? 0), right: right || strong || star !== null };
}

/** Options that stand in one line: "a) red b) green c) white". Null where there are not two. */
export function optionsInLine(text: string): { before: string; options: string[] } | null {
  const marks = [...text.matchAll(/(?:^|\s)([*✓✔+]?\s?[([]?([a-hA-H])[.):\]])\s+/g)];
  const start = marks.findIndex(
    (mark, at) => isLetter(mark, 0) && marks[at + 1] && isLetter(marks[at + 1], 1),
  );
  if (start < 0) return null;
  const inOrder = marks.slice(start).filter((mark, at) => isLetter(mark, at));
  const from = inOrder[0]?.index ?? 0;
  const options = inOrder.map((mark, at) =>
    text.slice(mark.index, inOrder[at + 1]?.index ?? text.length).trim(),
  );
  return { before: text.slice(0, from).trim(), options };
}

const isLetter = (mark: RegExpExecArray | RegExpMatchArray | undefined, at: number) =>
  mark?.[2]?.toLowerCase() === 'abcdefgh'.charAt(at);

const answer =
  /^(?:the\s+)?(?:correct|right|accepted|possible|model|sample)?\s*(?:answers?|ans|key|solution|correct)\s*(?:is|are)?\s*[:=–-]\s*(.*)$/i;
const answerByA = /^A\s*[:=]\s*(.+)$/;

/** What stands behind "Answer:"; null where it does not. @param afterQ the question was begun with "Q:" */
export function answerOf(text: string, afterQ: boolean): { text: string; model: boolean } | null {
  const line = text.trim();
  const found = answer.exec(line) ?? (afterQ ? answerByA.exec(line) : null);
  return found ? { text: (found[1] ?? '').trim(), model: /^(model|sample)/i.test(line) } : null;
}

/** The heading of a key at the end. */
export const isKeyHeading = (text: string): boolean =>
  /^(?:#+\s*)?(?:the\s+)?(?:answer\s*key|answers?(?:\s+key)?|key|solutions?|correct\s+answers?)\s*[:.]?\s*$/i.test(
    text.trim(),
  );

/** What stands behind the heading of a key in the same line: "Answers: 1 B, 2 C". */
export const keyInLine = (text: string): string | null =>
  /^(?:the\s+)?(?:answer\s*key|answers?(?:\s+key)?|key|solutions?|correct\s+answers?)\s*[:–-]\s*(.*)$/i.exec(
    text.trim(),
  )?.[1] ?? null;

const said = /^(feedback|explanation|explain|comment|rationale|because|hint|note)\s*[:–-]\s*(.+)$/i;

export type SaidOf = 'comment' | 'hint' | 'note';

export function remarkOf(text: string): { of: SaidOf; text: string } | null {
  const [, word = '', rest = ''] = said.exec(text.trim()) ?? [];
  if (!word) return null;
  const is = word.toLowerCase();
  return { of: is === 'hint' || is === 'note' ? is : 'comment', text: rest.trim() };
}

const heading = /^(?:#{1,4}\s+(.+)|((?:part|section|chapter)\s+(?:[A-Z]|\d{1,2}|[IVX]{1,4})\b.*))$/i;

/** The title of a part. */
export function headingOf(text: string): string | null {
  const [, marked, worded] = heading.exec(text.trim()) ?? [];
  return (marked ?? worded ?? null)?.trim() ?? null;
}

const inBrackets = /\s*[[(]\s*(\d{1,3}(?:[.,]\d{1,2})?)\s*(?:points?|pts?\.?|p\.?|marks?)\s*[\])]/i;
const behindDash = /\s+[–-]\s*(\d{1,3}(?:[.,]\d{1,2})?)\s*(?:points?|pts?\.?|marks?)\s*$/i;
const barePoints = /^[[(]?\s*(\d{1,3}(?:[.,]\d{1,2})?)\s*(?:points?|pts?\.?|marks?)\s*[\])]?$/i;
const slashed = /\s*[[(]\s*\/\s*(\d{1,3})\s*[\])]\s*$/;
const each =
  /(\d{1,3}(?:[.,]\d{1,2})?)\s*(?:points?|pts?\.?|marks?)\s*each|each\s*(\d{1,3}(?:[.,]\d{1,2})?)\s*(?:points?|pts?\.?|marks?)/i;

const figure = (text: string | undefined) => Number((text ?? '').replace(',', '.'));

/** The points that stand in a line, and the line without them. */
export function pointsIn(text: string): { points: number | null; text: string } {
  for (const sign of [inBrackets, behindDash, barePoints, slashed]) {
    const found = sign.exec(text);
    if (found) return { points: figure(found[1]), text: text.replace(sign, '').trim() };
  }
  return { points: null, text };
}

/** "2 points each" */
export function pointsEach(text: string): number | null {
  const found = each.exec(text);
  return found ? figure(found[1] ?? found[2]) : null;
}

/** A blank to be filled in: ____ or ….. */
export const blank = /_{2,}|\.{4,}|…{2,}/g;

const trueFalseBefore = /^\s*(?:true\s*(?:or|\/)\s*false|t\s*\/\s*f)\s*[:.)?–-]*\s+(?=\S)/i;
const trueFalseBehind = /\s*[[(]?\s*(?:true\s*(?:or|\/)\s*false|t\s*\/\s*f)\s*\??\s*[\])]?\s*$/i;
const decided = /\s*[[(]\s*(true|false|t|f)\s*[\])]\s*$/i;

/** Whether a text asks whether it is true, without the words for it; `key` where it says so itself. */
export function trueFalseIn(text: string): { text: string; key: boolean | null } | null {
  const settled = decided.exec(text);
  if (settled) return { text: text.replace(decided, ''), key: /^t/i.test(settled[1] ?? '') };
  const cut = text.replace(trueFalseBefore, '').replace(trueFalseBehind, '');
  return cut !== text && cut.trim() ? { text: cut.trim(), key: null } : null;
}

/** True or false as an answer; null where it is neither. */
export function truthOf(text: string): boolean | null {
  const word = text
    .trim()
    .toLowerCase()
    .replace(/[.!*]+$/, '');
  if (['true', 't', 'right', 'correct', 'yes'].includes(word)) return true;
  return ['false', 'f', 'wrong', 'incorrect', 'no'].includes(word) ? false : null;
}
