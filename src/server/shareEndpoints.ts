import { createHash, createHmac } from 'node:crypto';
import { keyText } from '@/core/exchange/mailbox';
import { AskShare, PutMarks, PutShare, type MarksNews } from '@/core/exchange/shares';
import { codePassword } from '@/core/formats/packet/code';
import { deskBytes, marksBytes, smallBytes, type Asked, type Endpoint, type Surroundings } from './endpoint';
import type { KeptChange } from './exchangeStore';
import { bodyOf, fitting, Refused } from './respond';

/** Where a share lies; without bytes it was pulled back. */
interface ShareRow {
  bytesId: string | null;
  codeKey: string;
}

/** Marks that came back: where they lie. */
interface MarksRow {
  bytesId: string;
}

const shareKey = (id: string) => `shares/${keyText([id])}`;
const marksKey = (id: string) => `shareMarks/${keyText([id])}`;

/**
 * Shares of marking: the desk puts them in sealed, who has a share's code gets that one and nothing else, and puts its
 * marks in, sealed as well. What is pulled back is gone; marks that came before stay.
 */
export function shareEndpoints(around: Surroundings): Endpoint[] {
  const shares = sharesIn(around);
  return [...endpointsOfDesk(around, shares), ...endpointsOfMarker(around, shares)];
}

const idOf = ({ http }: Asked) => http.req.param('share') ?? '';

/** How shares lie in the store, and how one is found by its code. */
function sharesIn({ store, settings, guesses }: Surroundings) {
  const bytesIdOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('base64url');
  /** A code is known by what only this server can draw from it. */
  const codeKeyOf = (code: string) =>
    `shareCodes/${createHmac('sha256', `${settings.secret} ${store.id}`).update(codePassword(code)).digest('hex')}`;
  const keepText = async (text: string) => {
    const bytes = new TextEncoder().encode(text);
    const id = bytesIdOf(bytes);
    await store.putBytes(id, bytes);
    return id;
  };
  const textAt = async (bytesId: string) => {
    const bytes = await store.bytes(bytesId);
    return bytes && new TextDecoder().decode(bytes);
  };
  /** The share of a code; wrong codes are counted against where they come from. */
  const shareWith = async ({ from, now }: Asked, code: string) => {
    const id = await guesses.codes.look(
      from,
      now,
      code,
      async () => ((await store.get(codeKeyOf(code))) as string | undefined) ?? null,
    );
    const row = id === null ? undefined : ((await store.get(shareKey(id))) as ShareRow | undefined);
    if (id === null || !row) throw new Refused('notFound', 'code');
    if (row.bytesId === null) throw new Refused('pulledBack', 'code');
    return { id, bytesId: row.bytesId };
  };
  return { codeKeyOf, keepText, textAt, shareWith };
}
type Shares = ReturnType<typeof sharesIn>;

function endpointsOfDesk({ store, log }: Surroundings, { codeKeyOf, keepText, textAt }: Shares): Endpoint[] {
  return [
    {
      method: 'PUT',
      path: '/desk/shares/:share',
      role: 'desk',
      most: deskBytes,
      answer: async (asked) => {
        const { code, text } = fitting(PutShare, await bodyOf(asked.http));
        const row: ShareRow = { bytesId: await keepText(text), codeKey: codeKeyOf(code) };
        await store.commit([
          { key: shareKey(idOf(asked)), value: row },
          { key: row.codeKey, value: idOf(asked) },
        ]);
        log('a share of marking was put in');
        return asked.http.json({});
      },
    },
    {
      method: 'DELETE',
      path: '/desk/shares/:share',
      role: 'desk',
      most: smallBytes,
      answer: async (asked) => {
        const key = shareKey(idOf(asked));
        await store.locked(key, async () => {
          const row = (await store.get(key)) as ShareRow | undefined;
          if (!row?.bytesId) return;
          await store.commit([{ key, value: { ...row, bytesId: null } satisfies ShareRow }]);
          await store.dropBytes(row.bytesId);
        });
        return asked.http.json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/shares',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        const after = Number(http.req.query('after') ?? 0);
        if (!Number.isInteger(after) || after < 0) throw new Refused('badRequest', 'after');
        const { rows, rev } = await store.changed(after, ['shareMarks/'], Infinity);
        const news: MarksNews = { rev, marks: [] };
        for (const { key, value } of rows) {
          const text = await textAt((value as MarksRow).bytesId);
          const shareId = decodeURIComponent(key.slice('shareMarks/'.length));
          if (text) news.marks.push({ shareId, text });
        }
        return http.json(news);
      },
    },
  ];
}

function endpointsOfMarker({ store }: Surroundings, { keepText, textAt, shareWith }: Shares): Endpoint[] {
  return [
    {
      method: 'POST',
      path: '/share',
      role: 'marker',
      most: smallBytes,
      answer: async (asked) => {
        const { code } = fitting(AskShare, await bodyOf(asked.http));
        const { id, bytesId } = await shareWith(asked, code);
        const text = await textAt(bytesId);
        if (!text) throw new Refused('notFound', 'code');
        return asked.http.json({ id, text });
      },
    },
    {
      method: 'PUT',
      path: '/share/marks',
      role: 'marker',
      most: marksBytes,
      answer: async (asked) => {
        const { code, text } = fitting(PutMarks, await bodyOf(asked.http));
        const { id } = await shareWith(asked, code);
        const key = marksKey(id);
        await store.locked(key, async () => {
          const before = (await store.get(key)) as MarksRow | undefined;
          const row: MarksRow = { bytesId: await keepText(text) };
          const changes: KeptChange[] = [{ key, value: row }];
          await store.commit(changes);
          if (before && before.bytesId !== row.bytesId) await store.dropBytes(before.bytesId);
        });
        return asked.http.json({});
      },
    },
  ];
}
