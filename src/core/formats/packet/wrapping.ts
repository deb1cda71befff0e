import { z } from 'zod';
import { Line } from '../../basics/common';
import { sha256 } from '../../basics/crypto';
import { tooDeep } from '../depth';
import { textOf } from '../textOf';

/** What every packet is wrapped in, whatever it holds. */

const version = 1;

const Wrapping = z.object({
  gribbet: z.literal('packet'),
  version: z.literal(version),
  kind: z.string().max(40),
  /** Of the sitting; for who looks into the file. */
  title: Line,
  /** SHA-256 (FIPS 180-4) of the content as UTF-8, in hexadecimal digits. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  /** JSON as text, so that its digest holds however the file is laid out. */
  content: z.string(),
});

/** Why a file is not read. */
export type RefusedFile =
  /** Another sort of file, a packet that holds something else, or one of a later version of Gribbet. */
  | { outcome: 'refused'; why: 'notPacket' | 'otherKind' | 'newer' }
  /** A packet of which a part is gone or spoilt: `place` is the field, `expected` what should be there. */
  | { outcome: 'refused'; why: 'damaged'; place: string; expected: string };

/** What lay in a wrapping. */
export interface Unwrapped<Kind extends string> {
  outcome: 'unwrapped';
  kind: Kind;
  title: string;
  content: unknown;
  /** It can be read, but is not as it was saved. */
  changed: boolean;
}

/** Something as the text of a file. */
export async function wrapped(kind: string, title: string, content: unknown): Promise<string> {
  const text = JSON.stringify(content);
  return JSON.stringify({
    gribbet: 'packet',
    version,
    kind,
    title,
    sha256: await digestOf(text),
    content: text,
  });
}

async function digestOf(text: string): Promise<string> {
  const digest = await sha256(new TextEncoder().encode(text));
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** Takes off the wrapping of one of these kinds. Nothing is thrown, whatever the bytes are. */
export async function unwrapped<Kind extends string>(
  bytes: Uint8Array,
  kinds: readonly Kind[],
): Promise<Unwrapped<Kind> | RefusedFile> {
  const text = textOf(bytes);
  const whole = parsed(text);
  if (whole === undefined)
    return /^\s*\{\s*"gribbet"\s*:\s*"packet"/.test(text)
      ? damaged('', 'JSON')
      : { outcome: 'refused', why: 'notPacket' };
  const named = z.looseObject({ gribbet: z.literal('packet'), version: z.number() }).safeParse(whole);
  if (!named.success) return { outcome: 'refused', why: 'notPacket' };
  if (named.data.version > version) return { outcome: 'refused', why: 'newer' };
  const wrapping = Wrapping.safeParse(whole);
  if (!wrapping.success) return damagedBy(wrapping.error);
  const kind = kinds.find((each) => each === wrapping.data.kind);
  if (kind === undefined) return { outcome: 'refused', why: 'otherKind' };
  const { title, sha256: digest, content } = wrapping.data;
  const changed = (await digestOf(content)) !== digest;
  const inside = parsed(content);
  if (inside === undefined) return damaged('content', 'JSON');
  if (tooDeep(inside)) return damaged('content', 'less deeply nested');
  return { outcome: 'unwrapped', kind, title, content: inside, changed };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

export const damaged = (place: string, expected: string): RefusedFile => ({
  outcome: 'refused',
  why: 'damaged',
  place,
  expected,
});

export function damagedBy(error: z.ZodError, within = ''): RefusedFile {
  const [issue] = error.issues;
  const place = [...(within ? [within] : []), ...(issue?.path ?? [])].join('.');
  return damaged(place, issue?.message ?? '');
}
