import { z } from 'zod';
import { Id } from '@/core/basics/common';
import { MailJobs, mostJobs, type MailNews } from '@/core/exchange/mail';
import { deskBytes, smallBytes, type Endpoint, type Surroundings } from './endpoint';
import { bodyOf, fitting, Refused } from './respond';
import { MailQueue } from './mailQueue';
import { mailServer } from './mailServer';

/** What is due is looked for so often, and after every message that comes in. */
const lookMs = 15_000;

/** What the desk asks of the mail side of the server. */
export function mailEndpoints({ store, settings, metrics, stopping, log }: Surroundings): Endpoint[] {
  const { mail } = settings;
  const queue = mail && new MailQueue(store, mailServer(mail), mail, stopping);
  const work = () =>
    void queue
      ?.work(() => Date.now())
      .then(async () => metrics.mail.set(await queue.waiting()))
      .catch((error: unknown) => log(`mail: ${(error as Error).name}`));
  if (queue) {
    work();
    // It does not keep the process alive.
    setInterval(work, lookMs).unref();
  }
  const queued = () => {
    if (!queue) throw new Refused('notFound', 'mail');
    return queue;
  };
  return [
    {
      method: 'GET',
      path: '/desk/mail',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        const after = Number(http.req.query('after') ?? 0);
        if (!Number.isInteger(after) || after < 0) throw new Refused('badRequest', 'after');
        const news: MailNews = {
          ...{ from: mail?.from ?? null, perHour: mail?.perHour ?? 0, perDay: mail?.perDay ?? 0 },
          ...(queue ? await queue.states(after) : { rev: after, states: [] }),
        };
        return http.json(news);
      },
    },
    {
      method: 'POST',
      path: '/desk/mail',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http, now }) => {
        const { jobs } = fitting(MailJobs, await bodyOf(http));
        await queued().add(jobs, now);
        work();
        return http.json({});
      },
    },
    {
      method: 'POST',
      path: '/desk/mail/again',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http, now }) => {
        const { ids } = fitting(z.object({ ids: Id.array().max(mostJobs) }), await bodyOf(http));
        await queued().again(ids, now);
        work();
        return http.json({});
      },
    },
  ];
}
