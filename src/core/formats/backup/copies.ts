import { unzlibSync, zlibSync } from 'fflate';
import { sumBy } from 'remeda';
import { base64UrlFrom, bytesFromUrl } from '../../basics/base64';
import { decrypted, encrypted, passwordKey, sha256 } from '../../basics/crypto';
import { sealIterations } from '../packet/sealed';

/** Copies of the desk that keep themselves: what they are called, and which are kept back. */

/** Kept are so many of the newest, and one of each of so many hours and days. */
export const copiesKept = { newest: 4, hours: 6, days: 14 };
const [hourMs, dayMs] = [3_600_000, 86_400_000];

/**
 * The copies that need not be kept any longer: of an hour or a day (of UTC) the newest is kept.
 *
 * @param copies when they were made, as instants
 * @param since those of before hold somebody who is forgotten: none of them is kept, the newest was made after it
 */
export function copiesToDrop(copies: readonly string[], now: string, since: string | null = null): string[] {
  const sorted = [...copies].sort().reverse();
  const kept = new Set(sorted.slice(0, copiesKept.newest));
  for (const [unitMs, units] of [
    [hourMs, copiesKept.hours],
    [dayMs, copiesKept.days],
  ] as const) {
    const unitOf = (at: string) => Math.floor(Date.parse(at) / unitMs);
    const seen = new Set<number>();
    for (const at of sorted) {
      const unit = unitOf(at);
      if (unit > unitOf(now) - units && !seen.has(unit)) kept.add(at);
      seen.add(unit);
    }
  }
  // The newest was made just now, though its name has no fractions of a second.
  return sorted.filter((at, place) => !kept.has(at) || (since !== null && at < since && place > 0));
}

/** The name of a copy as a file: of which desk it is, and when it was made. */
export const copyName = (deskId: string, at: string): string =>
  `gribbet-desk-${deskId}-${at.slice(0, 19).replaceAll(':', '')}Z.zip`;

/** What the name of a file says; null where it is none of ours. */
export function copyNamed(name: string): { deskId: string; at: string } | null {
  const found = /^gribbet-desk-([a-z0-9]{6})-(\d{4}-\d\d-\d\dT)(\d\d)(\d\d)(\d\d)Z\.zip$/.exec(name);
  if (!found) return null;
  const [, deskId = '', day = '', hour = '', minute = '', second = ''] = found;
  return { deskId, at: `${day}${hour}:${minute}:${second}.000Z` };
}

/** The key of the seal, drawn from the secret that the teacher pairs browsers with. */
export const copyKey = (secret: string, salt: Uint8Array): Promise<Uint8Array> =>
  passwordKey(secret, salt, sealIterations);

/** A part of a copy, not sealed yet. */
export interface Part {
  id: string;
  bytes: () => Promise<Uint8Array>;
}

/**
 * The name of a part: drawn from its content and the key, so that the same content is the same part and who has no key
 * learns nothing by it.
 *
 * @param digest the SHA-256 of its content
 */
export async function partId(key: Uint8Array, digest: Uint8Array): Promise<string> {
  return base64UrlFrom(await sha256(joined(key, text('part'), digest)));
}

/** The name of the part that is a file, whose id is its digest. */
export const filePartId = (key: Uint8Array, fileId: string): Promise<string> =>
  partId(key, bytesFromUrl(fileId));

/** A text as a part: packed (RFC 1950) in the same way everywhere, so that the same text is the same part. */
export async function textPart(key: Uint8Array, text: string): Promise<Part> {
  const packed = zlibSync(new TextEncoder().encode(text), { level: 6 });
  return { id: await partId(key, await sha256(packed)), bytes: async () => packed };
}

/** The text that a part is. @throws where it is none */
export const textOfPart = (packed: Uint8Array): string => new TextDecoder().decode(unzlibSync(packed));

/** AES-256-GCM; the nonce is drawn from key and name, which no other content has. */
export async function sealedPart(key: Uint8Array, { id, bytes }: Part): Promise<Uint8Array> {
  return encrypted(key, await nonceOf(key, id), await bytes());
}

/** A part again; null where the key is another or a byte was changed. */
export const openedPart = async (
  key: Uint8Array,
  id: string,
  sealed: Uint8Array,
): Promise<Uint8Array | null> => decrypted(key, await nonceOf(key, id), sealed);

const nonceOf = async (key: Uint8Array, id: string) =>
  (await sha256(joined(key, text('nonce'), text(id)))).slice(0, 12);

const text = (value: string) => new TextEncoder().encode(value);

function joined(...all: Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(sumBy(all, ({ length }) => length));
  let at = 0;
  for (const each of all) {
    whole.set(each, at);
    at += each.length;
  }
  return whole;
}
