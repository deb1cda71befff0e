import { z } from 'zod';
import * as exchange from '@/core/exchange';
import { AskRequest, HandOverRequest, PracticeRequest, type StartReply } from '@/core/exchange/messages';
import type { ExchangePlace } from '@/core/exchange/place';
import { PackedAsset } from '@/core/basics/asset';
import { packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { Id } from '@/core/basics/common';
import { mostFileBytes } from '@/core/basics/fileRules';
import { keys } from './boxPlace';
import { smallBytes, type Asked, type Endpoint, type Surroundings } from './endpoint';
import { bodyOf, json, Refused } from './respond';
import { knownCode } from './knownCode';
import { beginSession, hasPass, needSession, withPass } from './sessions';

const answersBytes = 8 * 1024 * 1024;
const fileBytes = Math.ceil((mostFileBytes * 4) / 3) + 4096;

const Code = z.string().max(40);
const WithCode = z.object({ joinCode: Code });
const WithSitting = WithCode.extend({ sittingId: Id });

/** What students ask of the server: from the join code to the result. */
export function studentEndpoints(
  place: ExchangePlace,
  { store, settings, guesses }: Surroundings,
): Endpoint[] {
  /** A join code that somebody has; wrong ones are counted against where they come from. */
  const known = (asked: Asked, joinCode: string): Promise<string> =>
    knownCode(place, guesses, asked, joinCode, (code) => hasPass(store, settings, asked.request, code));

  /** The code of the student whose attempt this is, by the token. */
  const codeOf = async ({ request, params }: Asked): Promise<string> => {
    const { studentId } = await needSession(store, request, params.attempt ?? '');
    const student = (await store.get(keys.student(studentId))) as { joinCode: string } | undefined;
    return student?.joinCode ?? '';
  };

  /** A new token for the student's own attempt. */
  async function session(joinCode: string, attemptId: string): Promise<string> {
    const student = await place.studentWith(joinCode);
    const attempt = (await place.attemptsOf(student?.id ?? '')).find(({ id }) => id === attemptId);
    if (!attempt) throw new Refused('notFound', 'attempt');
    return beginSession(store, settings, attempt);
  }

  return [
    {
      method: 'POST',
      path: '/greet',
      role: 'anyone',
      answer: async (asked) => {
        const { joinCode } = await bodyOf(asked.request, WithCode, smallBytes);
        const code = await known(asked, joinCode);
        // From now on this device is not stopped from coming in with this code, whatever else is typed around it.
        return json(await exchange.greet(place, code), {
          'set-cookie': withPass(store, settings, asked.request, code),
        });
      },
    },
    {
      method: 'POST',
      path: '/guest',
      role: 'anyone',
      answer: async (asked) => {
        const shape = z.object({ name: z.string().max(200), accessCode: Code });
        const { name, accessCode } = await bodyOf(asked.request, shape, smallBytes);
        const guest = await guesses.guests.look(asked.from, asked.now, accessCode, () =>
          exchange.comeAsGuest(place, name, accessCode, asked.now),
        );
        if (!guest) return json(null);
        return json(guest, { 'set-cookie': withPass(store, settings, asked.request, guest.joinCode) });
      },
    },
    {
      method: 'POST',
      path: '/home',
      role: 'anyone',
      answer: async (asked) => {
        const { joinCode } = await bodyOf(asked.request, WithCode, smallBytes);
        return json(await exchange.home(place, await known(asked, joinCode), asked.now));
      },
    },
    {
      method: 'POST',
      path: '/start',
      role: 'anyone',
      answer: async (asked) => {
        const shape = WithSitting.extend({ accessCode: Code, tabId: Id });
        const { joinCode, sittingId, accessCode, tabId } = await bodyOf(asked.request, shape, smallBytes);
        const code = await known(asked, joinCode);
        const begin = async () => {
          const reply = await exchange.start(place, code, sittingId, accessCode, tabId, asked.now);
          return reply.outcome === 'refused' && reply.why === 'wrongCode' ? null : reply;
        };
        const { id } = (await place.studentWith(code)) ?? { id: '' };
        const reply = await guesses.access.look(id, asked.now, accessCode, begin);
        if (!reply) return json({ outcome: 'refused', why: 'wrongCode' } satisfies StartReply);
        if (reply.outcome === 'refused') return json(reply);
        return json(reply, { 'set-cookie': await session(code, reply.packet.attemptId) });
      },
    },
    {
      method: 'POST',
      path: '/attempts/:attempt/session',
      role: 'anyone',
      answer: async (asked) => {
        const { joinCode } = await bodyOf(asked.request, WithCode, smallBytes);
        const code = await known(asked, joinCode);
        return json({}, { 'set-cookie': await session(code, asked.params.attempt ?? '') });
      },
    },
    {
      method: 'POST',
      path: '/attempts/:attempt/answers',
      role: 'student',
      answer: async (asked) => {
        const code = await codeOf(asked);
        const request = await bodyOf(asked.request, HandOverRequest, answersBytes);
        return json(await exchange.handOver(place, code, asked.params.attempt ?? '', request, asked.now));
      },
    },
    {
      method: 'POST',
      path: '/attempts/:attempt/files',
      role: 'student',
      answer: async (asked) => {
        const code = await codeOf(asked);
        const file = await bodyOf(asked.request, PackedAsset, fileBytes);
        const asset = unpackedAsset(file);
        return json(await exchange.handOverFile(place, code, asked.params.attempt ?? '', asset, asked.now));
      },
    },
    {
      method: 'POST',
      path: '/attempts/:attempt/practice',
      role: 'student',
      answer: async (asked) => {
        const code = await codeOf(asked);
        const shape = z.object({ questionId: Id, doing: PracticeRequest });
        const { questionId, doing } = await bodyOf(asked.request, shape, answersBytes);
        const attempt = asked.params.attempt ?? '';
        return json(await exchange.practise(place, code, attempt, questionId, doing, asked.now));
      },
    },
    {
      method: 'POST',
      path: '/attempts/:attempt/hand-in',
      role: 'student',
      answer: async (asked) => {
        const code = await codeOf(asked);
        return json(await exchange.handIn(place, code, asked.params.attempt ?? '', asked.now));
      },
    },
    {
      method: 'POST',
      path: '/file',
      role: 'anyone',
      answer: async (asked) => {
        const { joinCode, sittingId, fileId } = await bodyOf(
          asked.request,
          WithSitting.extend({ fileId: Id }),
          smallBytes,
        );
        const code = await known(asked, joinCode);
        const file = await exchange.fileFor(place, code, sittingId, fileId, asked.now);
        return json(file && packedAsset(file));
      },
    },
    {
      method: 'POST',
      path: '/ask',
      role: 'anyone',
      answer: async (asked) => {
        const { joinCode, sittingId, request } = await bodyOf(
          asked.request,
          WithSitting.extend({ request: AskRequest }),
          smallBytes,
        );
        const code = await known(asked, joinCode);
        return json(await exchange.ask(place, code, sittingId, request, asked.now));
      },
    },
    {
      method: 'POST',
      path: '/result',
      role: 'anyone',
      answer: async (asked) => {
        const shape = WithSitting.extend({ opening: z.boolean().default(true) });
        const { joinCode, sittingId, opening } = await bodyOf(asked.request, shape, smallBytes);
        const code = await known(asked, joinCode);
        return json(await exchange.result(place, code, sittingId, asked.now, opening));
      },
    },
  ];
}
