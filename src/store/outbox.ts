import { done } from '@/words/done';
import type { Student } from '@/core/model/people';
import { Message } from '@/core/model/sitting';
import { runCommand } from './command';
import { newId } from './ids';
import { desk } from './tables';

/** A message as it is written. */
export interface Written {
  studentId: string;
  subject: string;
  text: string;
}

/** The rows of messages: to the addresses that the students have now. */
export async function messageRows(
  sittingId: string,
  messages: readonly Written[],
  now: string,
): Promise<{ rows: Message[]; known: Student[] }> {
  const students = await desk.students.bulkGet(messages.map(({ studentId }) => studentId));
  const rows = messages.map((message, index) =>
    Message.parse({ ...message, id: newId(), sittingId, email: students[index]?.email ?? '', at: now }),
  );
  return { rows, known: students.filter((student) => student !== undefined) };
}

/** One message a student into the outbox; who has no email gets one too, for the teacher to pass on. */
export async function sendMessages(sittingId: string, messages: readonly Written[], now: string) {
  const { rows, known } = await messageRows(sittingId, messages, now);
  const said = done.inOutbox(known, messages.length);
  return runCommand({ command: 'sendMessages', said, about: sittingId }, now, async (record) => {
    await record.addAll('outbox', rows);
    return rows.map(({ id }) => id);
  });
}

export async function outboxRows() {
  const messages = await desk.outbox.toArray();
  const students = await desk.students.bulkGet(messages.map(({ studentId }) => studentId));
  return messages
    .map((message, index) => ({ message, student: students[index] }))
    .sort((a, b) => b.message.at.localeCompare(a.message.at));
}

export async function removeMessage(id: string, now: string) {
  return runCommand({ command: 'removeMessage', said: done.messageDeleted }, now, (record) =>
    record.remove('outbox', [id]),
  );
}
