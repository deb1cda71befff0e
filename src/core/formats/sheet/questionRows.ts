import { kindNamed, type KindName, type Question } from '../../kinds';
import { numberFrom } from '../../kinds/number/numberFrom';
import type { AcceptedNumber } from '../../kinds/number/schema';
import { plainText } from '../../model/richText';
import { optionLetter } from '../../kinds/options';
import type { AcceptedAnswer } from '../../kinds/shortText/schema';
import { pointsFrom } from '../../marking/typedPoints';
import type { TableRow } from '../csv/table';
import type { QuestionColumn } from './questionColumns';

/** A row that is no question, and why; `cell` is what could not be used. */
export interface BadQuestionRow {
  line: number;
  reason: 'noStem' | 'keyMatchesNothing' | 'badPoints' | 'badNumber' | 'unknownKind' | 'tooManyOptions';
  cell: string;
}

export interface QuestionRows {
  good: { line: number; question: Question }[];
  bad: BadQuestionRow[];
}

/** Thrown within a row, and caught for it. */
class Unreadable extends Error {
  constructor(
    readonly reason: BadQuestionRow['reason'],
    readonly cell: string,
  ) {
    super(reason);
  }
}

/**
 * Questions from the rows of a sheet. With options a row is one choice, or several choices where its key names
 * several; without, its key makes it true or false, a number, a short text, or without a key an open text. A column
 * of kinds, where there is one, decides instead.
 *
 * @param meanings one a column
 */
export function questionRows(
  rows: readonly TableRow[],
  meanings: readonly QuestionColumn[],
  newId: () => string,
): QuestionRows {
  const read: QuestionRows = { good: [], bad: [] };
  for (const row of rows) {
    try {
      read.good.push({ line: row.line, question: questionFrom(row, meanings, newId) });
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      read.bad.push({ line: row.line, reason: error.reason, cell: error.cell });
    }
  }
  return read;
}

function questionFrom(row: TableRow, meanings: readonly QuestionColumn[], newId: () => string): Question {
  const cells = (meaning: QuestionColumn) =>
    meanings.flatMap((each, column) => (each === meaning ? [unguarded(row.cells[column] ?? '')] : []));
  const cell = (meaning: QuestionColumn) => cells(meaning)[0] ?? '';
  const stem = cell('stem');
  if (!stem) throw new Unreadable('noStem', '');
  const options = cells('option').filter(Boolean);
  const key = cell('key');
  const kind = cell('kind') ? kindCalled(cell('kind')) : kindFor(options, key);
  const points = cell('points') ? pointsFrom(cell('points')) : kindNamed(kind).empty(newId).points;
  if (points === null || points < 0 || points > 1000) throw new Unreadable('badPoints', cell('points'));
  const common = {
    stem,
    points,
    tags: [
      ...new Set(
        cell('tags')
          .split(/[,;]/)
          .map((tag) => tag.trim())
          .filter(Boolean),
      ),
    ].slice(0, 50),
    commentRight: cell('commentRight'),
    commentWrong: cell('commentWrong'),
  };
  return { ...filled(kind, options, key, newId), ...common };
}

/** What this row seems to be, from its options and key alone. */
function kindFor(options: readonly string[], key: string): KindName {
  if (options.length > 0) return keyIndexes(options, key).length > 1 ? 'severalChoices' : 'oneChoice';
  if (key === '') return 'openText';
  if (truth(key) !== null) return 'trueFalse';
  return numberKey(key) ? 'number' : 'shortText';
}

