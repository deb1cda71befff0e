import type { TableRow } from './table';

export const columnMeanings = [
  'familyName',
  'givenName',
  'fullName',
  'number',
  'email',
  'own',
  'nothing',
] as const;
export type ColumnMeaning = (typeof columnMeanings)[number];

/** What a table of students seems to hold. */
export interface ColumnGuess {
  /** True when the first row names the columns. */
  hasHeader: boolean;
  /** One a column. */
  meanings: ColumnMeaning[];
  /** What each column is called: in the first row, else by its place. An own field has this name. */
  names: string[];
}

const headerWords: [ColumnMeaning, RegExp][] = [
  ['email', /e-?mail|courriel|correo/],
  ['number', /\b(no|nr|number|numero|nummer|id|code|matri[ck]\w*)\b|student ?(id|no|number)/],
  ['familyName', /family|surname|last ?name|nachname|apellido|^nom( de famille)?$/],
  ['givenName', /given|first ?name|fore ?name|vorname|prenom|nombre/],
  ['fullName', /^(full ?|student ?)?name$|^(student|pupil|learner)s?$/],
];

const looksLikeEmail = (cell: string) => /^[^\s@]+@[^\s@]+$/.test(cell);
const looksLikeNumber = (cell: string) => /^[A-Za-z]{0,4}[-/ ]?\d[\dA-Za-z/-]*$/.test(cell);

/** Guesses from the header where there is one, else from what the cells look like. The teacher can change it. */
export function guessColumns(rows: readonly TableRow[]): ColumnGuess {
  const width = Math.max(0, ...rows.map((row) => row.cells.length));
  const first = rows[0]?.cells ?? [];
  const named = Array.from({ length: width }, (_, column) => meaningOfHeader(first[column] ?? ''));
  const names = Array.from({ length: width }, (_, column) => `Column ${column + 1}`);
  const hasHeader = named.some((meaning) => meaning !== 'nothing') && !first.some(looksLikeEmail);
  if (!hasHeader) return { hasHeader, meanings: meaningsOfCells(rows, width), names };
  // What the first row names and we have no word for is a field of the teacher's own.
  const meanings = onceEach(named).map((meaning, column) =>
    meaning === 'nothing' && (first[column] ?? '') !== '' ? 'own' : meaning,
  );
  return { hasHeader, meanings, names: names.map((name, column) => first[column] || name) };
}

function meaningOfHeader(cell: string): ColumnMeaning {
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
