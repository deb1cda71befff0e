import { expose } from 'comlink';
import { packetsIn, type FoundPacket } from '@/core/formats/packet/packetFiles';

/** Packets are unpacked, digested and checked here, so that the page goes on. */
const packetsWorker = {
  read: async (files: File[], progress: (done: number) => void): Promise<FoundPacket[]> => {
    const found: FoundPacket[] = [];
    for (const [index, file] of files.entries()) {
      found.push(...(await packetsIn(file.name, new Uint8Array(await file.arrayBuffer()))));
      progress(index + 1);
    }
    return found;
  },
};
export type PacketsWorker = typeof packetsWorker;

expose(packetsWorker);
