import { createTransport } from 'nodemailer';
import type { MailJob } from '@/core/exchange/mail';
import type { Sent, SendMail } from './mailQueue';

/** The mail server that the settings name. */
export interface MailSettings {
  /** smtp:// or smtps://, with user and password where it asks for them. */
  url: string;
  from: string;
}

/** Hands messages to a mail server (RFC 5321), each under a Message-ID of its own (RFC 5322, section 3.6.4). */
export function mailServer({ url, from }: MailSettings): SendMail {
  const transport = createTransport(url, { from });
  const domain = from.replace(/.*@/, '').replace(/[>\s]+$/, '');
  return async ({ id, to, subject, text }: MailJob): Promise<Sent> => {
    try {
      await transport.sendMail({ to, subject, text, messageId: `<${id}@${domain}>` });
      return { outcome: 'sent' };
    } catch (error) {
      return refusalOf(error);
    }
  };
}

/** What a failure means: 5yz is for good, 4yz and everything else for now (RFC 5321, section 4.2.1). */
export function refusalOf(error: unknown): Sent {
  const { responseCode, response, message } = error as {
    responseCode?: number;
    response?: string;
    message?: string;
  };
  const words = String(response ?? message ?? 'The mail server could not be reached.').slice(0, 400);
  return { outcome: responseCode !== undefined && responseCode >= 500 ? 'never' : 'later', words };
}
