import { createMimeMessage } from 'mimetext/browser';
import { base64From } from '../basics/base64';
import type { Message } from '../model/sitting';

/** A message as a file that mail programs open (RFC 5322, MIME). Without a sender: who opens it sends it. */
export function emlOf({ id, email, subject, text, at }: Message): string {
  const mail = createMimeMessage();
  mail.setHeader('Date', new Date(at).toUTCString().replace('GMT', '+0000'));
  mail.setHeader('Message-ID', `<${id}@gribbet.invalid>`);
  mail.setSender('outbox@gribbet.invalid');
  if (email) mail.setRecipient(email);
  mail.setSubject(subject);
  // Lines of at most 76 letters (RFC 2045, section 6.8).
  const data = base64From(new TextEncoder().encode(text)).replace(/.{76}/g, '$&\r\n');
  mail.addMessage({ contentType: 'text/plain', data, encoding: 'base64' });
  return mail.asRaw();
}
