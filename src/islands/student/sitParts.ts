import { lazy } from 'react';
import type { PaperPacket } from '@/core/formats/packet/paper';

/** What a paper is sat with, and read in. */

const attempt = () => import('./AttemptView');
const held = () => import('./HeldHere');

export const HeldHere = lazy(async () => ({ default: (await held()).HeldHere }));
export const AttemptView = lazy(async () => ({ default: (await attempt()).AttemptView }));
export const ResultView = lazy(async () => ({ default: (await import('./ResultView')).ResultView }));

let all: Promise<unknown> | null = null;

/**
 * Fetches what a paper is sat with. Nobody starts before it is here: what is missing in the middle of an exam is worse
 * than what comes a moment later.
 *
 * @throws where it cannot be fetched; asked again, it tries again
 */
export function paperIsHere(): Promise<unknown> {
  all ??= Promise.all([attempt(), held()]).catch((error: unknown) => {
    all = null;
    throw error;
  });
  return all;
}

/**
 * Fetches what these questions need besides: formulas, and what the kinds of them do not have on the page from the start.
 *
 * @throws where a kind cannot be sat without what could not be fetched
 */
export async function alsoFor({ questions }: PaperPacket): Promise<void> {
  const maths = /"type":"(inlineMath|blockMath)"/.test(JSON.stringify(questions));
  // Without it, formulas are read as they are typed.
  if (maths) await import('@/ui/katex').catch(() => undefined);
  const { viewOf } = await import('../kinds');
  await Promise.all(questions.map((question) => viewOf(question).fetch?.()));
}

/** The same for every paper that this device holds: it is gone on with when nobody can be reached any more. */
export async function heldAreHere(): Promise<void> {
  const { sitDesk } = await import('@/store/sitTables');
  const packets: PaperPacket[] = [];
  await sitDesk.attempts.each(({ packet }) => packets.push(packet));
  await Promise.all(packets.map(alsoFor));
}
