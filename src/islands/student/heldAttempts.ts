import type { PaperPacket } from '@/core/formats/packet/paper';
import type { Answers } from '@/core/model/sitting';
import { nanoid } from 'nanoid';
import { sitDesk, type HeldAttempt } from '@/store/sitTables';

/** This tab: an attempt goes on in one at a time. */
export const tabId = nanoid(12);

/**
 * Takes a packet into the student's database. Answers typed here that had not been handed over yet are laid over
 * those that the desk holds, so that nothing typed before a broken connection or a closed tab is lost.
 */
export async function holdAttempt(joinCode: string, packet: PaperPacket): Promise<HeldAttempt> {
  const before = await sitDesk.attempts.get(packet.attemptId);
  const unsent = before?.unsent ?? [];
  const typed: Answers = {};
  for (const id of unsent) {
    const answer = before?.answers[id];
    if (answer) typed[id] = answer;
  }
  const held: HeldAttempt = {
    attemptId: packet.attemptId,
    sittingId: packet.sittingId,
    joinCode,
    packet,
    answers: { ...packet.answers, ...typed },
    comeBack: before?.comeBack ?? packet.comeBack,
    unsent,
    passed: [...new Set([...(packet.passed ?? []), ...(before?.passed ?? [])])],
  };
  await sitDesk.attempts.put(held);
  return held;
}

export async function keepHeld(held: HeldAttempt): Promise<void> {
  await sitDesk.attempts.put(held);
}

/** Once handed in, the device forgets the paper and the answers. */
export async function forgetHeld(attemptId: string): Promise<void> {
  await sitDesk.transaction('rw', sitDesk.attempts, sitDesk.files, async () => {
    await sitDesk.attempts.delete(attemptId);
    await sitDesk.files.where({ attemptId }).delete();
  });
}
