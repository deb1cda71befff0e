import { z } from 'zod';
import * as exchange from '@/core/exchange';
import { BoxChanges, type BoxState } from '@/core/exchange/box';
import { AskRequest, HandOverRequest, PracticeRequest } from '@/core/exchange/messages';
import { assetId, packedAsset, PackedAsset, unpackedAsset } from '@/core/model/asset';
import { Id, Line } from '@/core/model/common';
import { mostFileBytes } from '@/core/model/file';
import { joinCodeFrom } from '@/core/model/people';
import { boxPlace, keys } from './boxPlace';
import { newsAfter, sittingsIn, takeChanges } from './deskSide';
import { StoreFull, type ExchangeStore } from './exchangeStore';
import { Guesses } from './guesses';
import { bodyOf, json, Refused, refusal } from './respond';
import { beginSession, needDesk, needSession, pair, unpair } from './sessions';
import { addressesOf, type ServerSettings } from './settings';

/** Who may ask: anyone (who then needs a code), who holds the token of an attempt, or a paired desk. */
export type Role = 'anyone' | 'student' | 'desk';

/** What an endpoint is given. */
interface Asked {
  request: Request;
  params: Record<string, string>;
  /** The address it comes from. */
  from: string;
  now: number;
}

export interface Endpoint {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** Under `/api/exchange`; a part that begins with a colon is a parameter. */
  path: string;
  role: Role;
  answer: (asked: Asked) => Promise<Response>;
}

const smallBytes = 16 * 1024;
const answersBytes = 8 * 1024 * 1024;
const fileBytes = Math.ceil((mostFileBytes * 4) / 3) + 4096;
const deskBytes = 64 * 1024 * 1024;
const mostStreams = 64;

const Code = z.string().max(40);
const WithCode = z.object({ joinCode: Code });
const WithSitting = WithCode.extend({ sittingId: Id });

/**
 * The classroom server: a box between students and desk, with the rules of core. It knows HTTP and who may do what;
 * what is answered is decided by `core/exchange`.
 *
 * @param log takes lines without answers, names or codes
 */
