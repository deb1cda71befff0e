import { done } from '@/words/done';
import { Message } from '@/core/model/sitting';
import { runCommand } from './command';
import { newId } from './ids';
import { desk } from './tables';

/** One message a student into the outbox; who has no email gets one too, for the teacher to pass on. */
export async function sendMessages(
  sittingId: string,
  messages: readonly { studentId: string; subject: string; text: string }[],
  now: string,
) {
  const students = await desk.students.bulkGet(messages.map(({ studentId }) => studentId));
  const known = students.filter((student) => student !== undefined);
  const said = done.inOutbox(known, messages.length);
  return runCommand({ command: 'sendMessages', said, about: sittingId }, now, (record) =>
    record.addAll(
      'outbox',
      messages.map((message, index) =>
        Message.parse({ ...message, id: newId(), sittingId, email: students[index]?.email ?? '', at: now }),
      ),
    ),
  );
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
