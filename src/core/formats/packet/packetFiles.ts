import { Refused } from '../../basics/refused';
import { unpacked } from '../unpacked';
import { mostPacketBytes, readPacket, type PacketRead } from './packetFile';

/** A file, and what was found in it. */
export interface FoundPacket {
  name: string;
  read: PacketRead | { outcome: 'refused'; why: 'badZip' | 'tooLarge' };
}

const mostInZip = { file: mostPacketBytes, together: 6 * mostPacketBytes };

/** What systems put beside the files they pack. */
const isLeftover = (path: string) =>
  path.startsWith('__MACOSX/') || path.split('/').some((step) => step.startsWith('.'));

/** The packets in a file: one, or all those of a zip in the order of their names. Nothing is thrown. */
export async function packetsIn(name: string, bytes: Uint8Array): Promise<FoundPacket[]> {
  // A zip begins so (APPNOTE.TXT of the zip format, 4.3.7 and 4.3.16).
  const zip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  if (!zip)
    return bytes.length > mostPacketBytes
      ? [{ name, read: { outcome: 'refused', why: 'tooLarge' } }]
      : [{ name, read: await readPacket(bytes) }];
  try {
    const inside = [...(await unpacked(bytes, mostInZip))].filter(([path]) => !isLeftover(path));
    const found: FoundPacket[] = [];
    for (const [path, content] of inside.sort(([a], [b]) => a.localeCompare(b)))
      found.push({ name: `${name}: ${path}`, read: await readPacket(content) });
    return found;
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return [{ name, read: { outcome: 'refused', why: error.why === 'tooLarge' ? 'tooLarge' : 'badZip' } }];
  }
}