function filled(kind: KindName, options: readonly string[], key: string, newId: () => string): Question {
  const empty = kindNamed(kind).empty(newId);
  switch (empty.kind) {
    case 'oneChoice':
    case 'severalChoices': {
      if (options.length > 50) throw new Unreadable('tooManyOptions', String(options.length));
      const made = options.map((text) => ({ id: newId(), text, comment: '' }));
      const right = keyIndexes(options, key).flatMap((index) => made[index]?.id ?? []);
      if (key && right.length === 0) throw new Unreadable('keyMatchesNothing', key);
      return empty.kind === 'oneChoice'
        ? { ...empty, options: made, key: right[0] ?? null }
        : { ...empty, options: made, key: right };
    }
    case 'trueFalse': {
      const answer = truth(key);
      if (key && answer === null) throw new Unreadable('keyMatchesNothing', key);
      return { ...empty, key: answer };
    }
    case 'number': {
      const tiers = key
        .split(/;|\|/)
        .map((text) => text.trim())
        .filter(Boolean);
      const read = tiers.map((text) => {
        const number = numberKey(text);
        if (!number) throw new Unreadable('badNumber', text);
        return number;
      });
      const unit = read.find((number) => number.unit)?.unit ?? '';
      return {
        ...empty,
        accepted:
          read.length > 0 ? read.map(({ accepted }) => ({ ...accepted, id: newId() })) : empty.accepted,
        ...(unit && { unitAsked: 'optional', units: [{ id: newId(), names: unit, factor: 1 }] }),
      };
    }
    case 'shortText': {
      const accepted = key
        .split(/;|\|/)
        .map((text) => text.trim())
        .filter(Boolean);
      return accepted.length > 0
        ? { ...empty, accepted: accepted.map((text) => acceptedFrom(text, newId)) }
        : empty;
    }
    case 'openText':
      return { ...empty, modelAnswer: key, scheme: [] };
    default:
      throw new Unreadable('unknownKind', kind);
  }
}

/** The places of the options a key names: by letter or number ("B", "A, C", "2"), or by their own words. */
function keyIndexes(options: readonly string[], key: string): number[] {
  const same = (text: string) =>
    options.findIndex((option) => option.trim().toLowerCase() === text.trim().toLowerCase());
  const whole = same(key);
  if (whole >= 0) return [whole];
  const named = key
    .split(/[,;|]/)
    .map((text) => text.trim())
    .filter(Boolean);
  const indexes = named.map((text) => {
    const own = same(text);
    if (own >= 0) return own;
    const letter = /^[a-z]$/i.test(text) ? text.toUpperCase().charCodeAt(0) - 65 : -1;
    const place = letter >= 0 ? letter : /^\d{1,2}$/.test(text) ? Number(text) - 1 : -1;
    return place < options.length ? place : -1;
  });
  return indexes.includes(-1) ? [] : [...new Set(indexes)].sort((a, b) => a - b);
}

function truth(text: string): boolean | null {
  if (/^(true|t|yes)$/i.test(text)) return true;
  return /^(false|f|no)$/i.test(text) ? false : null;
}

/** "15", "15 ± 0.5 nm", "240 ± 2 %", "6.9 to 7.1", with "(50 %)" for a share of the points. */
function numberKey(text: string): { accepted: AcceptedNumber; unit: string } | null {
  const [rest, share] = withoutShare(text);
  const accepted = (part: Partial<AcceptedNumber>): AcceptedNumber => ({
    id: '',
    form: 'exact',
    value: null,
    tolerance: 0,
    upTo: null,
    share,
    comment: '',
    ...part,
  });
  const [left = '', right, ...more] = rest.split(/\s*±\s*|\s*\+\/-\s*/);
  const from = numberFrom(left);
  if (more.length > 0) return null;
  if (right !== undefined) {
    const margin = numberFrom(right);
    if (!from || !margin) return null;
    const percent = margin.unit === '%';
    const form = percent ? 'percent' : 'plusMinus';
    const unit = percent ? from.unit : from.unit || margin.unit;
    return { accepted: accepted({ form, value: from.value, tolerance: Math.abs(margin.value) }), unit };
  }
  const ends = rest.split(/\s+to\s+|\s*…\s*|\s*\.\.\.?\s*/);
  const [low, high] = ends.map((end) => numberFrom(end));
  if (ends.length === 2)
    return low && high
      ? { accepted: accepted({ form: 'range', value: low.value, upTo: high.value }), unit: high.unit }
      : null;
  return from ? { accepted: accepted({ value: from.value }), unit: from.unit } : null;
}

