import { z } from 'zod';
import { Id, Instant } from '../basics/common';

/** A teacher's desk on several computers: one holds it and changes it, the others read. The server says which. */

/** What a teacher calls a computer: the server knows it. */
export const ComputerName = z.string().trim().min(1).max(60);

export const Computer = z.object({ id: Id, name: ComputerName });
export type Computer = z.infer<typeof Computer>;

export const DeskId = z.string().regex(/^[a-z0-9]{6}$/);

/** Which computer holds a desk. */
export const DeskHold = z.object({
  deskId: DeskId,
  computer: Computer,
  since: Instant,
  /** Counted up whenever another computer takes the desk over. */
  turn: z.number().int().min(1),
  /** Another computer asks for it: the last changes are waited for. */
  asked: z.object({ computer: Computer, at: Instant, heard: z.boolean() }).nullable(),
  /** Whoever holds it has sent all there is, and changes nothing any more. */
  given: z.boolean(),
  /** When the newest copy of it was made; null: there is none yet. */
  sentAt: Instant.nullable().default(null),
});
export type DeskHold = z.infer<typeof DeskHold>;

const about = { deskId: DeskId, computer: Computer };

/** The same as it is told to who asks. */
export const ToldHold = DeskHold.extend({
  /** How long ago the computer that holds it was heard of, ms; null: not since the server began. */
  heardMs: z.number().nullable(),
});
export type ToldHold = z.infer<typeof ToldHold>;

/** What a computer says of a desk. */
export const HoldAct = z.discriminatedUnion('act', [
  /** It is here, unless another computer holds it already. */
  z.object({ act: z.literal('begin'), ...about }),
  /** It is wanted here: whoever holds it is to send all there is. */
  z.object({ act: z.literal('ask'), ...about }),
  /** That it is wanted elsewhere was heard: the last changes are on their way. */
  z.object({ act: z.literal('hear'), ...about }),
  /** All there is was sent. */
  z.object({ act: z.literal('give'), ...about }),
  /** It is here from now on. Refused where another was quicker, or a newer copy came than the one that was fetched. */
  z.object({ act: z.literal('take'), ...about, turn: z.number().int().min(0), copyAt: Instant.nullable() }),
]);
export type HoldAct = z.infer<typeof HoldAct>;

/** Why an act is refused: `elsewhere`: another computer holds the desk; `changed`: it is not as it was when it was looked at. */
export type HoldRefusal = 'elsewhere' | 'changed';

/**
 * The hold after an act.
 *
 * @param newest when the newest copy of the desk was made; null: there is none
 * @param now ISO instant
 */
export function holdAfter(
  hold: DeskHold | null,
  act: HoldAct,
  newest: string | null,
  now: string,
): DeskHold | HoldRefusal {
  const { deskId, computer } = act;
  const mine = hold === null || hold.computer.id === computer.id;
  const here = (turn: number): DeskHold => ({
    ...{ deskId, computer, since: hold && mine ? hold.since : now, turn, asked: null, given: false },
    sentAt: newest,
  });
  switch (act.act) {
    case 'begin':
      if (!mine) return 'elsewhere';
      return hold === null ? here(1) : { ...hold, computer };
    case 'ask':
      return mine
        ? (hold ?? 'changed')
        : { ...hold, asked: { computer, at: now, heard: false }, given: false };
    case 'hear':
      return mine && hold ? { ...hold, asked: hold.asked && { ...hold.asked, heard: true } } : 'elsewhere';
    case 'give':
      return mine && hold ? { ...hold, given: true } : 'elsewhere';
    case 'take':
      if ((hold?.turn ?? 0) !== act.turn || newest !== act.copyAt) return 'changed';
      return mine ? here(Math.max(1, act.turn)) : here(act.turn + 1);
  }
}

/** Whether what this computer has may be sent as the desk. */
export const mayChange = (hold: DeskHold | null, computerId: string): boolean =>
  hold === null || hold.computer.id === computerId;

/** A request that nobody came back for holds nobody up any longer. */
const askedMs = 60_000;

/** The computer that waits for the last changes of a desk; null: none does any more. @param now ms since 1970 */
export const waitingFor = ({ asked }: DeskHold, now: number): Computer | null =>
  asked !== null && now - Date.parse(asked.at) < askedMs ? asked.computer : null;

/** A browser that is paired with the server. */
export const PairedComputer = z.object({
  id: Id,
  /** '' where it was paired by an older version. */
  name: z.string().max(60),
  pairedAt: Instant,
  /** Whether it is the one that asks. */
  here: z.boolean(),
});
export type PairedComputer = z.infer<typeof PairedComputer>;
