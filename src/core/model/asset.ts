import { z } from 'zod';
import { Id, Line } from './common';
import { FileRef } from './file';

/** A picture or file that belongs to the desk. Its id is drawn from its bytes, so that it never changes. */
export const Asset = FileRef.extend({ bytes: z.instanceof(Uint8Array) });
export type Asset = z.infer<typeof Asset>;

/** An asset in a file of text: its bytes are Base64 (RFC 4648). */
export const PackedAsset = z.object({ id: Id, name: Line, mediaType: Line, base64: z.base64() });
export type PackedAsset = z.infer<typeof PackedAsset>;

const chunk = 0x8000;

export function packedAsset({ id, name, mediaType, bytes }: Asset): PackedAsset {
  let text = '';
  for (let at = 0; at < bytes.length; at += chunk)
    text += String.fromCharCode(...bytes.subarray(at, at + chunk));
  return { id, name, mediaType, base64: btoa(text) };
}

export function unpackedAsset({ id, name, mediaType, base64 }: PackedAsset): Asset {
  const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
  return { id, name, mediaType, size: bytes.length, bytes };
}

/** The id of these bytes: their SHA-256 (FIPS 180-4) in the letters of Base64url (RFC 4648, section 5). */
export async function assetId(bytes: Uint8Array): Promise<string> {
  // A digest brings neither chance nor time in.
  // eslint-disable-next-line no-restricted-globals
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', Uint8Array.from(bytes)));
  return btoa(String.fromCharCode(...digest))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '');
}

/** A setting of the desk. */
export const Setting = z.object({ key: Line.min(1), value: z.json() });
export type Setting = z.infer<typeof Setting>;
