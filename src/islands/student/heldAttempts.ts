import { nanoid } from 'nanoid';
import type { Carrier, Greeting } from '@/carriers/Carrier';
import { acknowledged, heldFrom, outgoing, pageMemory, withOthers } from '@/core/exchange/held';
import type { PaperPacket } from '@/core/formats/packet/paper';
import { sitDesk, type HeldAttempt } from '@/store/sitTables';
import { handOverFiles } from './studentFiles';

/** This tab: an attempt goes on in one at a time. */
export const tabId = nanoid(12);

/** What this page remembers of what was typed in it. */
export const memory = pageMemory(tabId);

/**
 * Takes a packet into the student's database; what was typed here and not acknowledged stays (see `heldFrom`). Where this
 * device has no room, the page goes on with what it has.
 */
export async function holdAttempt(who: Greeting, packet: PaperPacket): Promise<HeldAttempt> {
  const before = (await sitDesk.attempts.get(packet.attemptId).catch(() => null)) ?? null;
  const held: HeldAttempt = {
    attemptId: packet.attemptId,
    sittingId: packet.sittingId,
    joinCode: who.joinCode,
    packet,
    who,
    // Kept by an older version, there was nothing apart.
    ...heldFrom(packet.answers, before && { ...before, apart: before.apart ?? [] }),
    ...(before?.leftAt !== undefined && { leftAt: before.leftAt }),
    comeBack: before?.comeBack ?? packet.comeBack,
    passed: [...new Set([...(packet.passed ?? []), ...(before?.passed ?? [])])],
  };
  return (await keepHeld(held)) ?? held;
}

/**
 * Keeps what is held on this device, and with it what another page of the same device holds and has not been told of.
 *
 * @returns what is held now; null where there is no room
 */
export async function keepHeld<T extends HeldAttempt>(held: T): Promise<T | null> {
  try {
    return await sitDesk.transaction('rw', sitDesk.attempts, async () => {
      const there = await sitDesk.attempts.get(held.attemptId);
      const others = there && there.page !== undefined && there.page !== tabId ? there : null;
      const all = {
        ...(others ? withOthers(held, { ...others, apart: others.apart ?? [] }, memory) : held),
        page: tabId,
      };
      await sitDesk.attempts.put(all);
      return all;
    });
  } catch {
    return null;
  }
}

/** Whether something typed here has not been acknowledged. */
export const hasUnsent = ({ unsent, apart }: Pick<HeldAttempt, 'unsent' | 'apart'>) =>
  unsent.length + (apart ?? []).length > 0;

/** Once it is over, and the other side said of every answer what became of it, the device forgets paper and answers. */
export async function forgetHeld(attemptId: string): Promise<void> {
  await sitDesk.transaction('rw', sitDesk.attempts, sitDesk.files, async () => {
    await sitDesk.attempts.delete(attemptId);
    await sitDesk.files.where({ attemptId }).delete();
  });
}

/**
 * Hands over what was typed on this device and did not get away when its page was closed: also after the end, when the
 * paper itself is not opened any more.
 *
 * @throws where nobody answers
 */
export async function handOverLeft(carrier: Carrier, joinCode: string): Promise<void> {
  for (const row of await sitDesk.attempts.where({ joinCode }).toArray()) {
    let held: HeldAttempt = { ...row, apart: row.apart ?? [] };
    while (hasUnsent(held)) {
      await handOverFiles(carrier, joinCode, held.attemptId);
      const sent = outgoing(held);
      const reply = await carrier.handOver(joinCode, held.attemptId, {
        answers: sent,
        comeBack: null,
        tabId,
      });
      if (!reply) break;
      const next = acknowledged(held, sent, reply.became, reply.choices, memory);
      if (next.unsent.length + next.apart.length === held.unsent.length + held.apart.length) break;
      held = next;
      await keepHeld(held);
      if (!hasUnsent(held) && reply.state !== 'working') await forgetHeld(held.attemptId);
    }
  }
}

/** What this device can go on with while nobody answers: the papers under this code that it was told are running. */
export async function heldFor(joinCode: string): Promise<HeldAttempt[]> {
  const rows = await sitDesk.attempts.where({ joinCode }).toArray();
  return rows.filter(({ who }) => who !== undefined).map((row) => ({ ...row, apart: row.apart ?? [] }));
}
