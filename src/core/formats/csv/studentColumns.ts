import { bodyOf, headingOf } from './heading';
import type { TableRow } from './table';

export const columnMeanings = [
  'familyName',
  'givenName',
  'fullName',
  'number',
  'email',
  'group',
  'own',
  'nothing',
] as const;
export type ColumnMeaning = (typeof columnMeanings)[number];

/** What a table of students seems to hold. */
export interface ColumnGuess {
  /** Which row names the columns, from 0; those above it are left out. Null where none does. */
  heading: number | null;
  /** One a column. */
  meanings: ColumnMeaning[];
  /** What each column is called: in the first row, else by its place. An own field has this name. */
  names: string[];
}

const headerWords: [ColumnMeaning, RegExp][] = [
  ['email', /e-?mail|courriel|correo/],
  ['number', /\b(no|nr|number|numero|nummer|id|code|matri[ck]\w*)\b|student ?(id|no|number)/],
  ['group', /^(group|class|course|section|set|form|gruppe|klasse|kurs|classe|groupe|grupo|curso)s?$/],
  ['familyName', /family|surname|last ?name|nachname|apellido|^nom( de famille)?$/],
  ['givenName', /given|first ?name|fore ?name|vorname|prenom|nombre/],
  ['fullName', /^(full ?|student ?)?name$|^(student|pupil|learner)s?$/],
];

export const looksLikeEmail = (cell: string) => /^[^\s@]+@[^\s@]+$/.test(cell);
const looksLikeNumber = (cell: string) => /^[A-Za-z]{0,4}[-/ ]?\d[\dA-Za-z/-]*$/.test(cell);

/** Guesses from the heading where there is one, else from what the cells look like. The teacher can change it. */
export function guessColumns(rows: readonly TableRow[]): ColumnGuess {
  const heading = headingOf(rows, (cells) => {
    const known = cells.filter((cell) => meaningOfHeader(cell) !== 'nothing').length;
    return cells.some(looksLikeEmail) ? 0 : known;
  });
  return columnsUnder(rows, heading);
}

/** The columns where this row names them. */
export function columnsUnder(rows: readonly TableRow[], heading: number | null): ColumnGuess {
  const width = Math.max(0, ...rows.map((row) => row.cells.length));
  const names = Array.from({ length: width }, (_, column) => `Column ${column + 1}`);
  const cells = heading === null ? [] : (rows[heading]?.cells ?? []);
  const named = Array.from({ length: width }, (_, column) => meaningOfHeader(cells[column] ?? ''));
  // Names that say nothing to us leave the cells to guess from.
  if (named.every((meaning) => meaning === 'nothing'))
    return { heading, meanings: meaningsOfCells(bodyOf(rows, heading), width), names };
  // What the heading names and we have no word for is a field of the teacher's own.
  const meanings = onceEach(named).map((meaning, column) =>
    meaning === 'nothing' && (cells[column] ?? '') !== '' ? 'own' : meaning,
  );
  return { heading, meanings, names: names.map((name, column) => cells[column] || name) };
}

/** What a column of people with this name holds. */
export function meaningOfHeader(cell: string): ColumnMeaning {
  const plain = cell.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/[_.]/g, ' ').trim();
  return headerWords.find(([, pattern]) => pattern.test(plain))?.[0] ?? 'nothing';
}

function meaningsOfCells(rows: readonly TableRow[], width: number): ColumnMeaning[] {
  const most = (column: number, test: (cell: string) => boolean) => {
    const cells = rows.map((row) => row.cells[column] ?? '').filter(Boolean);
    return cells.length > 0 && cells.filter(test).length > cells.length / 2;
  };
  const meanings = Array.from({ length: width }, (_, column): ColumnMeaning => {
    if (most(column, looksLikeEmail)) return 'email';
    if (most(column, looksLikeNumber)) return 'number';
    return 'nothing';
  });
  const names = meanings.flatMap((meaning, column) => (meaning === 'nothing' ? [column] : []));
  const [one, two] = names;
  if (one !== undefined && two !== undefined && !most(one, (cell) => cell.includes(','))) {
    meanings[one] = 'familyName';
    meanings[two] = 'givenName';
  } else if (one !== undefined) meanings[one] = 'fullName';
  return onceEach(meanings);
}

/** Every meaning at most once: the first column that claims it has it. */
function onceEach(meanings: ColumnMeaning[]): ColumnMeaning[] {
  return meanings.map((meaning, column) => (meanings.indexOf(meaning) === column ? meaning : 'nothing'));
}
