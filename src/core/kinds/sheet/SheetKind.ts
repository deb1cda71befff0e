import { once } from 'remeda';
import type { Question } from '..';
import { percentFrom } from '../../basics/percent';
import { forgiveAll, forgiven } from '../forgiving';

/** Why a row is no question. */
export type BadReason =
  | 'noStem'
  | 'keyMatchesNothing'
  | 'badPoints'
  | 'badNumber'
  | 'badScheme'
  | 'unknownKind'
  | 'tooManyOptions'
  | 'noPartner'
  | 'noGaps'
  | 'tooLong'
  | 'tooMany';

/** Thrown within a row, and caught for it; `cell` is what could not be used. */
export class Unreadable extends Error {
  constructor(
    readonly reason: BadReason,
    readonly cell: string,
  ) {
    super(reason);
  }
}

/** What of a row is particular to a kind. */
export interface RowCells {
  options: readonly string[];
  key: string;
}

/** What stands in a column of answers, blanks left out. */
export interface AnswersOfColumn {
  texts: readonly string[];
  /** Each different one, as it was first written, in the natural order of its words. */
  different: readonly string[];
}

/** How one kind of question stands in a row of a sheet. */
export interface SheetKind<Q extends Question> {
  /** A row that names no kind is held against those with a lower turn first. */
  turn: number;
  /** Whether a row that names no kind is one of this, where it was none of those before. */
  suits: (cells: RowCells) => boolean;
  /** The question of a row, made from an empty one. Throws `Unreadable`. */
  read: (empty: Q, cells: RowCells, newId: () => string) => Q;
  /** Its cells, from which `read` makes it again; what they cannot hold is found by doing so. */
  cells: (question: Q) => RowCells;
  /** How a question of it is made from answers that came before it; absent: only by hand. */
  fromAnswers?: {
    /** A column is held against those with a lower turn first. */
    turn: number;
    /** Whether a column looks like answers to one. */
    suits: (answers: AnswersOfColumn) => boolean;
    /** With what there is to choose from; whoever answers writes it so. */
    read: (empty: Q, answers: AnswersOfColumn, newId: () => string) => Q;
  };
}

/** Few enough, each often enough, to be options rather than words of one's own. */
export const repeats = ({ texts, different }: AnswersOfColumn, most = 12): boolean =>
  different.length > 1 && different.length <= most && texts.length >= 2 * different.length;

const natural = once(() => new Intl.Collator('en', { numeric: true }));

/** @param cells of one column, as they were typed */
export function answersOfColumn(cells: readonly string[]): AnswersOfColumn {
  const texts = cells.map((cell) => cell.trim()).filter(Boolean);
  const byText = new Map<string, string>();
  for (const text of texts) {
    const key = forgiven(text, forgiveAll);
    if (!byText.has(key)) byText.set(key, text);
  }
  return { texts, different: [...byText.values()].sort((a, b) => natural().compare(a, b)) };
}

/** "west (12.5 %)" is "west" for an eighth of the points. */
export function withoutShare(text: string): [string, number] {
  const found = /^(.*\S)\s*\((\d{1,3}(?:[.,]\d{1,6})?)\s?%\)$/.exec(text);
  const share = found ? Number(found[2]?.replace(',', '.')) / 100 : 1;
  return found && share <= 1 ? [found[1] ?? '', share] : [text, 1];
}

/** As `withoutShare` reads it. */
export const withShare = (text: string, share: number) =>
  share === 1 ? text : `${text} (${percentFrom(share)} %)`;

/** The parts of a key that is several. */
export const keyParts = (key: string) =>
  key
    .split(/;|\|/)
    .map((text) => text.trim())
    .filter(Boolean);
