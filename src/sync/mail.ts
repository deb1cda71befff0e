import { chunk } from 'remeda';
import { mostJobs, type MailNews } from '@/core/exchange/mail';
import { takeMailStates } from '../store/mail';
import { pairing } from '../store/pairing';
import { desk } from '../store/tables';
import type { ServerConnection } from './serverConnection';

/**
 * Gives messages to the server to be sent. It takes each once: where this is ended in between, doing it again sends nothing
 * twice.
 *
 * @returns how many it has now; those without an address are left
 */
export async function sendByServer(server: ServerConnection, ids: readonly string[]): Promise<number> {
  const messages = (await desk.outbox.bulkGet([...ids])).filter(
    (message) => message !== undefined && message.email !== '',
  );
  const jobs = messages.flatMap((message) =>
    message ? [{ id: message.id, to: message.email, subject: message.subject, text: message.text }] : [],
  );
  for (const some of chunk(jobs, mostJobs)) await server.sendMail(some);
  await pullMail(server);
  return jobs.length;
}

/** Up to where each mailbox has told in this page how its messages stand. */
const told = new Map<string, number>();

/** Asks how the messages stand that the server has. @returns what it can do with mail */
export async function pullMail(server: ServerConnection): Promise<MailNews> {
  const mailbox = (await pairing())?.mailbox ?? '';
  const news = await server.mail(told.get(mailbox) ?? 0);
  await takeMailStates(news.states);
  told.set(mailbox, news.rev);
  return news;
}

/** Whether some message is on its way by the server. */
export const isMailUnderWay = async (): Promise<boolean> =>
  (await desk.outbox.filter(({ state }) => state?.is === 'queued' || state?.is === 'sending').first()) !==
  undefined;
