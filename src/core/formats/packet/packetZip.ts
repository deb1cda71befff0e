import type { Student } from '../../model/people';
import { registerName } from '../../model/names';
import { fileNameOf } from '../fileName';
import { packed } from '../zip';
import { packetSealer, packetText, type Packet } from './packetFile';

/** A packet with the student it is for; null: for whoever gets it. */
export interface PacketFor {
  student: Student | null;
  packet: Packet;
}

/** What packets are sealed with: one access code, each with the join code of its student, or nothing. */
export type SealWith = { accessCode: string } | 'joinCodes' | null;

/** Gives so many bytes that nobody can foretell. */
export type Chance = (length: number) => Uint8Array;

/** Makes packets the texts of files, sealed as it says. */
function sealing(seal: SealWith, chance: Chance): (each: PacketFor, title: string) => Promise<string> {
  if (seal === null) return ({ packet }, title) => packetText(packet, title);
  if (seal === 'joinCodes')
    return ({ student, packet }, title) =>
      packetSealer('joinCode', student?.joinCode ?? unsealable(), chance)(packet, title);
  const common = packetSealer('accessCode', seal.accessCode, chance);
  return ({ packet }, title) => common(packet, title);
}

function unsealable(): never {
  throw new RangeError('noJoinCode');
}

/** One packet as the text of a file. */
export const sealedText = (
  packet: PacketFor,
  title: string,
  seal: SealWith,
  chance: Chance,
): Promise<string> => sealing(seal, chance)(packet, title);

/**
 * Packets as a zip with a file for each, named by student and title.
 *
 * @param progress is told how many are done
 */
export async function packetZip(
  packets: readonly PacketFor[],
  title: string,
  seal: SealWith,
  chance: Chance,
  progress: (done: number) => void = () => undefined,
): Promise<Uint8Array<ArrayBuffer>> {
  const files: Record<string, Uint8Array> = {};
  const textFor = sealing(seal, chance);
  for (const [index, each] of packets.entries()) {
    const text = await textFor(each, title);
    const name = fileNameOf(`${each.student ? registerName(each.student) : ''} ${title}`);
    let path = `${name}.json`;
    // Two students of the same name.
    for (let n = 2; files[path]; n++) path = `${name}-${n}.json`;
    files[path] = new TextEncoder().encode(text);
    progress(index + 1);
  }
  return packed(files);
}
