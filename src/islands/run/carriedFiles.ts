import { proxy } from 'comlink';
import type { AnswersFile } from '@/core/formats/packet/packetFile';
import type { FoundPacket } from '@/core/formats/packet/packetFiles';
import type { OddTime } from '@/core/exchange/carriedFiles';
import type { PacketFor, SealWith } from '@/core/formats/packet/packetZip';
import type { TakenIn } from '@/store/carriedFiles';
import { stoppable, type Work } from '@/workers/stoppable';
import type { PacketsWorker } from '@/workers/packets.worker';
import { deskWorker } from '@/workers/deskWorker';

/** Files as they go out of a sitting and come back, and what is said of them. */

const packetsWorker = () => deskWorker('packets');

/** Reads files that were dropped, in a worker. */
export function readFiles(files: File[], progress: (done: number) => void): Work<FoundPacket[]> {
  return stoppable<PacketsWorker, FoundPacket[]>(packetsWorker(), (reader) =>
    reader.read(files, proxy(progress)),
  );
}

export const chance = (length: number) => crypto.getRandomValues(new Uint8Array(length));

/** How far sealing is. */
export interface Sealing {
  done: number;
  all: number;
  stop: () => void;
}

/** Seals packets and packs them into a zip, in a worker; says how far it is, and null when it is over. */
export function zipped(
  packets: readonly PacketFor[],
  title: string,
  seal: SealWith,
  progress: (now: Sealing | null) => void,
): Promise<Uint8Array<ArrayBuffer>> {
  let over = false;
  // The last word of how far it is may come after the end.
  const tell = (done: number) => over || progress({ done, all: packets.length, stop: work.stop });
  const work = stoppable<PacketsWorker, Uint8Array<ArrayBuffer>>(packetsWorker(), (sealer) =>
    sealer.zip([...packets], title, seal, proxy(tell)),
  );
  tell(0);
  return work.result.finally(() => {
    over = true;
    progress(null);
  });
}

/** A file that came, and what became of it. */
export type Came =
  | { name: string; became: 'refused'; words: string }
  | { name: string; became: 'changed'; file: AnswersFile }
  | { name: string; became: 'told'; file: AnswersFile; taken: TakenIn };

const refusalWords = {
  notPacket: 'Not a Gribbet file.',
  otherKind: 'A Gribbet file that holds something else, not answers.',
  newer: 'Made by a newer version of Gribbet.',
  damaged: 'The file is damaged. Nothing was imported; ask for it again.',
  badZip: 'A zip file that can’t be unpacked.',
  tooLarge: 'Too large to be answers.',
};

/** Where a damaged file is so, and what should be there. */
function placeWords(read: FoundPacket['read']): string {
  if (read.outcome !== 'refused' || read.why !== 'damaged') return '';
  return ` (${[read.place || 'the whole file', read.expected].join(': ')})`;
}

/** What a file is that holds no answers to be taken in; null where it does. */
export function refusalOf({ name, read }: FoundPacket): Came | null {
  const refused = (words: string): Came => ({ name, became: 'refused', words });
  if (read.outcome === 'refused') return refused(`${refusalWords[read.why]}${placeWords(read)}`);
  if (read.outcome === 'sealed') return refused(`A sealed packet of ${read.title}, not answers.`);
  if (read.packet.kind === 'answers') return null;
  const { title } = read.packet.content.sitting;
  return refused(`${read.packet.kind === 'paper' ? 'The paper' : 'A script'} of ${title}, not answers.`);
}

export const oddWords: Record<OddTime, string> = {
  begunEarly: 'By that computer’s clock it was started before the sitting opened.',
  endedLate: 'By that computer’s clock it went on after time was up.',
  clockAhead: 'That computer’s clock is ahead of this one.',
};
