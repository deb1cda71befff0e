import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { MailJob } from '@/core/exchange/mail';
import { openExchangeFolder, type ExchangeFolder } from './exchangeFolder';
import { MailQueue, type SendMail } from './mailQueue';
import { mailServer, refusalOf } from './mailServer';
import { settingsFrom } from './settings';

const hour = 3_600_000;
const start = Date.parse('2026-11-23T10:00:00.000Z');
let folderName: string;
let folder: ExchangeFolder;
beforeEach(async () => {
  folderName = mkdtempSync(join(tmpdir(), 'gribbet-mail-'));
  folder = await openExchangeFolder(folderName);
});
afterEach(() => folder.close());

const job = (id: string, to = `${id}@example.org`): MailJob => ({
  id,
  to,
  subject: 'Back',
  text: 'Dear you',
});
const jobs = (count: number) => Array.from({ length: count }, (_, n) => job(`m${n}`));
const many = { perHour: 1_000, perDay: 1_000 };
const stands = async (queue: MailQueue) =>
  Object.fromEntries((await queue.states(0)).states.map(({ id, is }) => [id, is]));
const all =
  (sent: string[]): SendMail =>
  async ({ id }) => {
    sent.push(id);
    return { outcome: 'sent' };
  };

describe('messages on their way', () => {
  it('go once, however often they are put in', async () => {
    const sent: string[] = [];
    const queue = new MailQueue(folder, all(sent), many);
    await queue.add(jobs(3), start);
    await queue.add(jobs(3), start);
    await queue.work(() => start);
    await queue.add(jobs(3), start);
    await queue.work(() => start);
    expect(sent).toEqual(['m0', 'm1', 'm2']);
    expect(await stands(queue)).toEqual({ m0: 'sent', m1: 'sent', m2: 'sent' });
    // Nothing of what was written lies there once it has gone.
    expect(JSON.stringify(await folder.list('mail/'))).not.toMatch(/Dear|example\.org/);
  });

  it('keep to the limits of an hour and a day; the rest goes by itself later', async () => {
    const sent: string[] = [];
    const queue = new MailQueue(folder, all(sent), { perHour: 4, perDay: 6 });
    await queue.add(jobs(9), start);
    const at = async (ms: number) => {
      await queue.work(() => start + ms);
      return sent.length;
    };
    expect(await at(0)).toBe(4);
    expect(await at(hour / 2)).toBe(4);
    expect(await at(1.1 * hour)).toBe(6);
    expect(await at(3 * hour)).toBe(6);
    expect(await at(25 * hour)).toBe(9);
    expect(new Set(sent).size).toBe(9);
  });

  it('that a mail server does not take now are tried again, longer and longer, and given up; what it refuses bounces', async () => {
    let tries = 0;
    const queue = new MailQueue(
      folder,
      async ({ id }) => {
        if (id === 'm0') return { outcome: 'never', words: '550 no such user' };
        tries++;
        return { outcome: 'later', words: '451 try later' };
      },
      many,
    );
    await queue.add(jobs(2), start);
    await queue.work(() => start);
    expect(await stands(queue)).toEqual({ m0: 'bounced', m1: 'queued' });
    await queue.work(() => start + 30_000);
    expect(tries).toBe(1);
    for (let day = 1; day <= 10; day++) await queue.work(() => start + day * 24 * hour);
    expect(tries).toBe(6);
    expect((await queue.states(0)).states).toMatchObject([
      { id: 'm0', words: '550 no such user' },
      { id: 'm1', is: 'failed', words: '451 try later' },
    ]);
    await queue.again(['m0', 'm1'], start + 20 * 24 * hour);
    expect(await stands(queue)).toEqual({ m0: 'queued', m1: 'queued' });
  });

  it('killed while sending: what may have gone is not sent twice, and the rest goes', async () => {
    const sent: string[] = [];
    const dying = new MailQueue(
      folder,
      async ({ id }) => {
        sent.push(id);
        // The process ends before anything more is noted.
        if (id === 'm1') throw new Error('killed');
        return { outcome: 'sent' };
      },
      many,
    );
    await dying.add(jobs(4), start);
    await dying.work(() => start).catch(() => undefined);
    await folder.close();
    folder = await openExchangeFolder(folderName);
    const queue = new MailQueue(folder, all(sent), many);
    await queue.work(() => start);
    expect(sent).toEqual(['m0', 'm1', 'm2', 'm3']);
    expect(await stands(queue)).toEqual({ m0: 'sent', m1: 'unsure', m2: 'sent', m3: 'sent' });
  });
});

