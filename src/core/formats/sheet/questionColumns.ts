import { bodyOf, headingOf } from '../csv/heading';
import type { TableRow } from '../csv/table';

export const questionColumns = [
  'stem',
  'option',
  'key',
  'scheme',
  'points',
  'commentRight',
  'commentWrong',
  'tags',
  'kind',
  'nothing',
] as const;
export type QuestionColumn = (typeof questionColumns)[number];

/** What a table of questions seems to hold; several columns may be options, all others are there once. */
export interface QuestionColumnGuess {
  /** Which row names the columns, from 0; those above it are left out. Null where none does. */
  heading: number | null;
  /** One a column. */
  meanings: QuestionColumn[];
}

const headerWords: [QuestionColumn, RegExp][] = [
  ['commentRight', /comment.*\bright|feedback.*correct/],
  ['commentWrong', /comment|feedback|explanation|rationale/],
  ['scheme', /scheme|rubric|criteria/],
  ['option', /^(option|choice|answer|distractor)s?( ?[a-z0-9])?$|^[a-h]$/],
  ['key', /\b(key|correct|right|solution)\b/],
  ['points', /\b(points?|marks?|score|credit)\b/],
  ['tags', /\b(tags?|topics?|subject|category)\b/],
  ['kind', /\b(kind|type)\b/],
  ['stem', /\b(question|stem|text|item|prompt)\b/],
];

const isLetter = (cell: string) => /^[A-H](\s*[,;]\s*[A-H])*$/i.test(cell);
const isSmallNumber = (cell: string) => /^\d{1,2}([.,]\d{1,2})?$/.test(cell);

/** Guesses from the heading where there is one, else from what the cells look like. The teacher can change it. */
export function guessQuestionColumns(rows: readonly TableRow[]): QuestionColumnGuess {
  const heading = headingOf(rows, (cells) => {
    const named = cells.map(meaningOfHeader).filter((meaning) => meaning !== 'nothing');
    return named.includes('stem') && named.some((meaning) => meaning !== 'stem') ? named.length : 0;
  });
  return questionColumnsUnder(rows, heading);
}

/** The columns where this row names them. */
export function questionColumnsUnder(rows: readonly TableRow[], heading: number | null): QuestionColumnGuess {
  const width = Math.max(0, ...rows.map((row) => row.cells.length));
  const cells = heading === null ? [] : (rows[heading]?.cells ?? []);
  const named = Array.from({ length: width }, (_, column) => meaningOfHeader(cells[column] ?? ''));
  // Names that say nothing to us leave the cells to guess from.
  const known = named.some((meaning) => meaning !== 'nothing');
  return { heading, meanings: onceEach(known ? named : meaningsOfCells(bodyOf(rows, heading), width)) };
}

function meaningOfHeader(cell: string): QuestionColumn {
  const plain = cell.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/[_.]/g, ' ').trim();
  return headerWords.find(([, pattern]) => pattern.test(plain))?.[0] ?? 'nothing';
}

/** Without a header: the first column asks, letters are keys, small numbers points, and the rest are options. */
function meaningsOfCells(rows: readonly TableRow[], width: number): QuestionColumn[] {
  const most = (column: number, test: (cell: string) => boolean) => {
    const cells = rows.map((row) => row.cells[column] ?? '').filter(Boolean);
    return cells.length > 0 && cells.filter(test).length > cells.length / 2;
  };
  const meanings = Array.from({ length: width }, (_, column): QuestionColumn => {
    if (column === 0) return 'stem';
    if (most(column, isLetter)) return 'key';
    return column === width - 1 && most(column, isSmallNumber) ? 'points' : 'option';
  });
  // A column alone beside the question is its key: accepted answers, or a model answer.
  const options = meanings.filter((meaning) => meaning === 'option').length;
  return options === 1 && !meanings.includes('key')
    ? meanings.map((meaning) => (meaning === 'option' ? 'key' : meaning))
    : meanings;
}

/** Every meaning but `option` and `nothing` at most once: the first column that claims it has it. */
function onceEach(meanings: QuestionColumn[]): QuestionColumn[] {
  return meanings.map((meaning, column) =>
    meaning === 'option' || meaning === 'nothing' || meanings.indexOf(meaning) === column
      ? meaning
      : 'nothing',
  );
}
