import Dexie, { type EntityTable, type Table } from 'dexie';
import type { CarriedFile } from '@/carriers/Carrier';
import type { Answers } from '@/core/model/sitting';
import type { PaperPacket } from '@/core/formats/packet/paper';

/** What the student's device holds of one attempt: the packet, the answers, and what has not been handed over. */
export interface HeldAttempt {
  attemptId: string;
  sittingId: string;
  joinCode: string;
  packet: PaperPacket;
  answers: Answers;
  comeBack: string[];
  /** Questions whose answer the teacher's side has not acknowledged. */
  unsent: string[];
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

/** The student's database: apart from the teacher's, and never holding a key. */
export class SitDatabase extends Dexie {
  declare attempts: EntityTable<HeldAttempt, 'attemptId'>;
  declare files: Table<HeldFile, [string, string]>;

  constructor(name = 'gribbet-sit') {
    super(name);
    this.version(1).stores({ attempts: 'attemptId, joinCode, [joinCode+sittingId]' });
    this.version(2).stores({ files: '[attemptId+id], attemptId' });
  }
}

export const sitDesk = new SitDatabase();
