import type { RangeSet, Table } from 'dexie';
import { keyOfRow } from '@/core/model/desk';
import type { PaperContent } from '@/core/model/paper';
import type { Group } from '@/core/model/people';
import { SeatBook, seatTables, type SeatRowOf, type SeatsNow, type SeatTable } from '@/core/seats/seatBook';
import { sittingFrame, type SittingFrame } from '../queries';
import { desk } from '../tables';
import { ChangedRows, keysIn, onRowsChanged } from '../changes';
import { AttemptsInPieces, firstAttempts, usualPieces } from './attemptsInPieces';

/** Tables whose change may change what the seats hang on. */
const frameTables = [
  'sittings',
  'papers',
  'paperVersions',
  'groups',
  'students',
  'releasePlans',
  'repairs',
] as const;

/** A sitting as its views see it. */
export interface SittingNow extends SeatsNow {
  paper: PaperContent;
  groups: Group[];
  frame: SittingFrame;
  /** How many of how many attempts have been read; null once all have. */
  reading: { done: number; of: number } | null;
}

/** Those that name an attempt, or a student, and are few. */
const otherTables = seatTables.filter((table) => table !== 'attempts');
const allTables = [...frameTables, ...seatTables];
const tablesOf = (names: readonly string[]): Table[] => names.map((name) => desk.table(name));

/** More changed rows than this, and all of the sitting's are read again. */
const mostByKey = 400;

/**
 * One sitting held in memory for its views: its rows are read once, then only those whose keys changed, in whatever tab or
 * worker that was. Who looks gets the same objects where nothing changed.
 */
export class LiveSitting {
  private book: SeatBook | null = null;
  private frame: SittingFrame | null | undefined = undefined;
  private readonly listeners = new Set<() => void>();
  private readonly dirty = new ChangedRows();
  private frameDirty = false;
  /** Whether all of it has to be read again. */
  private anew = false;
  /** The attempts of a large sitting that are still on their way. */
  private pieces: AttemptsInPieces | null = null;
  private working: Promise<void> | null = null;
  private stopHearing: (() => void) | null = null;
  /** Counts what was read: a view that draws by it draws again only then. */
  private version = 0;

  constructor(
    readonly sittingId: string,
    private readonly sizes = usualPieces,
  ) {}

