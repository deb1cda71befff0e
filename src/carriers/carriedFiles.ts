import {
  mostPacketBytes,
  readPacket,
  unsealedPacket,
  type Packet,
  type PacketRead,
  type PacketSeal,
  type PacketStudent,
} from '@/core/formats/packet/packetFile';
import { keepPacket } from '@/store/fileRepository';

/** Files that a student opens, and where they are kept. */

/** A packet that is for a student. */
export type Openable = Exclude<Packet, { kind: 'answers' }>;

export async function readFile(file: Blob): Promise<PacketRead> {
  if (file.size > mostPacketBytes) return { outcome: 'refused', why: 'notPacket' };
  return readPacket(new Uint8Array(await file.arrayBuffer()));
}

/** What is under a seal; null where the code is another one. */
export const openedWith = (seal: PacketSeal, code: string): Promise<PacketRead | null> =>
  unsealedPacket(seal, code);

/** Keeps a packet on this device, for this student. */
export const takenIn = (packet: Openable, student: PacketStudent): Promise<void> =>
  keepPacket(packet, student);

export { forgetPacket as takenOff } from '@/store/fileRepository';