describe('a mail server', () => {
  it('gets each message as RFC 5322 has it, and refuses what it refuses by its reply code', async () => {
    const got: { to: string; subject: string; text: string; id: string }[] = [];
    let ends = true;
    const smtp = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onRcptTo: ({ address }, _session, done) => {
        // RFC 5321, section 4.2.3: 550 for a mailbox that is not there, 450 for one that is busy.
        const refused = { 'gone@example.org': 550, 'busy@example.org': 450 }[address];
        done(refused ? Object.assign(new Error('refused'), { responseCode: refused }) : null);
      },
      onData: (stream, session, done) => {
        // It dies once, in the middle of a message.
        if (ends && session.envelope.rcptTo.some(({ address }) => address === 'm1@example.org')) {
          ends = false;
          stream.resume();
          return done(Object.assign(new Error('shutting down'), { responseCode: 421 }));
        }
        void simpleParser(stream).then((mail) => {
          const to = Array.isArray(mail.to) ? mail.to[0] : mail.to;
          got.push({
            ...{ to: to?.text ?? '', subject: mail.subject ?? '', text: mail.text ?? '' },
            id: mail.messageId ?? '',
          });
          done();
        });
      },
    });
    await new Promise<void>((listening) => smtp.listen(0, '127.0.0.1', listening));
    const { port } = smtp.server.address() as { port: number };
    const send = mailServer({ url: `smtp://127.0.0.1:${port}`, from: 'Tidewater <school@example.org>' });
    const queue = new MailQueue(folder, send, many);
    const text = 'Dear Zoë,\n.\nyour quiz “Lights” is back: https://school.example/sit?code=K7M4QX';
    await queue.add(
      [
        { ...job('m0'), subject: 'Zurück: Prüfung über Gezeiten, 潮汐', text },
        ...[job('m1'), job('gone'), job('busy')],
      ],
      start,
    );
    await queue.work(() => start);
    expect(await stands(queue)).toEqual({ m0: 'sent', m1: 'queued', gone: 'bounced', busy: 'queued' });
    await queue.work(() => start + 2 * 60_000);
    expect(await stands(queue)).toMatchObject({ m0: 'sent', m1: 'sent' });
    expect(got.map(({ to }) => to)).toEqual(['m0@example.org', 'm1@example.org']);
    expect(got[0]).toEqual({
      ...{ to: 'm0@example.org', subject: 'Zurück: Prüfung über Gezeiten, 潮汐', id: '<m0@example.org>' },
      text: `${text}\n`,
    });
    await new Promise<void>((closed) => smtp.close(() => closed()));
    // Nobody there: it is tried later.
    expect((await send(job('m9'))).outcome).toBe('later');
  });

  // RFC 5321, section 4.2.1: the first digit says whether it is for good.
  it.each([
    [550, 'never'],
    [554, 'never'],
    [421, 'later'],
    [452, 'later'],
    [undefined, 'later'],
  ])('reply %s means %s', (responseCode, outcome) => {
    expect(refusalOf({ responseCode, message: 'x' }).outcome).toBe(outcome);
  });

  it('is set by the surroundings, and a setting that cannot be used is named', () => {
    const env = { GRIBBET_DATA: folderName, GRIBBET_TEACHER_SECRET: 'tide tables 2026' };
    const mail = {
      GRIBBET_SMTP_URL: 'smtps://u:p@mail.example',
      GRIBBET_MAIL_FROM: 'Tidewater <a@example.org>',
    };
    expect(settingsFrom(env).mail).toBeUndefined();
    expect(settingsFrom({ ...env, ...mail, GRIBBET_MAIL_PER_DAY: '50' }).mail).toEqual({
      ...{ url: 'smtps://u:p@mail.example', from: 'Tidewater <a@example.org>', perHour: 200, perDay: 50 },
    });
    for (const [name, value] of [
      ['GRIBBET_SMTP_URL', 'http://mail.example'],
      ['GRIBBET_MAIL_FROM', 'nobody'],
      ['GRIBBET_MAIL_PER_HOUR', 'some'],
    ] as const)
      expect(() => settingsFrom({ ...env, ...mail, [name]: value })).toThrow(name);
  });
});
