import type { ScriptPacket } from '../handback/script';
import type { Asset } from '../basics/asset';
import type { PaperContent, PaperVersion } from '../model/paper';
import type { Group, Student } from '../model/people';
import type { Allowance, Attempt, ExceptionRequest, Sitting } from '../model/sitting';
import type { Invites, ReleaseStage } from '../model/release';
import type { GradeScale } from '../model/gradeScale';
import type { HandMark } from '../model/mark';
import type { Repair } from '../model/repair';

/** A student's result as the exchange finds it. */
export interface KeptRelease {
  sittingId: string;
  studentId: string;
  stages: readonly ReleaseStage[];
  releasedAt: string;
  /** The script, where it was made elsewhere and only lies here to be fetched: with all that any stage shows. */
  packet?: ScriptPacket | undefined;
  /** Questions of which nothing is told yet. */
  unfinished?: readonly string[] | undefined;
  invites?: Invites | undefined;
}

/** Where the exchange looks things up: the desk's own database in the same browser, or the mailbox of the classroom server. */
export interface ExchangeReads {
  /** @param joinCode in capitals, without spaces */
  studentWith(joinCode: string): Promise<Student | undefined>;
  groups(ids: readonly string[]): Promise<Group[]>;
  sitting(id: string): Promise<Sitting | undefined>;
  /** The sittings of any of these groups. */
  sittingsOf(groupIds: readonly string[]): Promise<Sitting[]>;
  /** The sittings that take guests. */
  guestSittings(): Promise<Sitting[]>;
  guestsOf(sittingId: string): Promise<number>;
  /** The attempts of a student: in one sitting, or in all. */
  attemptsOf(studentId: string, sittingId?: string): Promise<Attempt[]>;
  allowancesOf(studentId: string, sittingId: string): Promise<Allowance[]>;
  requestsOf(studentId: string, sittingId: string): Promise<ExceptionRequest[]>;
  releaseOf(studentId: string, sittingId: string): Promise<KeptRelease | undefined>;
  marksOf(attemptIds: readonly string[]): Promise<HandMark[]>;
  /** What was repaired in a sitting; nothing where results are not scored. */
  repairsOf(sittingId: string): Promise<Repair[]>;
  /** The grade lines of a sitting; null where results are not graded here, or it has none. */
  gradesOf(sittingId: string): Promise<GradeScale | null>;
  /** The totals of those whose results of a sitting are whole, guests apart; none where they are not all known here. */
  classTotals(sitting: Sitting, now: number): Promise<readonly number[]>;
  /** The paper a sitting is scored with, or would be if someone began now. */
  paperOf(sitting: Sitting): Promise<PaperContent | undefined>;
  paperVersion(paperId: string, version: number): Promise<PaperVersion | undefined>;
  file(id: string): Promise<Asset | undefined>;
}

/** Where it keeps them as well. The exchange decides; a place only finds and keeps. */
export interface ExchangeRepository extends ExchangeReads {
  newId(): string;
  /** A student is there: held in memory alone, and told to who watches. */
  seen(attempt: Pick<Attempt, 'id' | 'sittingId'>, now: number): void;
  /**
   * Runs `work` with nobody else changing anything of this student meanwhile. What it keeps is kept together when it
   * is done, or not at all.
   *
   * @param keeps what may be kept by it: everything else goes on undisturbed
   */
  within<W>(studentId: string, keeps: Keeps, work: (keep: ExchangeKeep) => Promise<W>): Promise<W>;
}

/** What may be kept at once: an attempt, with a file of it, whatever a start needs… */
export type Keeps = 'attempt' | 'file' | 'opening' | 'request' | 'guest' | 'any';

/** What can be kept while nobody else changes anything of the student. */
export interface ExchangeKeep {
  attempt(attempt: Attempt): Promise<void>;
  /** A guest, with a join code that nobody has. */
  guest(guest: Omit<Student, 'joinCode'>): Promise<Student>;
  request(request: ExceptionRequest): Promise<void>;
  /** That the student looked at what was let out. */
  opened(release: KeptRelease, at: string): Promise<void>;
  file(file: Asset): Promise<void>;
  /** Fixes the paper of a sitting as it stands; null when it cannot be sat so. @param lasting false for a try-out */
  freeze(sitting: Sitting, at: string, lasting: boolean): Promise<PaperVersion | null>;
}
