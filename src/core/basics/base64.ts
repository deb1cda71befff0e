const chunk = 0x8000;

/** Bytes in the letters of Base64 (RFC 4648, section 4). */
export function base64From(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += chunk)
    text += String.fromCharCode(...bytes.subarray(at, at + chunk));
  return btoa(text);
}

/** The bytes that Base64 stands for. @throws where it is none */
export function bytesFrom(base64: string): Uint8Array<ArrayBuffer> {
  const letters = atob(base64);
  const bytes = new Uint8Array(letters.length);
  // Not by `from`, which takes the letters one by one from an iterator: ten times as long.
  for (let at = 0; at < letters.length; at++) bytes[at] = letters.charCodeAt(at);
  return bytes;
}

/** Bytes in the letters of Base64url without padding (RFC 4648, section 5). */
export const base64UrlFrom = (bytes: Uint8Array): string =>
  base64From(bytes).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');

/** The bytes that Base64url stands for. @throws where it is none */
export const bytesFromUrl = (base64: string): Uint8Array<ArrayBuffer> =>
  bytesFrom(base64.replaceAll('-', '+').replaceAll('_', '/'));
