import { afterEach, describe, expect, it, vi } from 'vitest';
import { decrypted, encrypted, passwordKey, sha256 } from './crypto';
import { sealed, unsealed } from '../formats/packet/sealed';

const hex = (bytes: Uint8Array | null) => Buffer.from(bytes ?? []).toString('hex');
const bytes = (text: string) => new TextEncoder().encode(text);
const chance = (length: number) => crypto.getRandomValues(new Uint8Array(length));

afterEach(() => vi.unstubAllGlobals());

describe.each(['a secure page', 'a page over plain HTTP'])('on %s', (page) => {
  const there = () => {
    if (page !== 'a secure page')
      vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) });
  };

  it('SHA-256 of "abc"', async () => {
    there();
    // NIST FIPS 180-4, example "abc".
    const digest = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';
    expect(hex(await sha256(bytes('abc')))).toBe(digest);
  });

  it('PBKDF2 with HMAC-SHA-256', async () => {
    there();
    // RFC 7914, section 11: the first 32 of its 64 bytes.
    const once = '55ac046e56e3089fec1691c22544b605f94185216dde0465e68b9d57c20dacbc';
    expect(hex(await passwordKey('passwd', bytes('salt'), 1))).toBe(once);
    const often = '4ddcd8f60b98be21830cee5ef22701f9641a4418d04c0414aeff08876b34ab56';
    expect(hex(await passwordKey('Password', bytes('NaCl'), 80_000))).toBe(often);
  });

  it('AES-256-GCM, and nothing comes of a changed byte', async () => {
    there();
    // McGrew and Viega, The Galois/Counter Mode of Operation (2004), test case 14; from memory.
    const wanted = 'cea7403d4d606b6e074ec5d3baf39d18d0d1c8a799996bf0265b98b5d48ab919';
    const [key, nonce] = [new Uint8Array(32), new Uint8Array(12)];
    const made = await encrypted(key, nonce, new Uint8Array(16));
    expect(hex(made)).toBe(wanted);
    expect(hex(await decrypted(key, nonce, made))).toBe('00'.repeat(16));
    expect(
      await decrypted(
        key,
        nonce,
        made.map((byte, at) => (at === 3 ? byte ^ 1 : byte)),
      ),
    ).toBeNull();
  });

  it('what is sealed here opens with the password alone', async () => {
    there();
    const seal = await sealed('118° true', 'slack water', chance, 1000);
    expect(JSON.stringify(seal)).not.toContain('118');
    expect(await unsealed(seal, 'slack water')).toBe('118° true');
    expect(await unsealed(seal, 'Slack water')).toBeNull();
  });
});

it('what was sealed without Web Cryptography opens with it', async () => {
  const seal = await (async () => {
    vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) });
    return sealed('ebb', 'flood', chance, 1000);
  })();
  vi.unstubAllGlobals();
  expect(await unsealed(seal, 'flood')).toBe('ebb');
});
