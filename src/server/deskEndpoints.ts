import { z } from 'zod';
import { BoxChanges, type BoxNews, type BoxState } from '@/core/exchange/box';
import type { ExchangePlace } from '@/core/exchange/place';
import { PackedAsset } from '@/core/basics/asset';
import { assetId, packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { Line } from '@/core/basics/common';
import { keys } from './boxPlace';
import { copyEndpoints } from './deskCopies';
import { newsAfter, sittingsIn, takeChanges } from './deskSide';
import { deskBytes, smallBytes, type Endpoint, type Surroundings } from './endpoint';
import { bodyOf, json, Refused } from './respond';
import { pair, unpair } from './sessions';
import { addressesOf } from './settings';

const mostStreams = 64;

/** What the teacher's desk asks of the server. */
export function deskEndpoints(
  place: ExchangePlace,
  { store, settings, guesses, log }: Surroundings,
): Endpoint[] {
  let streams = 0;

  /** Who is stopped from guessing: addresses, and students who typed wrong access codes. */
  const stoppedNow = (now: number): BoxState['stopped'] => [
    ...guesses.codes.list(now).map((each) => ({ ...each, what: 'codes' as const })),
    ...guesses.guests.list(now).map((each) => ({ ...each, what: 'guests' as const })),
    ...guesses.access.list(now).map((each) => ({ ...each, what: 'access' as const })),
  ];

  /** Server-sent events (HTML Living Standard, section 9.2): the revision, whenever it has changed. */
  function stream(signal: AbortSignal): Response {
    streams += 1;
    let close: () => void = () => undefined;
    const body = new ReadableStream<Uint8Array>({
      start: (controller) => {
        const text = new TextEncoder();
        let due: ReturnType<typeof setTimeout> | null = null;
        const send = (line: string) => {
          try {
            controller.enqueue(text.encode(line));
          } catch {
            close();
          }
        };
        const tell = async () => {
          due = null;
          send(`data: ${JSON.stringify({ rev: await store.rev() })}\n\n`);
        };
        const unwatch = store.watch(() => (due ??= setTimeout(() => void tell(), 150)));
        const beat = setInterval(() => send(': still here\n\n'), 15_000);
        let open = true;
        close = () => {
          if (!open) return;
          open = false;
          streams -= 1;
          unwatch();
          clearInterval(beat);
          if (due) clearTimeout(due);
        };
        signal.addEventListener('abort', close);
        void tell();
      },
      cancel: () => close(),
    });
    return new Response(body, {
      headers: {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        'x-accel-buffering': 'no',
      },
    });
  }

  return [
    {
      method: 'POST',
      path: '/pair',
      role: 'anyone',
      answer: async ({ request, from, now }) => {
        const { secret } = await bodyOf(request, z.object({ secret: z.string().max(200) }), smallBytes);
        const cookie = await guesses.secret.look(from, now, secret, () => pair(store, settings, secret, now));
        log(cookie === null ? 'pairing refused: wrong secret' : 'a desk was paired');
        if (cookie === null) throw new Refused('wrongSecret');
        return json({ box: store.id }, { 'set-cookie': cookie });
      },
    },
    {
      method: 'DELETE',
      path: '/pair',
      role: 'desk',
      answer: async ({ request }) => json({}, { 'set-cookie': await unpair(store, settings, request) }),
    },
    {
      method: 'GET',
      path: '/desk/state',
      role: 'desk',
      answer: async ({ now }) => {
        const state: BoxState = {
          box: store.id,
          rev: await store.rev(),
          now,
          addresses: addressesOf(settings),
          sittings: await sittingsIn(store),
          stopped: stoppedNow(now),
        };
        return json(state);
      },
    },
    {
      method: 'POST',
      path: '/desk/forgive',
      role: 'desk',
      answer: async ({ request }) => {
        const { from } = await bodyOf(request, z.object({ from: Line }), smallBytes);
        for (const each of [guesses.codes, guesses.near, guesses.access, guesses.guests])
          await each.forgive(from);
        return json({});
      },
    },
    {
      method: 'POST',
      path: '/desk/changes',
      role: 'desk',
      answer: async ({ request }) => {
        const { changes } = await bodyOf(request, BoxChanges, deskBytes);
        await takeChanges(store, changes);
        return json({ box: store.id });
      },
    },
    {
      method: 'GET',
      path: '/desk/news',
      role: 'desk',
      answer: async ({ request, now }) => {
        const after = Number(new URL(request.url).searchParams.get('after') ?? 0);
        if (!Number.isInteger(after) || after < 0) throw new Refused('badRequest', 'after');
        return json({ ...(await newsAfter(store, after, now)), stopped: stoppedNow(now) } satisfies BoxNews);
      },
    },
    {
      method: 'GET',
      path: '/desk/stream',
      role: 'desk',
      answer: async ({ request }) => {
        if (streams >= mostStreams) throw new Refused('failed', 'too many streams');
        return stream(request.signal);
      },
    },
    {
      method: 'PUT',
      path: '/desk/files',
      role: 'desk',
      answer: async ({ request }) => {
        const { bytes, ...ref } = unpackedAsset(await bodyOf(request, PackedAsset, deskBytes));
        if ((await assetId(bytes)) !== ref.id) throw new Refused('badRequest', 'id');
        await store.putBytes(ref.id, bytes);
        await store.commit([{ key: keys.file(ref.id), value: ref }]);
        return json({});
      },
    },
    {
      method: 'GET',
      path: '/desk/files/:file',
      role: 'desk',
      answer: async ({ params }) => {
        const file = await place.file(params.file ?? '');
        if (!file) throw new Refused('notFound');
        return json(packedAsset(file));
      },
    },
    ...copyEndpoints(store),
  ];
}