  /** Begins to hold the sitting, or goes on; the returned function says that this one no longer looks. */
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    if (!this.stopHearing) {
      this.stopHearing = onRowsChanged((table, keys) => this.heard(table, keys));
      // What was held before is of a time in which nothing was heard.
      this.anew = true;
      this.work();
    }
    return () => {
      this.listeners.delete(listener);
      if (this.listeners.size === 0) setTimeout(() => this.letGo(), letGoMs);
    };
  };

  /** Changes whenever there is something else to see. */
  getVersion = (): number => this.version;

  /**
   * @param soFar whether it is told while attempts are still read: those who have not been read yet have no attempt then
   * @returns undefined while it is read; null when there is no such sitting
   */
  at(now: number, soFar = false): SittingNow | null | undefined {
    if (!this.frame || !this.book) return this.frame === null ? null : undefined;
    if (this.pieces && !(soFar && this.pieces.done > 0)) return undefined;
    const seats = this.book.at(now);
    const reading = this.pieces && { done: this.pieces.done, of: this.pieces.of };
    const { frame } = this;
    if (
      this.latest?.seats !== seats.seats ||
      this.latest.frame !== frame ||
      this.latest.reading?.done !== reading?.done
    )
      this.latest = { ...seats, paper: frame.paper, groups: frame.groups, frame, reading };
    return this.latest;
  }
  private latest: SittingNow | null = null;

  /** Every row of a table: the same list until one of them changes. */
  rows<T extends SeatTable>(table: T): SeatRowOf[T][] {
    const known = this.lists.get(table) as SeatRowOf[T][] | undefined; // put there below
    if (known) return known;
    const rows = this.book?.rows(table) ?? [];
    this.lists.set(table, rows);
    return rows;
  }
  private readonly lists = new Map<SeatTable, unknown[]>();

  private letGo(): void {
    if (this.listeners.size > 0 || !this.stopHearing) return;
    this.stopHearing();
    this.stopHearing = null;
    this.book = null;
    this.frame = undefined;
    this.latest = null;
    this.pieces = null;
    this.dirty.take();
    if (held.get(this.sittingId) === this) held.delete(this.sittingId);
  }

  private heard(table: string, keys: RangeSet): void {
    if (isSeatTable(table)) this.dirty.add(table, keys);
    else if ((frameTables as readonly string[]).includes(table)) this.frameDirty = true;
    else return;
    this.work();
  }

  private work(): void {
    this.working ??= this.read().then(
      () => this.rested(0),
      () => {
        // What is shown stays; it is read anew once that can be done.
        this.anew = true;
        this.rested(againMs);
      },
    );
  }

  /** @param pauseMs before what is left is gone on with */
  private rested(pauseMs: number): void {
    this.working = null;
    if (!this.stopHearing || !(this.anew || this.frameDirty || this.pieces || this.dirty.size > 0)) return;
    if (pauseMs === 0) this.work();
    else setTimeout(() => this.stopHearing && this.work(), pauseMs);
  }

  /** Reads what changed, or the next piece. Nothing of it is to be seen before all of it has been read. */
  private async read(): Promise<void> {
    const { book, pieces } = this;
    const put = await (this.anew || !book
      ? this.readWhole()
      : pieces
        ? this.readPiece(book, pieces)
        : this.readChanged(book));
    put();
    this.version++;
    for (const listener of this.listeners) listener();
  }

  private async readChanged(book: SeatBook): Promise<() => void> {
    return desk.transaction('r', tablesOf(allTables), async () => {
      // Only tables of seats are gathered.
      const changed = [...this.dirty.take()] as [SeatTable, RangeSet][];
      const steps = await this.stepsOf(book, changed);
      const strangers = await this.strangers(new Map(changed).get('attempts'));
      if (this.frameDirty || strangers) steps.unshift(await this.readFrame(book));
      return () => steps.forEach((step) => step());
    });
  }

  /** Reads the rows that changed. @returns puts them into the book */
  private async stepsOf(book: SeatBook, changed: readonly [SeatTable, RangeSet][]): Promise<(() => void)[]> {
    const steps: (() => void)[] = [];
    for (const [table, ranges] of changed) {
      steps.push(await readRows(book, this.sittingId, table, ranges));
      steps.push(() => this.lists.delete(table));
    }
    return steps;
  }

  /** Attempts come in pieces, and with each what was done meanwhile; what changed in attempts themselves is read after them. */
  private async readPiece(book: SeatBook, pieces: AttemptsInPieces): Promise<() => void> {
    const attempts = await pieces.take();
    const steps = await desk.transaction('r', tablesOf(otherTables), () =>
      this.stepsOf(book, [...this.dirty.take('attempts')] as [SeatTable, RangeSet][]),
    );
    const seated = new Set(this.frame?.students.map(({ id }) => id));
    return () => {
      for (const step of steps) step();
      for (const attempt of attempts) book.set('attempts', attempt);
      this.lists.delete('attempts');
      if (attempts.some(({ studentId }) => !seated.has(studentId))) this.frameDirty = true;
      // Nobody may look any more.
      if (this.pieces === pieces && !pieces.left) this.pieces = null;
    };
  }

  private async readWhole(): Promise<() => void> {
    this.anew = false;
    this.frameDirty = false;
    this.dirty.take();
    return desk.transaction('r', tablesOf(allTables), async () => {
      const { sittingId } = this;
      const count = await desk.attempts.where({ sittingId }).count();
      const later = count > this.sizes.most;
      const attempts = await (later ? firstAttempts(sittingId, this.sizes) : rowsOf(sittingId, 'attempts'));
      const [frame, ...others] = await Promise.all([
        sittingFrame(sittingId, new Set(attempts.map(({ studentId }) => studentId))),
        ...otherTables.map((table) => rowsOf(sittingId, table)),
      ]);
      const book = frame && new SeatBook(frame);
      for (const attempt of attempts) book?.set('attempts', attempt);
      otherTables.forEach((table, index) => others[index]?.forEach((row) => book?.set(table, row)));
      return () => {
        this.frame = frame;
        this.book = book;
        this.pieces =
          later && frame
            ? new AttemptsInPieces({ sittingId, of: count }, attempts, frame.students, this.sizes)
            : null;
        this.lists.clear();
      };
    });
  }

  private async readFrame(book: SeatBook): Promise<() => void> {
    this.frameDirty = false;
    const read = await sittingFrame(this.sittingId);
    const frame = read && kept(this.frame, read);
    return () => {
      this.frame = frame;
      if (frame) book.reframe(frame);
      else this.book = null;
    };
  }

  /** Whether attempts came of somebody who has no seat; so many that it would be asked of each: it may be. */
  private async strangers(attempts: RangeSet | undefined): Promise<boolean> {
    if (!attempts) return false;
    const keys = keysIn(attempts, mostByKey);
    if (!keys) return true;
    const seated = new Set(this.frame?.students.map(({ id }) => id));
    const rows = await desk.attempts.bulkGet(keys.map(String));
    return rows.some((row) => row?.sittingId === this.sittingId && !seated.has(row.studentId));
  }
}

