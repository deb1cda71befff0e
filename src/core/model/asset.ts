import { z } from 'zod';
import { Id, Line } from './common';
import { base64From, base64UrlFrom, bytesFrom } from '../base64';
import { sha256 } from '../crypto';
import { FileRef } from './file';

/** A picture or file that belongs to the desk. Its id is drawn from its bytes, so that it never changes. */
export const Asset = FileRef.extend({ bytes: z.instanceof(Uint8Array) });
export type Asset = z.infer<typeof Asset>;

/** An asset in a file of text: its bytes are Base64 (RFC 4648). */
export const PackedAsset = z.object({ id: Id, name: Line, mediaType: Line, base64: z.base64() });
export type PackedAsset = z.infer<typeof PackedAsset>;

export function packedAsset({ id, name, mediaType, bytes }: Asset): PackedAsset {
  return { id, name, mediaType, base64: base64From(bytes) };
}

export function unpackedAsset({ id, name, mediaType, base64 }: PackedAsset): Asset {
  const bytes = bytesFrom(base64);
  return { id, name, mediaType, size: bytes.length, bytes };
}

/** The id of these bytes: their SHA-256 (FIPS 180-4) in the letters of Base64url (RFC 4648, section 5). */
export const assetId = async (bytes: Uint8Array): Promise<string> => base64UrlFrom(await sha256(bytes));

/** A picture of a paper as it goes to students: under a name that tells nothing. */
export const unnamed = <A extends { name: string }>(asset: A): A => ({ ...asset, name: 'picture' });

/** A setting of the desk. */
export const Setting = z.object({ key: Line.min(1), value: z.json() });
export type Setting = z.infer<typeof Setting>;
