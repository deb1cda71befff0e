import type { Presence } from '@/core/exchange/presence';
import { HoldAct, holdAfter, type ToldHold } from '@/core/model/deskHold';
import { copiesLock, newestCopy } from './deskCopies';
import { holdOf, holdRow, holdsIn } from './deskHoldRows';
import { smallBytes, type Endpoint } from './endpoint';
import type { ExchangeStore } from './exchangeStore';
import { bodyOf, fitting, Refused } from './respond';

/** Which of a teacher's computers holds the desk. */

/** What a computer's signs of life go under, beside those of attempts. */
export const computerName = (id: string) => `${ofComputers}${id}`;
const ofComputers = 'computer/';
export const isComputer = (name: string): boolean => name.startsWith(ofComputers);

export function holdEndpoints(store: ExchangeStore, presence: Presence): Endpoint[] {
  return [
    {
      method: 'GET',
      path: '/desk/holds',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http, now }) => {
        const told = (await holdsIn(store)).map((hold): ToldHold => {
          const at = presence.at(computerName(hold.computer.id));
          return { ...hold, heardMs: at === undefined ? null : Math.max(0, now - at) };
        });
        return http.json(told);
      },
    },
    {
      method: 'POST',
      path: '/desk/holds',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http, now }) => {
        const act = fitting(HoldAct, await bodyOf(http));
        // Of those who take it at once, one does; and no copy comes in between.
        const hold = await store.locked(copiesLock, async () => {
          const before = await holdOf(store, act.deskId);
          const after = holdAfter(
            before,
            act,
            (await newestCopy(store, act.deskId))?.at ?? null,
            new Date(now).toISOString(),
          );
          if (typeof after === 'string') throw new Refused(after);
          if (JSON.stringify(after) !== JSON.stringify(before))
            await store.commit([{ key: holdRow(act.deskId), value: after }]);
          return after;
        });
        return http.json(hold);
      },
    },
  ];
}
