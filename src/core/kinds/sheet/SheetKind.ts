import type { Question } from '..';
import { percentFrom } from '../../basics/percent';

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
