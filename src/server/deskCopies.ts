import type { Context } from 'hono';
import type { z } from 'zod';
import { base64From, bytesFrom } from '@/core/basics/base64';
import { DeskCopy, LackingParts, PartId, SealedBytes } from '@/core/model/deskCopy';
import { copiesToDrop } from '@/core/formats/backup/copies';
import { keyText } from '@/core/exchange/mailbox';
import { deskBytes, smallBytes, type Endpoint } from './endpoint';
import type { ExchangeStore } from './exchangeStore';
import { holdOf, holdRow } from './deskHoldRows';
import { mayChange } from '@/core/model/deskHold';
import { bodyOf, fitting, Refused } from './respond';

/** Copies of paired desks: sealed parts that only the teacher's secret opens, and which of them make up which copy. */

const copyRow = ({ deskId, at }: DeskCopy) => `copies/${keyText([deskId, at])}`;

/** The newest copy of a desk, without those of before two were made one; null: there is none. */
export async function newestCopy(store: ExchangeStore, deskId: string): Promise<DeskCopy | null> {
  const all = (await store.list(`copies/${keyText([deskId])}/`)).map(({ value }) => value as DeskCopy);
  const sorted = all.filter(({ kept }) => !kept).sort((x, y) => y.at.localeCompare(x.at));
  return sorted[0] ?? null;
}

const copiesIn = async (store: ExchangeStore): Promise<DeskCopy[]> =>
  (await store.list('copies/')).map(({ value }) => value as DeskCopy);

const partsOf = (copies: readonly DeskCopy[]) =>
  new Set(copies.flatMap(({ zip, files }) => [...zip, ...files]));

/** Only one at a time decides what is not needed any more, and who holds a desk. */
export const copiesLock = 'copies';

/** The sealed parts that copies are made of. */
function partEndpoints(store: ExchangeStore): Endpoint[] {
  const has = async (id: string) => (await store.get(`parts/${id}`)) !== undefined;
  const partOf = (http: Context) => {
    const id = PartId.safeParse(http.req.param('part'));
    if (!id.success) throw new Refused('badRequest', 'part');
    return id.data;
  };
  return [
    {
      method: 'POST',
      path: '/desk/copies/lacking',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http }) => {
        const { ids } = fitting(LackingParts, await bodyOf(http));
        const lacking: string[] = [];
        for (const id of ids) if (!(await has(id))) lacking.push(id);
        return http.json({ ids: lacking });
      },
    },
    {
      method: 'PUT',
      path: '/desk/copies/parts/:part',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http }) => {
        const id = partOf(http);
        const bytes = bytesFrom(fitting(SealedBytes, await bodyOf(http)).base64);
        await store.putBytes(id, bytes);
        await store.commit([{ key: `parts/${id}`, value: { size: bytes.length } }]);
        return http.json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/copies/parts/:part',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        const bytes = await store.bytes(partOf(http));
        if (!bytes) throw new Refused('notFound');
        return http.json({ base64: base64From(bytes) } satisfies z.infer<typeof SealedBytes>);
      },
    },
  ];
}

export function copyEndpoints(store: ExchangeStore): Endpoint[] {
  return [
    ...partEndpoints(store),
    {
      method: 'PUT',
      path: '/desk/copies',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http }) => {
        const copy = fitting(DeskCopy, await bodyOf(http));
        await store.locked(copiesLock, () => putCopy(store, copy));
        return http.json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/copies',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        const newestOf = http.req.query('newest');
        if (newestOf === undefined)
          return http.json((await copiesIn(store)).sort((a, b) => b.at.localeCompare(a.at)));
        const copy = await newestCopy(store, newestOf);
        return http.json(copy ? [copy] : []);
      },
    },
  ];
}

/**
 * Takes a copy whose parts are all there, and drops the older ones of the same desk that need not be kept. Copies of
 * another desk stay: it may be the one that is looked for.
 */
async function putCopy(store: ExchangeStore, copy: DeskCopy): Promise<void> {
  for (const id of partsOf([copy]))
    if ((await store.get(`parts/${id}`)) === undefined) throw new Refused('notYet', 'parts');
  const hold = await holdOf(store, copy.deskId);
  if (!copy.kept && !mayChange(hold, copy.computer ?? '')) throw new Refused('elsewhere');
  await store.commit([
    { key: copyRow(copy), value: copy },
    ...(hold && !copy.kept ? [{ key: holdRow(copy.deskId), value: { ...hold, sentAt: copy.at } }] : []),
  ]);
  const all = await copiesIn(store);
  const mine = all.filter(({ deskId }) => deskId === copy.deskId);
  const old = new Set(
    copiesToDrop(
      mine.filter(({ kept }) => !kept).map(({ at }) => at),
      copy.at,
      copy.since,
    ),
  );
  const isGone = ({ at, kept }: DeskCopy) =>
    kept ? kept.until < copy.at || (copy.since !== undefined && at < copy.since) : old.has(at);
  const gone = mine.filter(isGone);
  if (gone.length === 0) return;
  const needed = partsOf(all.filter((each) => !gone.includes(each)));
  const unneeded = [...partsOf(gone)].filter((id) => !needed.has(id));
  await store.commit([
    ...gone.map((each) => ({ key: copyRow(each), value: null })),
    ...unneeded.map((id) => ({ key: `parts/${id}`, value: null })),
  ]);
  for (const id of unneeded) await store.dropBytes(id);
}