export function exchangeServer(
  store: ExchangeStore,
  settings: ServerSettings,
  log: (line: string) => void = () => undefined,
  guesses = { codes: new Guesses(), secret: new Guesses(10) },
) {
  const place = boxPlace(store, settings.secret);
  let streams = 0;

  /** A join code that somebody has; wrong ones are counted against where they come from. */
  const known = async ({ from, now }: Asked, joinCode: string): Promise<string> => {
    const code = joinCodeFrom(joinCode);
    await mayTry(guesses.codes, from);
    if (await place.studentWith(code)) return code;
    await guesses.codes.wrong(from, now);
    throw new Refused('notFound', 'joinCode');
  };

  /** The code of the student whose attempt this is, by the token. */
  const codeOf = async ({ request, params }: Asked): Promise<string> => {
    const { studentId } = await needSession(store, request, params.attempt ?? '');
    const student = (await store.get(keys.student(studentId))) as { joinCode: string } | undefined;
    return student?.joinCode ?? '';
  };

  const endpoints: Endpoint[] = [
    {
      method: 'GET',
      path: '/',
      role: 'anyone',
      answer: async ({ now }) => json({ gribbet: 1, now }),
    },
    {
      method: 'POST',
      path: '/greet',
      role: 'anyone',
      answer: async (asked) => {
        const { joinCode } = await bodyOf(asked.request, WithCode, smallBytes);
        return json(await exchange.greet(place, await known(asked, joinCode)));
      },
    },
    {
      method: 'POST',
      path: '/guest',
      role: 'anyone',
      answer: async (asked) => {
        const shape = z.object({ name: z.string().max(200), accessCode: Code });
        const { name, accessCode } = await bodyOf(asked.request, shape, smallBytes);
        await mayTry(guesses.codes, asked.from);
        const greeting = await exchange.comeAsGuest(place, name, accessCode, asked.now);
        if (!greeting) await guesses.codes.wrong(asked.from, asked.now);
        return json(greeting);
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
        const reply = await exchange.start(place, code, sittingId, accessCode, tabId, asked.now);
        if (reply.outcome === 'refused') {
          if (reply.why === 'wrongCode') await guesses.codes.wrong(asked.from, asked.now);
          return json(reply);
        }
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
        const { joinCode, sittingId } = await bodyOf(asked.request, WithSitting, smallBytes);
        return json(await exchange.result(place, await known(asked, joinCode), sittingId, asked.now));
      },
    },
    {
      method: 'POST',
      path: '/pair',
      role: 'anyone',
      answer: async ({ request, from, now }) => {
        const { secret } = await bodyOf(request, z.object({ secret: z.string().max(200) }), smallBytes);
        await mayTry(guesses.secret, from);
        try {
          const cookie = await pair(store, settings, secret, now);
          log('a desk was paired');
          return json({ box: store.id }, { 'set-cookie': cookie });
        } catch (error) {
          if (error instanceof Refused) await guesses.secret.wrong(from, now);
          log('pairing refused: wrong secret');
          throw error;
        }
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
          stopped: guesses.codes.list(now),
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
        await guesses.codes.forgive(from);
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
        return json(await newsAfter(store, after, now));
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
  ];

  /** A new token for the student's own attempt. */
  async function session(joinCode: string, attemptId: string): Promise<string> {
    const student = await place.studentWith(joinCode);
    const attempt = (await place.attemptsOf(student?.id ?? '')).find(({ id }) => id === attemptId);
    if (!attempt) throw new Refused('notFound', 'attempt');
    return beginSession(store, settings, attempt);
  }

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

  async function answer(request: Request, path: string, from: string, now: number): Promise<Response> {
    let pattern = '';
    try {
      checkOrigin(request, settings);
      for (const endpoint of endpoints) {
        const params = matched(endpoint.path, path);
        if (!params || endpoint.method !== request.method) continue;
        pattern = endpoint.path;
        const asked = { request, params, from, now };
        if (endpoint.role === 'desk') await needDesk(store, request);
        if (endpoint.role === 'student') await needSession(store, request, params.attempt ?? '');
        return await endpoint.answer(asked);
      }
      throw new Refused('notFound');
    } catch (error) {
      if (error instanceof Refused) return refusal(error);
      if (error instanceof StoreFull) {
        log('no room is left on the disk: what comes now cannot be kept');
        return refusal(new Refused('full'));
      }
      // Its words may hold what was sent.
      log(
        `${request.method} ${pattern || 'unknown'} failed: ${error instanceof Error ? error.name : 'error'}`,
      );
      return refusal(new Refused('failed'));
    }
  }

  return { endpoints, answer };
}

export type ExchangeServer = ReturnType<typeof exchangeServer>;

async function mayTry(guesses: Guesses, from: string): Promise<void> {
  const waitMs = await guesses.stoppedFor(from);
  if (waitMs > 0)
    throw new Refused('tooManyGuesses', '', { 'retry-after': String(Math.ceil(waitMs / 1000)) });
}

/** Changes are taken only from pages of this server: a page elsewhere must not act with a cookie of ours. */
function checkOrigin(request: Request, { origin }: ServerSettings): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const said = request.headers.get('origin') ?? '';
  const host = request.headers.get('host');
  const own = origin ? said === origin : URL.canParse(said) && new URL(said).host === host;
  // Behind a proxy, the computer itself still reaches it by its own address.
  if (!own) throw new Refused('wrongOrigin');
}

/** The parameters of a path that fits a pattern; null where it does not. */
function matched(pattern: string, path: string): Record<string, string> | null {
  const [asked, given] = [pattern.split('/'), path.split('/')];
  if (asked.length !== given.length) return null;
  const params: Record<string, string> = {};
  for (const [index, part] of asked.entries()) {
    const text = given[index] ?? '';
    if (part.startsWith(':')) {
      if (!/^[\w.~-]{1,64}$/.test(text)) return null;
      params[part.slice(1)] = text;
    } else if (part !== text) return null;
  }
  return params;
}
