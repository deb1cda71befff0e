import type { Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import { z } from 'zod';
import {
  MailboxChanges,
  type MailboxNews,
  type MailboxPresence,
  type MailboxState,
} from '@/core/exchange/mailbox';
import type { ExchangeRepository } from '@/core/exchange/repository';
import { PackedAsset } from '@/core/basics/asset';
import { assetId, packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { Line } from '@/core/basics/common';
import { keys } from './mailboxRepository';
import { copyEndpoints } from './deskCopies';
import { newsAfter, sittingsIn, takeChanges } from './deskSide';
import { deskBytes, smallBytes, type Endpoint, type Surroundings } from './endpoint';
import { bodyOf, fitting, Refused } from './respond';
import { pair, unpair } from './sessions';
import { addressesOf } from './settings';

const mostStreams = 64;
/** Between two signs that the stream is there; and after a change, so that several are told at once. */
const beatMs = 15_000;
const gatherMs = 150;

/** What the teacher's desk asks of the server. */
export function deskEndpoints(
  place: ExchangeRepository,
  { store, settings, guesses, presence, log }: Surroundings,
): Endpoint[] {
  let streams = 0;

  /** Who is stopped from guessing: addresses, and students who typed wrong access codes. */
  const stoppedNow = (now: number): MailboxState['stopped'] => [
    ...guesses.codes.list(now).map((each) => ({ ...each, what: 'codes' as const })),
    ...guesses.guests.list(now).map((each) => ({ ...each, what: 'guests' as const })),
    ...guesses.access.list(now).map((each) => ({ ...each, what: 'access' as const })),
  ];

  /** Server-sent events (HTML Living Standard, section 9.2): the revision, whenever it has changed. */
  const stream = (http: Context): Response => {
    const answer = streamSSE(http, async (events) => {
      streams += 1;
      let wake: () => void = () => undefined;
      const unwatch = store.watch(() => wake());
      events.onAbort(() => wake());
      http.req.raw.signal.addEventListener('abort', () => events.abort());
      try {
        for (let told = -1; !events.aborted;) {
          const woken = new Promise<void>((resolve) => (wake = resolve));
          const rev = await store.rev();
          if (rev === told) await events.write(': still here\n\n');
          else await events.writeSSE({ data: JSON.stringify({ rev }) });
          told = rev;
          await Promise.race([woken, events.sleep(beatMs)]);
          // So that several go together.
          if (!events.aborted) await events.sleep(gatherMs);
        }
      } finally {
        streams -= 1;
        unwatch();
      }
    });
    // What stands between must not hold it back.
    answer.headers.set('cache-control', 'no-store');
    answer.headers.set('x-accel-buffering', 'no');
    return answer;
  };

  return [
    {
      method: 'POST',
      path: '/pair',
      role: 'anyone',
      most: smallBytes,
      answer: async ({ http, from, now }) => {
        const { secret } = fitting(z.object({ secret: z.string().max(200) }), await bodyOf(http));
        const paired = await guesses.secret.look(from, now, secret, () =>
          pair(store, settings, http, secret, now),
        );
        log(paired === null ? 'pairing refused: wrong secret' : 'a desk was paired');
        if (paired === null) throw new Refused('wrongSecret');
        return http.json({ mailbox: store.id });
      },
    },
    {
      method: 'DELETE',
      path: '/pair',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        await unpair(store, settings, http);
        return http.json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/state',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http, now }) => {
        const state: MailboxState = {
          mailbox: store.id,
          rev: await store.rev(),
          now,
          addresses: addressesOf(settings),
          sittings: await sittingsIn(store),
          stopped: stoppedNow(now),
        };
        return http.json(state);
      },
    },
    {
      method: 'POST',
      path: '/desk/forgive',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        const { from } = fitting(z.object({ from: Line }), await bodyOf(http));
        for (const each of [guesses.codes, guesses.near, guesses.access, guesses.guests])
          await each.forgive(from);
        return http.json({});
      },
    },
    {
      method: 'POST',
      path: '/desk/changes',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http }) => {
        const { changes } = fitting(MailboxChanges, await bodyOf(http));
        await takeChanges(store, changes);
        return http.json({ mailbox: store.id });
      },
    },
    {
      method: 'GET',
      path: '/desk/news',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http, now }) => {
        const news = await newsAfter(store, afterOf(http), now);
        return http.json({ ...news, stopped: stoppedNow(now) } satisfies MailboxNews);
      },
    },
    {
      method: 'GET',
      path: '/desk/present',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http, now }) =>
        http.json({ now, seen: presence.since(afterOf(http)) } satisfies MailboxPresence),
    },
    {
      method: 'GET',
      path: '/desk/stream',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        if (streams >= mostStreams) throw new Refused('failed', 'too many streams');
        return stream(http);
      },
    },
    {
      method: 'PUT',
      path: '/desk/files',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http }) => {
        const { bytes, ...ref } = unpackedAsset(fitting(PackedAsset, await bodyOf(http)));
        if ((await assetId(bytes)) !== ref.id) throw new Refused('badRequest', 'id');
        await store.putBytes(ref.id, bytes);
        await store.commit([{ key: keys.file(ref.id), value: ref }]);
        return http.json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/files/:file',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        const file = await place.file(http.req.param('file') ?? '');
        if (!file) throw new Refused('notFound');
        return http.json(packedAsset(file));
      },
    },
    ...copyEndpoints(store),
  ];
}

/** From where on news are asked for. */
function afterOf(http: Context): number {
  const after = Number(http.req.query('after') ?? 0);
  if (!Number.isInteger(after) || after < 0) throw new Refused('badRequest', 'after');
  return after;
}
