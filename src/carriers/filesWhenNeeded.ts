import { sitDesk } from '@/store/sitTables';
import type { FileCarrier } from './inFiles';

/** By hand, fetched where something came by hand: most devices never need it. */
export function filesWhenNeeded(): FileCarrier {
  const needed = async () => (await sitDesk.packets.count()) + (await sitDesk.handAttempts.count()) > 0;
  let hand: Promise<FileCarrier> | null = null;
  const load = () => (hand ??= import('./inFiles').then(({ inFiles }) => inFiles()));
  /** Asks it where something is there; otherwise nothing is known. */
  const or =
    <A extends unknown[], R>(nothing: R, ask: (hand: FileCarrier, ...asked: A) => Promise<R>) =>
    async (...asked: A): Promise<R> =>
      (await needed()) ? ask(await load(), ...asked) : nothing;
  return {
    holds: or(false, (by, ...asked) => by.holds(...asked)),
    holdsAttempt: or(false, (by, ...asked) => by.holdsAttempt(...asked)),
    onlyHere: or(false, (by, ...asked) => by.onlyHere(...asked)),
    keepOnlyHere: or(undefined, (by, ...asked) => by.keepOnlyHere(...asked)),
    greet: or(null, (by, ...asked) => by.greet(...asked)),
    comeAsGuest: async () => null,
    home: or([], (by, ...asked) => by.home(...asked)),
    start: async (...asked) => (await load()).start(...asked),
    handOver: or(null, (by, ...asked) => by.handOver(...asked)),
    present: or(null, (by, ...asked) => by.present(...asked)),
    handOverFile: async (...asked) => (await load()).handOverFile(...asked),
    file: or(null, (by, ...asked) => by.file(...asked)),
    practise: async () => null,
    ask: async () => false,
    handIn: or(null, (by, ...asked) => by.handIn(...asked)),
    result: async (...asked) => (await load()).result(...asked),
    correct: async () => false,
    toHand: or(null, (by, ...asked) => by.toHand(...asked)),
  };
}
