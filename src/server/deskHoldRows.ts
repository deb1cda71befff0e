import { keyText } from '@/core/exchange/mailbox';
import type { DeskHold } from '@/core/model/deskHold';
import type { ExchangeStore } from './exchangeStore';

/** Where it is kept which computer holds a desk. */

export const holdRow = (deskId: string) => `holds/${keyText([deskId])}`;

export const holdOf = async (store: ExchangeStore, deskId: string): Promise<DeskHold | null> =>
  ((await store.get(holdRow(deskId))) as DeskHold | undefined) ?? null;

export const holdsIn = async (store: ExchangeStore): Promise<DeskHold[]> =>
  (await store.list('holds/')).map(({ value }) => value as DeskHold);
