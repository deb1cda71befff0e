import type { MailState } from '@/core/exchange/mail';
import { MessageTemplate } from '@/core/model/sitting';
import { done } from '@/words/done';
import { runCommand } from './command';
import { newId } from './ids';
import { desk } from './tables';

/** Notes how messages stand that the server has. What is not here any more is passed over. */
export async function takeMailStates(states: readonly MailState[]): Promise<void> {
  await desk.transaction('rw', desk.outbox, async () => {
    for (const { id, is, at, words } of states) {
      const message = await desk.outbox.get(id);
      // What was told before, or later, stays.
      if (message && (message.state?.at ?? '') <= at)
        await desk.outbox.put({ ...message, state: { is, at, words } });
    }
  });
}

/** Notes that messages went another way: as files, or by the teacher's own mail program. */
export async function passOn(ids: readonly string[], now: string) {
  return runCommand({ command: 'passOnMessages', said: done.passedOn(ids.length) }, now, async (record) => {
    for (const id of ids) {
      const message = await desk.outbox.get(id);
      if (message) await record.put('outbox', { ...message, state: { is: 'passedOn', at: now, words: '' } });
    }
  });
}

export async function keepMessageTemplate(name: string, subject: string, text: string, now: string) {
  const said = done.wordingSaved(name);
  return runCommand({ command: 'keepMessageTemplate', said }, now, async (record) => {
    const same = await desk.messageTemplates.filter((each) => each.name === name).first();
    const template = MessageTemplate.parse({ id: same?.id ?? newId(), name, subject, text });
    await record.put('messageTemplates', template);
  });
}

export async function removeMessageTemplate({ id, name }: MessageTemplate, now: string) {
  const said = done.wordingDeleted(name);
  return runCommand({ command: 'removeMessageTemplate', said }, now, (record) =>
    record.remove('messageTemplates', [id]),
  );
}