function acceptedFrom(text: string, newId: () => string): AcceptedAnswer {
  const [words, share] = withoutShare(text);
  return { id: newId(), text: words, share, comment: '' };
}

/** "west (50 %)" is "west" for half the points. */
function withoutShare(text: string): [string, number] {
  const found = /^(.*\S)\s*\((\d{1,3})\s?%\)$/.exec(text);
  const share = found ? Number(found[2]) / 100 : 1;
  return found && share <= 1 ? [found[1] ?? '', share] : [text, 1];
}

/** The kinds that a sheet can hold, by what a teacher calls them. */
export const sheetKinds = [
  'oneChoice',
  'severalChoices',
  'trueFalse',
  'shortText',
  'number',
  'openText',
] as const satisfies KindName[];

function kindCalled(text: string): KindName {
  const plain = text.toLowerCase().replace(/[^a-z]/g, '');
  const kind = sheetKinds.find(
    (name) =>
      name.toLowerCase() === plain ||
      kindNamed(name)
        .label.toLowerCase()
        .replace(/[^a-z]/g, '') === plain,
  );
  if (!kind) throw new Unreadable('unknownKind', text);
  return kind;
}

/** A cell without the apostrophe that keeps a spreadsheet from taking it for a formula. */
function unguarded(cell: string): string {
  return cell.replace(/^'(?=[=+\-@\t\r])/, '');
}

/** What of a paper a sheet holds, and what it cannot. */
export interface QuestionTable {
  rows: (string | number | null)[][];
  /** Questions of kinds that no row can hold, or that lose something in one. */
  left: Question[];
}

/** Questions as the rows of a sheet, with a header, so that they can be read in again. */
export function questionTable(questions: readonly Question[]): QuestionTable {
  const held = questions.filter((question) => holdsInRow(question));
  const widest = Math.max(
    0,
    ...held.map((question) => ('options' in question ? question.options.length : 0)),
  );
  const letters = Array.from({ length: widest }, (_, index) => `Option ${optionLetter(index)}`);
  const header = ['Kind', 'Question', ...letters, 'Key', 'Points', 'Comment when right', 'Comment', 'Tags'];
  const rows = held.map((question) => {
    const options = 'options' in question ? question.options.map((option) => plainText(option.text)) : [];
    return [
      kindNamed(question.kind).label,
      typeof question.stem === 'string' ? question.stem : null,
      ...letters.map((_, index) => options[index] ?? null),
      keyCell(question),
      question.points,
      question.commentRight || null,
      question.commentWrong || null,
      question.tags.join(', ') || null,
    ];
  });
  return { rows: [header, ...rows], left: questions.filter((question) => !held.includes(question)) };
}

/** Whether a row can hold all that scores a question. Notes, per-option comments and links stay on the desk. */
function holdsInRow(question: Question): boolean {
  const kinds: readonly KindName[] = sheetKinds;
  if (!kinds.includes(question.kind) || typeof question.stem !== 'string' || question.working) return false;
  if ('options' in question && question.options.some((option) => typeof option.text !== 'string'))
    return false;
  if (question.kind === 'shortText')
    return question.accepted.every((each) => each.match !== 'containsAll' && !/[;|]/.test(each.text));
  if (question.kind === 'number') return question.figures === null && question.units.length < 2;
  return question.kind !== 'openText' || question.scheme.every((line) => !line.text.trim());
}

function keyCell(question: Question): string | null {
  if (question.kind === 'oneChoice' || question.kind === 'severalChoices') {
    const key = question.kind === 'oneChoice' ? [question.key] : question.key;
    const letters = question.options.flatMap((option, index) =>
      key.includes(option.id) ? optionLetter(index) : [],
    );
    return letters.join(', ') || null;
  }
  return kindNamed(question.kind).keyText(question) || null;
}
