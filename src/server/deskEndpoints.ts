import type { Context } from 'hono';
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
import { Id, Line } from '@/core/basics/common';
import { Computer } from '@/core/model/deskHold';
import { keys } from './mailboxKeys';
import { copyEndpoints } from './deskCopies';
import { holdsIn } from './deskHoldRows';
import { holdEndpoints, isComputer } from './deskHolds';
import { newsAfter, sittingsIn, takeChanges } from './deskSide';
import { deskBytes, smallBytes, type Endpoint, type Surroundings } from './endpoint';
import type { ExchangeStore } from './exchangeStore';
import { bodyOf, fitting, Refused } from './respond';
import { revisionStream } from './revisionStream';
import { forgetComputer, isSecret, nameComputer, pair, pairedComputers, unpair } from './sessions';
import { addressesOf } from './settings';

/** What the teacher's desk asks of the server. */
export function deskEndpoints(place: ExchangeRepository, surroundings: Surroundings): Endpoint[] {
  const { store, presence } = surroundings;
  return [
    ...pairingEndpoints(surroundings),
    ...stateEndpoints(surroundings),
    ...newsEndpoints(surroundings),
    ...fileEndpoints(place, store),
    ...copyEndpoints(store),
    ...holdEndpoints(store, presence),
    ...computerEndpoints(surroundings),
  ];
}

/** Who is stopped from guessing: addresses, and students who typed wrong access codes. */
const stoppedNow = async (
  guesses: Surroundings['guesses'],
  now: number,
): Promise<MailboxState['stopped']> => [
  ...(await guesses.codes.list(now)).map((each) => ({ ...each, what: 'codes' as const })),
  ...(await guesses.guests.list(now)).map((each) => ({ ...each, what: 'guests' as const })),
  ...(await guesses.access.list(now)).map((each) => ({ ...each, what: 'access' as const })),
];

/** How the server stands, and letting in again who is stopped. */
function stateEndpoints({ store, settings, guesses }: Surroundings): Endpoint[] {
  return [
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
          stopped: await stoppedNow(guesses, now),
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
  ];
}

/** Changes of the desk going in, and what came since coming out. */
function newsEndpoints(surroundings: Surroundings): Endpoint[] {
  const { store, guesses, presence } = surroundings;
  const stream = revisionStream(surroundings);
  return [
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
        const holds = await holdsIn(store);
        return http.json({ ...news, holds, stopped: await stoppedNow(guesses, now) } satisfies MailboxNews);
      },
    },
    {
      method: 'GET',
      path: '/desk/present',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http, now }) =>
        http.json({
          now,
          seen: presence.since(afterOf(http)).filter(([name]) => !isComputer(name)),
        } satisfies MailboxPresence),
    },
    {
      method: 'GET',
      path: '/desk/stream',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => stream(http),
    },
  ];
}

/** The desk pairs with the server by its secret, and parts from it. */
function pairingEndpoints({ store, settings, guesses, log }: Surroundings): Endpoint[] {
  return [
    {
      method: 'POST',
      path: '/pair',
      role: 'anyone',
      most: smallBytes,
      answer: async ({ http, from, now }) => {
        const { secret, computer } = fitting(
          z.object({ secret: Secret, computer: Computer.optional() }),
          await bodyOf(http),
        );
        const paired = await guesses.secret.look(from, now, secret, () =>
          pair(store, settings, http, secret, now, computer),
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
  ];
}

const Secret = z.string().max(200);

/** The browsers that are paired, and how one that is lost is forgotten: by the secret, which not every browser at hand knows. */
function computerEndpoints({ store, settings, guesses, log }: Surroundings): Endpoint[] {
  return [
    {
      method: 'GET',
      path: '/desk/computers',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => http.json(await pairedComputers(store, settings, http)),
    },
    {
      method: 'PUT',
      path: '/desk/computers/this',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => {
        await nameComputer(store, settings, http, fitting(Computer, await bodyOf(http)));
        return http.json({});
      },
    },
    {
      method: 'POST',
      path: '/desk/computers/forget',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http, from, now }) => {
        const { secret, id } = fitting(z.object({ secret: Secret, id: Id }), await bodyOf(http));
        const known = await guesses.secret.look(from, now, secret, async () =>
          isSecret(settings, secret) ? true : null,
        );
        if (known === null) throw new Refused('wrongSecret');
        await forgetComputer(store, id, now);
        log('a paired computer was forgotten');
        return http.json({});
      },
    },
  ];
}

/** Pictures and files, by the id that is drawn from their bytes. */
function fileEndpoints(place: ExchangeRepository, store: ExchangeStore): Endpoint[] {
  return [
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
  ];
}

/** From where on news are asked for. */
function afterOf(http: Context): number {
  const after = Number(http.req.query('after') ?? 0);
  if (!Number.isInteger(after) || after < 0) throw new Refused('badRequest', 'after');
  return after;
}
