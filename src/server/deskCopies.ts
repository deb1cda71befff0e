import type { z } from 'zod';
import { base64From, bytesFrom } from '@/core/basics/base64';
import { copiesToDrop, DeskCopy, LackingParts, PartId, SealedBytes } from '@/core/formats/backup/copies';
import { keyText } from '@/core/exchange/box';
import { deskBytes, type Endpoint } from './endpoint';
import type { ExchangeStore } from './exchangeStore';
import { bodyOf, json, Refused } from './respond';

/** Copies of paired desks: sealed parts that only the teacher's secret opens, and which of them make up which copy. */

const copyRow = ({ deskId, at }: DeskCopy) => `copies/${keyText([deskId, at])}`;

const copiesIn = async (store: ExchangeStore): Promise<DeskCopy[]> =>
  (await store.list('copies/')).map(({ value }) => value as DeskCopy);

const partsOf = (copies: readonly DeskCopy[]) =>
  new Set(copies.flatMap(({ zip, files }) => [...zip, ...files]));

/** Only one at a time decides what is not needed any more. */
const lock = 'copies';

export function copyEndpoints(store: ExchangeStore): Endpoint[] {
  const has = async (id: string) => (await store.get(`parts/${id}`)) !== undefined;
  const partOf = (params: Record<string, string>) => {
    const id = PartId.safeParse(params.part);
    if (!id.success) throw new Refused('badRequest', 'part');
    return id.data;
  };
  return [
    {
      method: 'POST',
      path: '/desk/copies/lacking',
      role: 'desk',
      answer: async ({ request }) => {
        const { ids } = await bodyOf(request, LackingParts, deskBytes);
        const lacking: string[] = [];
        for (const id of ids) if (!(await has(id))) lacking.push(id);
        return json({ ids: lacking });
      },
    },
    {
      method: 'PUT',
      path: '/desk/copies/parts/:part',
      role: 'desk',
      answer: async ({ request, params }) => {
        const id = partOf(params);
        const bytes = bytesFrom((await bodyOf(request, SealedBytes, deskBytes)).base64);
        await store.putBytes(id, bytes);
        await store.commit([{ key: `parts/${id}`, value: { size: bytes.length } }]);
        return json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/copies/parts/:part',
      role: 'desk',
      answer: async ({ params }) => {
        const bytes = await store.bytes(partOf(params));
        if (!bytes) throw new Refused('notFound');
        return json({ base64: base64From(bytes) } satisfies z.infer<typeof SealedBytes>);
      },
    },
    {
      method: 'PUT',
      path: '/desk/copies',
      role: 'desk',
      answer: async ({ request }) => {
        const copy = await bodyOf(request, DeskCopy, deskBytes);
        await store.locked(lock, () => putCopy(store, copy));
        return json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/copies',
      role: 'desk',
      answer: async () => json((await copiesIn(store)).sort((a, b) => b.at.localeCompare(a.at))),
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
  await store.commit([{ key: copyRow(copy), value: copy }]);
  const all = await copiesIn(store);
  const mine = all.filter(({ deskId }) => deskId === copy.deskId);
  const old = new Set(
    copiesToDrop(
      mine.map(({ at }) => at),
      copy.at,
    ),
  );
  const gone = mine.filter(({ at }) => old.has(at));
  if (gone.length === 0) return;
  const needed = partsOf(all.filter((each) => !gone.includes(each)));
  const unneeded = [...partsOf(gone)].filter((id) => !needed.has(id));
  await store.commit([
    ...gone.map((each) => ({ key: copyRow(each), value: null })),
    ...unneeded.map((id) => ({ key: `parts/${id}`, value: null })),
  ]);
  for (const id of unneeded) await store.dropBytes(id);
}
