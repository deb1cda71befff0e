import { reply } from '@/core/exchange';
import { askedBy } from '@/core/exchange/messageList';
import { packetText } from '@/core/formats/packet/packetFile';
import { fullName } from '@/core/model/names';
import { fileRepository, carriedAttemptsOf, answersFileOf } from '@/store/fileRepository';
import { sitDesk } from '@/store/sitTables';
import type { Carrier, FileToHand } from './Carrier';

/** The carrier of what came to this device as a file; what else there is, others carry. */
export interface FileCarrier extends Carrier {
  /** Whether a sitting came to this device for the student with this code. */
  holds(joinCode: string, sittingId: string): Promise<boolean>;
  holdsAttempt(attemptId: string): Promise<boolean>;
  /** Whether nobody else knew this code within the last hour. */
  onlyHere(joinCode: string): Promise<boolean>;
  keepOnlyHere(joinCode: string): Promise<void>;
}

const hourMs = 3_600_000;

/** Whether there are answers, and whether they were saved as they are. */
async function savedAs(joinCode: string, sittingId: string): Promise<'nothing' | 'toSave' | 'saved'> {
  const attempts = await carriedAttemptsOf(joinCode, sittingId);
  if (attempts.length === 0) return 'nothing';
  const savedAt = (await sitDesk.packets.get([joinCode, sittingId]))?.savedAt ?? '';
  const latest = attempts.flatMap(({ lastSeenAt, handedInAt }) => [lastSeenAt, handedInAt ?? '']);
  return latest.every((at) => at <= savedAt) ? 'saved' : 'toSave';
}

/**
 * Carries packets by hand: papers and scripts come to this device as files, answers leave it as one. In between the
 * exchange runs here, on a paper without key; the clock of this device rules.
 */
export function inFiles(now: () => number = () => Date.now()): FileCarrier {
  const here = askedBy((name, said) => reply(fileRepository(String(said[0])), name, said, now()));
  return {
    holds: async (joinCode, sittingId) => (await sitDesk.packets.get([joinCode, sittingId])) !== undefined,
    holdsAttempt: async (attemptId) => (await sitDesk.handAttempts.get(attemptId)) !== undefined,
    onlyHere: async (joinCode) => {
      const packets = await sitDesk.packets.where({ joinCode }).toArray();
      return packets.some(({ onlyHereAt }) => Math.abs(now() - (onlyHereAt ?? -Infinity)) < hourMs);
    },
    keepOnlyHere: async (joinCode) =>
      void (await sitDesk.packets.where({ joinCode }).modify({ onlyHereAt: now() })),
    ...here,
    comeAsGuest: async () => null,
    home: async (code) => {
      const rows = await here.home(code);
      return Promise.all(rows.map(async (row) => ({ ...row, inFile: await savedAs(code, row.sittingId) })));
    },
    // All that came to this device came to be seen here.
    file: async (code, _sittingId, fileId) => (await fileRepository(code).file(fileId)) ?? null,
    practise: async () => null,
    ask: async () => false,
    correct: async () => false,
    toHand: async (code, sittingId): Promise<FileToHand | null> => {
      const content = await answersFileOf(code, sittingId, new Date(now()).toISOString());
      const title = (await sitDesk.packets.get([code, sittingId]))?.sitting.title ?? '';
      if (!content) return null;
      await sitDesk.packets.update([code, sittingId], { savedAt: content.savedAt });
      const text = await packetText({ kind: 'answers', content }, title);
      return { words: `${title} answers ${fullName(content.student)}`, text };
    },
  };
}
