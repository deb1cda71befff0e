import { base64From, base64UrlFrom, bytesFrom } from './base64';
import { sha256 } from './crypto';
import type { Asset, PackedAsset } from './asset';

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
