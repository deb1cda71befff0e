import Dexie, { type EntityTable, type Table } from 'dexie';
import type { CarriedFile, Greeting } from '@/core/exchange/messages';
import type { ScriptPacket } from '@/core/handback/script';
import type { Release } from '@/core/model/release';
import type { PaperPacket } from '@/core/formats/packet/paper';
import type { PaperVersion } from '@/core/model/paper';
import type { Student } from '@/core/model/people';
import type { HeldAnswers } from '@/core/exchange/held';
import type { Allowance, Attempt, Sitting } from '@/core/model/sitting';

/** What the student's device holds of one attempt: the packet, the answers, and what has not been handed over. */
export interface HeldAttempt extends HeldAnswers {
  attemptId: string;
  sittingId: string;
  joinCode: string;
  packet: PaperPacket;
  /** The page that wrote it. */
  page?: string;
  /** Whose it is, to be greeted without a connection. */
  who?: Greeting;
  /** When its time is up, as the other side said last; null: never. And how far its clock was ahead of this device's, ms. */
  clock?: { deadline: number | null; aheadMs: number };
  comeBack: string[];
  /** The question that was in front of the student last. */
  leftAt?: string;
  /** Where there is no going back: what is done with. */
  passed?: string[];
}

/** A file put into an answer on this device. */
export interface HeldFile extends CarriedFile {
  attemptId: string;
  /** Whether the teacher's side has acknowledged it. */
  sent: boolean;
  /** Whether it was not taken there: too much. */
  refused?: boolean;
}

/** What came to this device by hand for one student: a sitting with its paper, what came back of it, or both. */
export interface CarriedPacket {
  joinCode: string;
  sittingId: string;
  /** As this device knows him; the join code stands for the id. */
  student: Student;
  sitting: Sitting;
  /** Without a key; null where only a script came. */
  paper: PaperVersion | null;
  allowances: Allowance[];
  /** The student it was made for, by his id on the desk; null: whoever gets it. */
  madeFor: string | null;
  release: (Release & { packet?: ScriptPacket | undefined }) | null;
  /** When the answers were last saved as a file. */
  savedAt?: string;
  /** When nobody else knew the join code, ms since 1970. */
  onlyHereAt?: number;
}

/** A picture or file that came by hand, or is to go so. */
export interface CarriedHandFile extends CarriedFile {
  joinCode: string;
}

/** The student's database: apart from the teacher's, and never holding a key. */
export class SitDatabase extends Dexie {
  declare attempts: EntityTable<HeldAttempt, 'attemptId'>;
  declare files: Table<HeldFile, [string, string]>;
  declare packets: Table<CarriedPacket, [string, string]>;
  /** Attempts at what came by hand: this device is where they are kept. */
  declare handAttempts: EntityTable<Attempt, 'id'>;
  declare handFiles: Table<CarriedHandFile, [string, string]>;

  constructor(name = 'gribbet-sit') {
    super(name);
    this.version(1).stores({ attempts: 'attemptId, joinCode, [joinCode+sittingId]' });
    this.version(2).stores({ files: '[attemptId+id], attemptId' });
    this.version(3).stores({
      packets: '[joinCode+sittingId], joinCode',
      handAttempts: 'id, studentId, [studentId+sittingId]',
      handFiles: '[joinCode+id], joinCode',
    });
  }
}

export const sitDesk = new SitDatabase();
