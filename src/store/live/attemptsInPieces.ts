import Dexie from 'dexie';
import type { Attempt } from '@/core/model/sitting';
import { desk } from '../tables';

/** How many attempts are read at once. */
export interface PieceSizes {
  /** More than this are read in pieces: what there is can be looked at meanwhile. */
  most: number;
  first: number;
  later: number;
}
/** The first piece is there soon. */
export const usualPieces: PieceSizes = { most: 2_000, first: 400, later: 1_600 };

/** The attempts of the first students of a sitting that has many: of each all, or none. */
export async function firstAttempts(sittingId: string, { first }: PieceSizes): Promise<Attempt[]> {
  const rows = await desk.attempts
    .where('[sittingId+studentId]')
    .between([sittingId, Dexie.minKey], [sittingId, Dexie.maxKey])
    .limit(first)
    .toArray();
  // Of the last one there may be more.
  const last = rows.at(-1)?.studentId;
  return rows.filter(({ studentId }) => studentId !== last);
}

/** From whose attempts, without theirs, to whose: null where there is no end. */
type Reach = [after: string | null, upTo: string | null];

/**
 * The attempts of a sitting that has many, read in pieces by student. While one piece is looked at, the next is on its way. What
 * changes meanwhile is not told by them.
 */
export class AttemptsInPieces {
  private readonly sittingId: string;
  /** How many there are. */
  readonly of: number;
  private readonly reaches: Reach[];
  private next: Promise<Attempt[]> | null = null;
  /** How many have been read. */
  done: number;

  /**
   * @param sitting which, and how many attempts there are in it
   * @param first those that have been read
   * @param students who was expected; attempts of others are read, too
   */
  constructor(
    sitting: { sittingId: string; of: number },
    first: readonly Attempt[],
    students: readonly { id: string }[],
    { later }: PieceSizes,
  ) {
    this.sittingId = sitting.sittingId;
    this.of = sitting.of;
    this.done = first.length;
    const begin = first.at(-1)?.studentId ?? null;
    // In the order of the index, which compares as JavaScript does.
    const left = students.map(({ id }) => id).filter((id) => begin === null || id > begin);
    const ends = left.sort().filter((_, at) => at % later === later - 1);
    this.reaches = [begin, ...ends].map((after, at) => [after, ends[at] ?? null]);
  }

  get left(): boolean {
    return this.next !== null || this.reaches.length > 0;
  }

  /** The next piece. Where it fails, what is left fails, too. */
  async take(): Promise<Attempt[]> {
    const rows = await (this.next ?? this.begin());
    this.next = this.reaches.length > 0 ? this.begin() : null;
    this.done += rows.length;
    return rows;
  }

  private begin(): Promise<Attempt[]> {
    const [after, upTo] = this.reaches.shift() ?? [null, null];
    const piece = desk.attempts
      .where('[sittingId+studentId]')
      .between(
        [this.sittingId, after ?? Dexie.minKey],
        [this.sittingId, upTo ?? Dexie.maxKey],
        after === null,
        true,
      )
      .toArray();
    // It is waited for later: until then a failure is nobody's.
    piece.catch(() => undefined);
    return piece;
  }
}
