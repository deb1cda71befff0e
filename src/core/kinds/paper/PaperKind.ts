import type { RichText } from '../../basics/richText';

/** A row of boxes to tick: options one below another, or places beside an item. */
export interface TickRow {
  /** Stable within the question. */
  id: string;
  /** What the row is about; '' where the question says it. */
  label: RichText;
  boxes: { id: string; label: RichText }[];
  /** Options with their words each on a line of its own, or boxes side by side under short labels. */
  as: 'list' | 'line';
}

/** A place to write or draw in. */
export interface WriteArea {
  id: string;
  /** '' where there is one alone. */
  label: string;
  /** How many lines of writing it has room for. */
  lines: number;
  /** Left empty, without lines: to draw in. */
  drawn?: true;
}

/** What was ticked: by row, the ids of its boxes. */
export type Ticks = Readonly<Record<string, readonly string[]>>;

/**
 * How a question of one kind stands on paper. It is asked for the question as students get it: what is printed holds no key.
 */
export interface PaperKind<S, R> {
  /** What there is to tick; none where all of it is written. */
  rows(question: S): TickRow[];
  /** Where there is to write; such an answer is a picture until somebody types or marks it. */
  areas(question: S): WriteArea[];
  /** What is printed above the rows, beside the question itself: a text with gaps, letters and what they stand for. */
  above?(question: S): string[];
  /** The answer that ticks are, blank where there are none; null where they can be no answer: two where one is asked for. */
  fromTicks(question: S, ticks: Ticks): R | null;
}

/** A kind that is written alone. */
export const writtenAlone = <S, R>(areas: (question: S) => WriteArea[], blank: R): PaperKind<S, R> => ({
  rows: () => [],
  areas,
  fromTicks: () => blank,
});
