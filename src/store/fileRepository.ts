import type { ExchangeKeep, ExchangeRepository } from '@/core/exchange/repository';
import { AnswersFile, type Packet, type PacketStudent } from '@/core/formats/packet/packetFile';
import type { PackedAsset } from '@/core/basics/asset';
import { packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import type { Attempt } from '@/core/model/sitting';
import { newId } from './ids';
import { stagesOf } from '@/core/model/release';
import { sitDesk, type CarriedPacket } from './sitTables';

/**
 * What came to this device by hand, as the exchange knows it: for one student. It is the same exchange as on the desk and
 * on the server; this device keeps what he answers, and its clock rules.
 */
export function fileRepository(joinCode: string): ExchangeRepository {
  const packets = () => sitDesk.packets.where({ joinCode }).toArray();
  const packet = (sittingId: string) => sitDesk.packets.get([joinCode, sittingId]);
  const keep: ExchangeKeep = {
    attempt: async (attempt) => void (await sitDesk.handAttempts.put(attempt)),
    guest: () => Promise.reject(new RangeError('noGuestInFile')),
    request: () => Promise.reject(new RangeError('noRequestInFile')),
    opened: async () => undefined,
    file: async (file) => void (await sitDesk.handFiles.put({ ...file, joinCode })),
    freeze: async () => null,
  };
  return {
    studentWith: async (code) => {
      const held = code === joinCode ? await packets() : [];
      const groupIds = held.flatMap(({ sitting }) => sitting.groupIds);
      return held[0] && { ...held[0].student, groupIds };
    },
    groups: async () => [],
    sitting: async (id) => (await packet(id))?.sitting,
    sittingsOf: async () => (await packets()).map(({ sitting }) => sitting),
    guestSittings: async () => [],
    guestsOf: async () => 0,
    attemptsOf: (studentId, sittingId) =>
      sitDesk.handAttempts
        .where(sittingId === undefined ? { studentId } : { studentId, sittingId })
        .toArray(),
    allowancesOf: async (_studentId, sittingId) => (await packet(sittingId))?.allowances ?? [],
    requestsOf: async () => [],
    releaseOf: async (studentId, sittingId) => {
      const release = (await packet(sittingId))?.release;
      return release ? { ...release, studentId, stages: stagesOf(release, null) } : undefined;
    },
    marksOf: async () => [],
    repairsOf: async () => [],
    gradesOf: async () => null,
    classTotals: async () => [],
    paperOf: async ({ id }) => (await packet(id))?.paper ?? undefined,
    paperVersion: async (paperId, version) =>
      (await packets()).find(({ paper }) => paper?.paperId === paperId && paper.version === version)?.paper ??
      undefined,
    file: async (id) => sitDesk.handFiles.get([joinCode, id]),
    newId,
    // The teacher is somewhere else.
    seen: () => undefined,
    within: (_studentId, _keeps, work) =>
      sitDesk.transaction('rw', sitDesk.packets, sitDesk.handAttempts, sitDesk.handFiles, async () =>
        work(keep),
      ),
  };
}

/** Keeps what came in a packet for a student. What he has answered already stays. */
export async function keepPacket(
  packet: Exclude<Packet, { kind: 'answers' }>,
  who: PacketStudent,
): Promise<void> {
  const { joinCode } = who;
  const { sitting, pictures } = packet.content;
  const ofStudent = { studentId: joinCode, sittingId: sitting.id };
  await sitDesk.transaction('rw', sitDesk.packets, sitDesk.handAttempts, sitDesk.handFiles, async () => {
    const before = await sitDesk.packets.get([joinCode, sitting.id]);
    const begun = before?.paper && (await sitDesk.handAttempts.where(ofStudent).count()) > 0;
    const common = { joinCode, sittingId: sitting.id };
    if (packet.kind === 'paper') {
      const { paper, allowances, student } = packet.content;
      await sitDesk.packets.put({
        ...common,
        student: handStudent(who, sitting.groupIds),
        sitting,
        // What was begun on another version goes on with it.
        paper: begun ? before.paper : paper,
        allowances,
        madeFor: student?.id ?? null,
        release: before?.release ?? null,
        ...(before?.savedAt !== undefined && { savedAt: before.savedAt }),
      });
    } else {
      const release = { ...packet.content.release, studentId: joinCode };
      const bare: CarriedPacket = {
        ...common,
        student: handStudent(who, sitting.groupIds),
        // There is nothing to sit, only to read.
        sitting: { ...sitting, closedToStartsAt: sitting.createdAt },
        paper: null,
        allowances: [],
        madeFor: null,
        release,
      };
      await sitDesk.packets.put(before ? { ...before, release } : bare);
    }
    for (const picture of pictures) await sitDesk.handFiles.put({ ...unpackedAsset(picture), joinCode });
  });
}

/** A student as this device knows him: his join code stands for his id. */
const handStudent = (who: PacketStudent, groupIds: string[]): CarriedPacket['student'] => ({
  ...who,
  id: who.joinCode,
  number: '',
  email: '',
  groupIds,
});

/** The attempts of a student at what came by hand. */
export const carriedAttemptsOf = (joinCode: string, sittingId: string): Promise<Attempt[]> =>
  sitDesk.handAttempts.where({ studentId: joinCode, sittingId }).toArray();

/** The answers of a student, as they go to the teacher; null where there are none. */
export async function answersFileOf(
  joinCode: string,
  sittingId: string,
  at: string,
): Promise<AnswersFile | null> {
  const packet = await sitDesk.packets.get([joinCode, sittingId]);
  const attempts = await carriedAttemptsOf(joinCode, sittingId);
  if (!packet || attempts.length === 0) return null;
  const { familyName, givenName } = packet.student;
  return AnswersFile.parse({
    sittingId,
    student: { joinCode, familyName, givenName },
    ...(packet.madeFor !== null && { madeFor: packet.madeFor }),
    attempts,
    files: await filesOf(joinCode, attempts),
    savedAt: at,
  } satisfies AnswersFile);
}

async function filesOf(joinCode: string, attempts: readonly Attempt[]): Promise<PackedAsset[]> {
  const ids = [...new Set(attempts.flatMap(({ files }) => files ?? []).map(({ id }) => id))];
  const files = await Promise.all(ids.map((id) => sitDesk.handFiles.get([joinCode, id])));
  return files.filter((file) => file !== undefined).map(packedAsset);
}

/** Takes what came by hand, and the answers to it, off this device. */
export async function forgetPacket(joinCode: string, sittingId: string): Promise<void> {
  const { packets, handAttempts, handFiles, attempts, files } = sitDesk;
  await sitDesk.transaction('rw', packets, handAttempts, handFiles, attempts, files, async () => {
    // What a page had in hand of it, too.
    for (const attemptId of await attempts.where({ joinCode, sittingId }).primaryKeys())
      await files.where({ attemptId }).delete();
    await attempts.where({ joinCode, sittingId }).delete();
    await packets.delete([joinCode, sittingId]);
    await handAttempts.where({ studentId: joinCode, sittingId }).delete();
    // Files are shared by what is left, and go with the last of it.
    if ((await packets.where({ joinCode }).count()) === 0) await handFiles.where({ joinCode }).delete();
  });
}
