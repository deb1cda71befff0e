import { strToU8, zipSync } from 'fflate';
import { emlOf } from '@/core/formats/eml';
import { fileNameOf } from '@/core/formats/fileName';
import type { Message } from '@/core/model/sitting';

/** Messages as files that mail programs open, in one zip, named by their place and subject. */
export function messagesZip(messages: readonly Message[]): Uint8Array<ArrayBuffer> {
  const files = messages.map((message, index) => {
    const name = `${String(index + 1).padStart(3, '0')} ${fileNameOf(message.subject)}.eml`;
    return [name, strToU8(emlOf(message))] as const;
  });
  return Uint8Array.from(zipSync(Object.fromEntries(files)));
}
