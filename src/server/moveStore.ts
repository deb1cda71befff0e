import { chunk } from 'remeda';
import type { ExchangeStore } from './exchangeStore';

/** So many rows go over at once. */
const atOnce = 500;

export interface Moved {
  rows: number;
  files: number;
}

/**
 * Moves all of a store into an empty one, which goes on as the same store: desks and devices that know it notice nothing.
 * The one it comes from is left as it is. No server may use either meanwhile.
 *
 * @throws where the one it goes to is not empty, or does not hold the same afterwards
 */
export async function moveStore(from: ExchangeStore, to: ExchangeStore): Promise<Moved> {
  if ((await to.list('')).length > 0 || (await to.files()).length > 0)
    throw new Error('The store it goes to is not empty: nothing was moved.');
  await to.become(from.id, await from.rev());
  const files = await from.files();
  for (const id of files) {
    const bytes = await from.bytes(id);
    if (bytes) await to.putBytes(id, bytes);
  }
  const rows = await from.list('');
  for (const some of chunk(rows, atOnce)) await to.commit(some.map(({ key, value }) => ({ key, value })));
  const there = new Map((await to.list('')).map(({ key, value }) => [key, JSON.stringify(value)]));
  const lacking = rows.filter(({ key, value }) => there.get(key) !== JSON.stringify(value)).length;
  if (lacking > 0 || there.size !== rows.length || (await to.files()).length !== files.length)
    throw new Error(
      `${lacking} of ${rows.length} rows did not arrive as they were: empty the store it went to, and try again.`,
    );
  return { rows: rows.length, files: files.length };
}
