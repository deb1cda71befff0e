import { z } from 'zod';
import { base64From, bytesFrom } from '../../basics/base64';
import { decrypted, encrypted, passwordKey } from '../../basics/crypto';

/** How often the password is turned over (OWASP Password Storage Cheat Sheet, 2023: 600,000 for HMAC-SHA-256). */
export const sealIterations = 600_000;

/** The most that a seal may ask for: what a file says must not keep a phone busy for minutes. */
const mostIterations = 1_000_000;

/** Something that only who has the password can read. */
export const Sealed = z.object({
  /** PBKDF2 with HMAC-SHA-256. */
  iterations: z.number().int().min(1).max(mostIterations),
  salt: z.base64().max(100),
  /** AES-256-GCM. */
  nonce: z.base64().max(100),
  data: z.base64(),
});
export type Sealed = z.infer<typeof Sealed>;

/**
 * Text sealed with a password.
 *
 * @param chance gives so many bytes that nobody can foretell
 */
export async function sealed(
  text: string,
  password: string,
  chance: (length: number) => Uint8Array,
  iterations = sealIterations,
): Promise<Sealed> {
  return sealerWith(password, chance, iterations)(text);
}

/**
 * Seals one text after another with one password. They share the key that is drawn from it, which takes long to draw; each
 * has a nonce of its own.
 */
export function sealerWith(
  password: string,
  chance: (length: number) => Uint8Array,
  iterations = sealIterations,
): (text: string) => Promise<Sealed> {
  const salt = chance(16);
  let key: Promise<Uint8Array> | null = null;
  return async (text) => {
    key ??= passwordKey(password, salt, iterations);
    const nonce = chance(12);
    const data = await encrypted(await key, nonce, new TextEncoder().encode(text));
    return { iterations, salt: base64From(salt), nonce: base64From(nonce), data: base64From(data) };
  };
}

/** Opens one seal after another with one password; the keys that take long to draw are kept. */
export function unsealerWith(password: string): (seal: Sealed) => Promise<string | null> {
  const keys = new Map<string, Promise<Uint8Array>>();
  return async (seal) => {
    const name = `${seal.salt} ${seal.iterations}`;
    const key = keys.get(name) ?? passwordKey(password, bytesFrom(seal.salt), seal.iterations);
    keys.delete(name);
    keys.set(name, key);
    for (const old of [...keys.keys()].slice(0, Math.max(0, keys.size - mostKeys))) keys.delete(old);
    const plain = await decrypted(await key, bytesFrom(seal.nonce), bytesFrom(seal.data));
    return plain && new TextDecoder().decode(plain);
  };
}

/** So many keys are kept, those used last. */
const mostKeys = 32;

/** The text again; null where the password is another one or something was changed. */
export async function unsealed(seal: Sealed, password: string): Promise<string | null> {
  const key = await passwordKey(password, bytesFrom(seal.salt), seal.iterations);
  const plain = await decrypted(key, bytesFrom(seal.nonce), bytesFrom(seal.data));
  return plain && new TextDecoder().decode(plain);
}
