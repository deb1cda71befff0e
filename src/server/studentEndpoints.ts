import type { z } from 'zod';
import { reply } from '@/core/exchange';
import { messageList, messageNames, saidIn, type MessageName } from '@/core/exchange/messageList';
import { requestSchemas, type CarriedFile, type Greeting, type StartReply } from '@/core/exchange/messages';
import type { ExchangeRepository } from '@/core/exchange/repository';
import { PackedAsset } from '@/core/basics/asset';
import { packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { keys } from './mailboxKeys';
import { smallBytes, type Asked, type Endpoint, type Surroundings } from './endpoint';
import { bodyOf, fitting, Refused } from './respond';
import { knownCode } from './knownCode';
import { beginSession, hasPass, needSession, withPass } from './sessions';

type Named = Record<string, unknown>;

/** Who asks, by join code or token, and what their message holds. */
function askers(place: ExchangeRepository, { store, settings, guesses }: Surroundings) {
  /** A join code that somebody has; wrong ones are counted against where they come from. */
  const known = (asked: Asked, joinCode: string): Promise<string> =>
    knownCode(place, guesses, asked, joinCode, (code) => hasPass(store, settings, asked.http, code));

  /** The code of the student whose attempt this is, by the token. */
  const codeOf = async ({ http }: Asked, attemptId: string): Promise<string> => {
    const { studentId } = await needSession(store, http, attemptId);
    const student = (await store.get(keys.student(studentId))) as { joinCode: string } | undefined;
    return student?.joinCode ?? '';
  };

  /** Gives the device a new token for the student's own attempt. */
  async function session(asked: Asked, joinCode: string, attemptId: string): Promise<void> {
    const student = await place.studentWith(joinCode);
    const attempt = (await place.attemptsOf(student?.id ?? '')).find(({ id }) => id === attemptId);
    if (!attempt) throw new Refused('notFound', 'attempt');
    await beginSession(store, settings, asked.http, attempt);
  }

  /** What a message holds, with the code that belongs to who asks. */
  async function heldIn(name: MessageName, asked: Asked): Promise<Named> {
    const attemptId = asked.http.req.param('attemptId');
    const joinCode = attemptId === undefined ? undefined : await codeOf(asked, attemptId);
    const body = (await bodyOf(asked.http)) as Named;
    const whole = { ...body, ...(attemptId !== undefined && { attemptId, joinCode }) };
    if (name === 'handOverFile') {
      const { id, name: fileName, mediaType, bytes } = unpackedAsset(fitting(PackedAsset, body));
      return { attemptId, joinCode, id, name: fileName, mediaType, bytes, size: bytes.length };
    }
    const schema: z.ZodType<Named> = requestSchemas[name];
    const held = fitting(schema, whole);
    return attemptId === undefined && typeof held.joinCode === 'string'
      ? { ...held, joinCode: await known(asked, held.joinCode) }
      : held;
  }

  return { known, session, heldIn };
}
type Askers = ReturnType<typeof askers>;

/** What is done beside a reply, or instead of it. */
function specialReplies(
  place: ExchangeRepository,
  { store, settings, guesses }: Surroundings,
  session: Askers['session'],
): Partial<Record<MessageName, (asked: Asked, held: Named) => Promise<unknown>>> {
  const replied = (name: MessageName, held: Named, now: number) =>
    reply(place, name, saidIn(name, held), now);

  return {
    greet: async (asked, held) => {
      // From now on this device is not stopped from coming in with this code, whatever else is typed around it.
      withPass(store, settings, asked.http, String(held.joinCode));
      return replied('greet', held, asked.now);
    },
    comeAsGuest: async (asked, held) => {
      const guest = (await guesses.guests.look(asked.from, asked.now, String(held.accessCode), () =>
        replied('comeAsGuest', held, asked.now),
      )) as Greeting | null;
      if (guest) withPass(store, settings, asked.http, guest.joinCode);
      return guest;
    },
    start: async (asked, held) => {
      const [joinCode, , accessCode] = saidIn('start', held).map(String);
      const begin = async () => {
        const begun = (await replied('start', held, asked.now)) as StartReply;
        return begun.outcome === 'refused' && begun.why === 'wrongCode' ? null : begun;
      };
      const { id } = (await place.studentWith(joinCode ?? '')) ?? { id: '' };
      const begun = await guesses.access.look(id, asked.now, accessCode ?? '', begin);
      if (begun?.outcome === 'started') await session(asked, joinCode ?? '', begun.packet.attemptId);
      return begun ?? ({ outcome: 'refused', why: 'wrongCode' } satisfies StartReply);
    },
    file: async (asked, held) => {
      const file = (await replied('file', held, asked.now)) as CarriedFile | null;
      return file && packedAsset(file);
    },
  };
}

/**
 * What students ask of the server, made from the list of messages. What is replied is decided by `core/exchange`; here
 * stands who may ask, and what else the server says to it.
 */
export function studentEndpoints(place: ExchangeRepository, around: Surroundings): Endpoint[] {
  const { known, session, heldIn } = askers(place, around);
  const special = specialReplies(place, around, session);

  const messages = messageNames.map((name): Endpoint => {
    const { path, role, most } = messageList[name];
    return {
      method: 'POST',
      path,
      role,
      most,
      answer: async (asked) => {
        const held = await heldIn(name, asked);
        const said = await (special[name]?.(asked, held) ??
          reply(place, name, saidIn(name, held), asked.now));
        around.metrics.answers.inc(Object.keys((held.answers as object | undefined) ?? {}).length);
        return asked.http.json(said);
      },
    };
  });
  return [
    ...messages,
    {
      method: 'POST',
      path: '/attempts/:attemptId/session',
      role: 'anyone',
      most: smallBytes,
      answer: async (asked) => {
        const { joinCode } = fitting(requestSchemas.home, await bodyOf(asked.http));
        await session(asked, await known(asked, joinCode), asked.http.req.param('attemptId') ?? '');
        return asked.http.json({});
      },
    },
  ];
}
