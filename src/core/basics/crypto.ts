/**
 * Digests and sealing by the standards, through Web Cryptography where there is one. A page that came over plain HTTP
 * from the classroom's laptop has none (W3C, Secure Contexts): there the same is computed by a library, which is fetched
 * only there.
 */
const library = () => import('./cryptoLibrary');

// Neither brings chance nor time in.
// eslint-disable-next-line no-restricted-globals
const subtle = (): SubtleCrypto | undefined => crypto.subtle;

/** SHA-256 (FIPS 180-4): 32 bytes. */
export async function sha256(bytes: Uint8Array): Promise<Uint8Array> {
  const web = subtle();
  return web
    ? new Uint8Array(await web.digest('SHA-256', Uint8Array.from(bytes)))
    : (await library()).sha256(Uint8Array.from(bytes));
}

/** A key of 32 bytes drawn from a password by PBKDF2 with HMAC-SHA-256 (RFC 8018, section 5.2). */
export async function passwordKey(
  password: string,
  salt: Uint8Array,
  iterations: number,
): Promise<Uint8Array> {
  const secret = new TextEncoder().encode(password);
  const web = subtle();
  if (!web) {
    const { pbkdf2Async, sha256: hash } = await library();
    return pbkdf2Async(hash, secret, salt, { c: iterations, dkLen: 32 });
  }
  const key = await web.importKey('raw', secret, 'PBKDF2', false, ['deriveBits']);
  const rules = { name: 'PBKDF2', hash: 'SHA-256', salt: Uint8Array.from(salt), iterations };
  return new Uint8Array(await web.deriveBits(rules, key, 256));
}

/** AES-256-GCM (NIST SP 800-38D) with a nonce of 12 bytes; the tag of 16 bytes stands at the end. */
export async function encrypted(key: Uint8Array, nonce: Uint8Array, plain: Uint8Array): Promise<Uint8Array> {
  const web = subtle();
  if (!web) return (await library()).gcm(key, nonce).encrypt(plain);
  const imported = await web.importKey('raw', Uint8Array.from(key), 'AES-GCM', false, ['encrypt']);
  const rules = { name: 'AES-GCM', iv: Uint8Array.from(nonce) };
  return new Uint8Array(await web.encrypt(rules, imported, Uint8Array.from(plain)));
}

/** What `encrypted` made, opened; null where the key is another or a byte was changed. */
export async function decrypted(
  key: Uint8Array,
  nonce: Uint8Array,
  sealed: Uint8Array,
): Promise<Uint8Array | null> {
  try {
    const web = subtle();
    if (!web) return (await library()).gcm(key, nonce).decrypt(sealed);
    const imported = await web.importKey('raw', Uint8Array.from(key), 'AES-GCM', false, ['decrypt']);
    const rules = { name: 'AES-GCM', iv: Uint8Array.from(nonce) };
    return new Uint8Array(await web.decrypt(rules, imported, Uint8Array.from(sealed)));
  } catch {
    return null;
  }
}
