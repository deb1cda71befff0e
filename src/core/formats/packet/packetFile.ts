import { z } from 'zod';
import { ScriptPacket } from '../../handback/script';
import { PackedAsset } from '../../basics/asset';
import { assetId, unpackedAsset } from '../../basics/assetBytes';
import { Id, Instant } from '../../basics/common';
import { PaperVersion } from '../../model/paper';
import { Student } from '../../model/people';
import { Allowance, Attempt, Sitting } from '../../model/sitting';
import { Release } from '../../model/release';
import { codePassword } from './code';
import { Sealed, sealerWith, unsealed } from './sealed';
import { damaged, damagedBy, unwrapped, wrapped, type RefusedFile } from './wrapping';

/** Packets as files, to be passed by hand. The format is in docs/formats.md. */

/** Who an answers or script packet is of. */
export const PacketStudent = Student.pick({ joinCode: true, familyName: true, givenName: true });
export type PacketStudent = z.infer<typeof PacketStudent>;

/** A sitting with its paper, on the way to students: no key, and no access code. */
export const PaperFile = z.object({
  sitting: Sitting,
  paper: PaperVersion,
  /** The one student it is for; absent: whoever gets it. */
  student: Student.pick({ id: true, familyName: true, givenName: true }).optional(),
  /** What that student may have beyond the rules; what holds for him in every sitting is among it. */
  allowances: Allowance.array(),
  pictures: PackedAsset.array(),
});
export type PaperFile = z.infer<typeof PaperFile>;

/** One student's answers on the way to the teacher. */
export const AnswersFile = z.object({
  sittingId: Id,
  student: PacketStudent,
  /** The student whose packet was worked on, where it was made for one. */
  madeFor: Id.optional(),
  attempts: Attempt.array().min(1).max(50),
  files: PackedAsset.array(),
  savedAt: Instant,
});
export type AnswersFile = z.infer<typeof AnswersFile>;

/** What one student gets back. */
export const ScriptFile = z.object({
  sitting: Sitting,
  student: PacketStudent,
  release: Release.extend({ packet: ScriptPacket }),
  /** The pictures of the paper and the files of the answers that stand in it. */
  pictures: PackedAsset.array(),
});
export type ScriptFile = z.infer<typeof ScriptFile>;

export const Packet = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('paper'), content: PaperFile }),
  z.object({ kind: z.literal('answers'), content: AnswersFile }),
  z.object({ kind: z.literal('script'), content: ScriptFile }),
]);
export type Packet = z.infer<typeof Packet>;

/** A packet sealed with what its student knows: the access code, or his own join code. */
export const PacketSeal = Sealed.extend({ opensWith: z.enum(['accessCode', 'joinCode']) });
export type PacketSeal = z.infer<typeof PacketSeal>;

/** What was found in a file. */
export type PacketRead =
  /** `changed`: it can be read, but is not as it was saved. */
  | { outcome: 'read'; packet: Packet; changed: boolean }
  | { outcome: 'sealed'; title: string; seal: PacketSeal }
  | RefusedFile;

const kinds = ['paper', 'answers', 'script', 'sealed'] as const;

/** The largest packet that is read: the files of one attempt in Base64, with room for the rest. */
export const mostPacketBytes = 150 * 1024 * 1024;

/** A packet as the text of a file. */
export async function packetText(packet: Packet, title: string): Promise<string> {
  return wrapped(packet.kind, title, packet.content);
}

/**
 * Seals packets with one code: each as the text of a file.
 *
 * @param chance gives so many bytes that nobody can foretell
 */
export function packetSealer(
  opensWith: PacketSeal['opensWith'],
  code: string,
  chance: (length: number) => Uint8Array,
): (packet: Packet, title: string) => Promise<string> {
  const seal = sealerWith(codePassword(code), chance);
  return async (packet, title) =>
    wrapped('sealed', title, { ...(await seal(await packetText(packet, title))), opensWith });
}

/** What a file holds. Nothing is thrown, whatever the bytes are. */
export async function readPacket(bytes: Uint8Array): Promise<PacketRead> {
  const whole = await unwrapped(bytes, kinds);
  if (whole.outcome === 'refused') return whole;
  const { kind, title, content: inside, changed } = whole;
  if (kind === 'sealed') {
    const seal = PacketSeal.safeParse(inside);
    if (!seal.success) return damagedBy(seal.error, 'content');
    return changed ? damaged('content', 'as its sha256 says') : { outcome: 'sealed', title, seal: seal.data };
  }
  const packet = Packet.safeParse({ kind, content: inside });
  if (!packet.success) return damagedBy(packet.error);
  const spoilt = await spoiltAsset(packet.data);
  return spoilt === null
    ? { outcome: 'read', packet: packet.data, changed }
    : damaged(spoilt, 'as its id says');
}

/** The packet under a seal; null where the code is another one. */
export async function unsealedPacket(seal: PacketSeal, code: string): Promise<PacketRead | null> {
  const text = await unsealed(seal, codePassword(code));
  return text === null ? null : readPacket(new TextEncoder().encode(text));
}

/** The first file in it that is not what its id was drawn from; null for none. */
async function spoiltAsset({ kind, content }: Packet): Promise<string | null> {
  const [assets, field] = kind === 'answers' ? [content.files, 'files'] : [content.pictures, 'pictures'];
  for (const [index, asset] of assets.entries())
    if ((await assetId(unpackedAsset(asset).bytes)) !== asset.id) return `content.${field}.${index}`;
  return null;
}
