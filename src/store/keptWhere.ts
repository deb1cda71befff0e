import { waitsInOutbox } from '@/core/model/sitting';
import { backupSavedAt } from './deskSettings';
import { coursesHere, type CourseAnswers } from './retention';
import { sitDesk } from './sitTables';
import { desk } from './tables';

/** What is kept where, as it stands now: counted, not remembered. */
export interface KeptWhere {
  students: number;
  sittings: number;
  attempts: number;
  /** Pictures and files, each once. */
  files: number;
  /** Acts on record, and when the oldest was; of the older ones only what was done is kept. */
  acts: number;
  actsSince: string | null;
  /** Attempts and papers that this browser keeps as a student's device. */
  deviceAttempts: number;
  devicePapers: number;
  /** Sittings that students may sit on devices of their own: they lie on the classroom server. */
  onServer: number;
  paired: boolean;
  messages: number;
  messagesWaiting: number;
  savedAt: string | null;
  courses: CourseAnswers[];
}

export async function keptWhere(): Promise<KeptWhere> {
  const messages = await desk.outbox.toArray();
  return {
    students: await desk.students.count(),
    sittings: await desk.sittings.count(),
    attempts: await desk.attempts.count(),
    files: await desk.assets.count(),
    acts: await desk.log.count(),
    actsSince: (await desk.log.orderBy('seq').first())?.at ?? null,
    deviceAttempts: (await sitDesk.attempts.count()) + (await sitDesk.handAttempts.count()),
    devicePapers: await sitDesk.packets.count(),
    onServer: await desk.sittings.filter(({ onDevices }) => onDevices === true).count(),
    paired: (await desk.pairing.get('now')) !== undefined,
    messages: messages.length,
    messagesWaiting: messages.filter(waitsInOutbox).length,
    savedAt: (await backupSavedAt()) ?? null,
    courses: await coursesHere(),
  };
}
