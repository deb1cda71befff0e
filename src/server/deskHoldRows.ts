import { keyText } from '@/core/exchange/mailbox';
import type { Computer, DeskHold } from '@/core/model/deskHold';
import type { ExchangeStore } from './exchangeStore';
import { computerNames } from './sessions';

/** Where it is kept which computer holds a desk. */

export const holdRow = (deskId: string) => `holds/${keyText([deskId])}`;

export const holdOf = async (store: ExchangeStore, deskId: string): Promise<DeskHold | null> =>
  ((await store.get(holdRow(deskId))) as DeskHold | undefined) ?? null;

/** Every desk's; the computers by the names they have now, not by those they had when they said so. */
export async function holdsIn(store: ExchangeStore): Promise<DeskHold[]> {
  const holds = (await store.list('holds/')).map(({ value }) => value as DeskHold);
  if (holds.length === 0) return [];
  const names = await computerNames(store);
  const named = ({ id, name }: Computer): Computer => ({ id, name: names.get(id) ?? name });
  return holds.map((hold) => ({
    ...hold,
    computer: named(hold.computer),
    asked: hold.asked && { ...hold.asked, computer: named(hold.asked.computer) },
  }));
}
