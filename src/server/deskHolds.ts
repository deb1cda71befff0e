import { keyText } from '@/core/exchange/mailbox';
import { HoldAct, holdAfter, type DeskHold } from '@/core/model/deskHold';
import { copiesLock, newestCopy } from './deskCopies';
import { smallBytes, type Endpoint } from './endpoint';
import type { ExchangeStore } from './exchangeStore';
import { bodyOf, fitting, Refused } from './respond';

/** Which of a teacher's computers holds the desk. */

const holdRow = (deskId: string) => `holds/${keyText([deskId])}`;

export const holdOf = async (store: ExchangeStore, deskId: string): Promise<DeskHold | null> =>
  ((await store.get(holdRow(deskId))) as DeskHold | undefined) ?? null;

export const holdsIn = async (store: ExchangeStore): Promise<DeskHold[]> =>
  (await store.list('holds/')).map(({ value }) => value as DeskHold);

export function holdEndpoints(store: ExchangeStore): Endpoint[] {
  return [
    {
      method: 'GET',
      path: '/desk/holds',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => http.json(await holdsIn(store)),
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
            await newestCopy(store, act.deskId),
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
