/**
 * The text of a file whose encoding nobody names: UTF-16 by its byte order mark or by its zero bytes, UTF-8 with
 * or without mark, else Latin-1 (as windows-1252, which holds it: WHATWG Encoding Standard).
 */
export function decodeText(bytes: Uint8Array): string {
  const label = utf16Label(bytes);
  if (label) return new TextDecoder(label).decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

function utf16Label(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  // Without a mark: text of mostly western letters has a zero byte in every pair, always on the same side.
  const sample = bytes.subarray(0, 200);
  const zeros = [0, 0];
  sample.forEach((byte, index) => {
    if (byte === 0) zeros[index % 2] = (zeros[index % 2] ?? 0) + 1;
  });
  const most = sample.length / 4;
  if ((zeros[1] ?? 0) > most) return 'utf-16le';
  if ((zeros[0] ?? 0) > most) return 'utf-16be';
  return null;
}