/** Reads the rows of these keys. @returns puts them into the book */
async function readRows(
  book: SeatBook,
  sittingId: string,
  table: SeatTable,
  ranges: RangeSet,
): Promise<() => void> {
  const keys = keysIn(ranges, mostByKey);
  if (!keys) return readAll(book, sittingId, table);
  const rows = await desk.table(table).bulkGet(keys);
  return () => {
    for (const [place, row] of rows.entries()) {
      const key = keys[place];
      if (row === undefined) book.remove(table, Array.isArray(key) ? key : [key]);
      else if (row.sittingId === sittingId) book.set(table, row);
    }
  };
}

const rowsOf = <T extends SeatTable>(sittingId: string, table: T): Promise<SeatRowOf[T][]> =>
  (desk.table(table) as Table<SeatRowOf[T]>).where('sittingId').equals(sittingId).toArray();

/** Reads all of a sitting's rows. @returns puts them into the book, in place of those that are there */
async function readAll(book: SeatBook, sittingId: string, table: SeatTable): Promise<() => void> {
  const rows = await rowsOf(sittingId, table);
  return () => {
    for (const row of book.rows(table)) book.remove(table, keyOfRow(table, row));
    for (const row of rows) book.set(table, row);
  };
}

/** After a read that failed, it is tried again after so long. */
const againMs = 1_000;

/** Rows that are no longer looked at are held so long: from one stage to the next they are there at once. */
const letGoMs = 5_000;

const isSeatTable = (table: string): table is SeatTable => (seatTables as readonly string[]).includes(table);

const held = new Map<string, LiveSitting>();

/** The one holder of a sitting in this tab. */
export function liveSitting(sittingId: string): LiveSitting {
  const known = held.get(sittingId);
  if (known) return known;
  const made = new LiveSitting(sittingId);
  held.set(sittingId, made);
  return made;
}

/** The frame as it was read, with the objects of before wherever they say the same. */
function kept(before: SittingFrame | null | undefined, next: SittingFrame): SittingFrame {
  if (!before) return next;
  const known = new Map(before.students.map((student) => [student.id, student]));
  return {
    sitting: same(before.sitting, next.sitting),
    paper: same(before.paper, next.paper),
    questions: sameEach(before.questions, next.questions),
    repairs: same(before.repairs, next.repairs),
    groups: same(before.groups, next.groups),
    plan: same(before.plan, next.plan),
    pending: next.pending,
    students: next.students.map((student) => same(known.get(student.id), student)),
  };
}

/** A list with the objects of before wherever they say the same; itself where all do. */
function sameEach<T extends { id: string }>(before: T[], next: T[]): T[] {
  const known = new Map(before.map((each) => [each.id, each]));
  const list = next.map((each) => same(known.get(each.id), each));
  return list.length === before.length && list.every((each, index) => each === before[index]) ? before : list;
}

const same = <T>(before: T | undefined, next: T): T =>
  before !== undefined && JSON.stringify(before) === JSON.stringify(next) ? before : next;
