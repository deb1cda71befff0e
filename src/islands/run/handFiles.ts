import { proxy } from 'comlink';
import { packetSealer, packetText, type AnswersFile } from '@/core/formats/packet/packetFile';
import type { FoundPacket } from '@/core/formats/packet/packetFiles';
import { packed } from '@/core/formats/zip';
import { registerName } from '@/core/model/people';
import type { OddTime } from '@/core/exchange/byHand';
import type { PacketFor, TakenIn } from '@/store/byHand';
import { fileNameOf } from '@/ui/saveFile';
import { stoppable, type Work } from '@/workers/stoppable';
import type { PacketsWorker } from '@/workers/packets.worker';

/** Files as they go out of a sitting and come back, and what is said of them. */

const chance = (length: number) => crypto.getRandomValues(new Uint8Array(length));

/** Reads files that were dropped, in a worker. */
export function readFiles(files: File[], progress: (done: number) => void): Work<FoundPacket[]> {
  const worker = new Worker(new URL('../../workers/packets.worker.ts', import.meta.url), { type: 'module' });
  return stoppable<PacketsWorker, FoundPacket[]>(worker, (reader) => reader.read(files, proxy(progress)));
}

/** A packet as a file: sealed with the access code where there is one to seal with. */
export function paperText({ packet }: PacketFor, title: string, seal: string | null): Promise<string> {
  return seal === null ? packetText(packet, title) : packetSealer('accessCode', seal, chance)(packet, title);
}

/** Packets with a file for each student, as a zip; sealed with one code, or each with the join code of its student. */
export async function zipOf(
  packets: readonly PacketFor[],
  title: string,
  seal: string | 'joinCodes' | null,
  progress: (done: number) => void,
): Promise<Uint8Array<ArrayBuffer>> {
  const files: Record<string, Uint8Array> = {};
  const common = seal !== null && seal !== 'joinCodes' ? packetSealer('accessCode', seal, chance) : null;
  for (const [index, { student, packet }] of packets.entries()) {
    const own = student && seal === 'joinCodes' ? packetSealer('joinCode', student.joinCode, chance) : null;
    const text = await (own ?? common ?? packetText)(packet, title);
    const name = fileNameOf(`${student ? registerName(student) : ''} ${title}`);
    let path = `${name}.json`;
    // Two students of the same name.
    for (let n = 2; files[path]; n++) path = `${name}-${n}.json`;
    files[path] = new TextEncoder().encode(text);
    progress(index + 1);
  }
  return packed(files);
}

/** A file that came, and what became of it. */
export type Came =
  | { name: string; became: 'refused'; words: string }
  | { name: string; became: 'changed'; file: AnswersFile }
  | { name: string; became: 'told'; file: AnswersFile; taken: TakenIn };

const refusalWords = {
  notPacket: 'Not a file from Gribbet.',
  newer: 'Made by a newer Gribbet than this one.',
  damaged: 'Damaged: a part of it is missing or spoilt. Nothing of it can be read; ask for it again.',
  badZip: 'A zip that cannot be unpacked.',
  tooLarge: 'Too large to be answers.',
};

/** What a file is that holds no answers to be taken in; null where it does. */
export function refusalOf({ name, read }: FoundPacket): Came | null {
  const refused = (words: string): Came => ({ name, became: 'refused', words });
  if (read.outcome === 'refused') return refused(refusalWords[read.why]);
  if (read.outcome === 'sealed') return refused(`A sealed packet of ${read.title}, not answers.`);
  if (read.packet.kind === 'answers') return null;
  const { title } = read.packet.content.sitting;
  return refused(`${read.packet.kind === 'paper' ? 'The paper' : 'A script'} of ${title}, not answers.`);
}

export const oddWords: Record<OddTime, string> = {
  begunEarly: 'By the clock of that computer it was begun before the sitting opened.',
  endedLate: 'By the clock of that computer it went on after time was up.',
  clockAhead: 'The clock of that computer is ahead of this one.',
};
