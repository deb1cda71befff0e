import { expose } from 'comlink';
import { packetsIn, type FoundPacket } from '@/core/formats/packet/packetFiles';
import { packetZip, type PacketFor, type SealWith } from '@/core/formats/packet/packetZip';

const chance = (length: number) => crypto.getRandomValues(new Uint8Array(length));

/** Packets are unpacked, digested and checked here, sealed and packed, so that the page goes on. */
const packetsWorker = {
  read: async (files: File[], progress: (done: number) => void): Promise<FoundPacket[]> => {
    const found: FoundPacket[] = [];
    for (const [index, file] of files.entries()) {
      found.push(...(await packetsIn(file.name, new Uint8Array(await file.arrayBuffer()))));
      progress(index + 1);
    }
    return found;
  },
  zip: (packets: PacketFor[], title: string, seal: SealWith, progress: (done: number) => void) =>
    packetZip(packets, title, seal, chance, progress),
};
export type PacketsWorker = typeof packetsWorker;

expose(packetsWorker);
