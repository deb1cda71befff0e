import type { z } from 'zod';

/** Why something is refused: in a word for programs; the pages have the sentences. */
export type Refusal =
  | 'badRequest'
  | 'notPaired'
  | 'noSession'
  | 'wrongOrigin'
  | 'wrongSecret'
  | 'notFound'
  | 'tooLarge'
  | 'notYet'
  | 'tooManyGuesses'
  | 'full'
  | 'failed';

const statusOf: Record<Refusal, number> = {
  badRequest: 400,
  wrongSecret: 401,
  notPaired: 401,
  noSession: 401,
  wrongOrigin: 403,
  notFound: 404,
  notYet: 409,
  tooLarge: 413,
  tooManyGuesses: 429,
  failed: 500,
  full: 507,
};

/** Thrown by whatever looks at a request; the answer is made from it in one place. */
export class Refused extends Error {
  constructor(
    readonly why: Refusal,
    /** Where in the request: a field. */
    readonly place = '',
    readonly headers: Record<string, string> = {},
  ) {
    super(why);
  }
}

export function json(body: unknown, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify(body), {
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store', ...headers },
  });
}

export function refusal({ why, place, headers }: Refused): Response {
  const body = { error: why, ...(place && { place }) };
  const response = json(body, headers);
  return new Response(response.body, { status: statusOf[why], headers: response.headers });
}

/** The bytes of a request, read no further than allowed. */
export async function bytesOf(request: Request, most: number): Promise<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > most) throw new Refused('tooLarge');
  const chunks: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  const next = () =>
    reader?.read().catch(() => {
      // It broke off on its way: nobody waits for the answer any more.
      throw new Refused('badRequest', 'broken off');
    });
  for (let read = await next(); read && !read.done; read = await next()) {
    length += read.value.length;
    if (length > most) {
      await reader?.cancel();
      throw new Refused('tooLarge');
    }
    chunks.push(read.value);
  }
  return new Uint8Array(Buffer.concat(chunks, length));
}

/** The JSON of a request as a schema has it. */
export async function bodyOf<T>(request: Request, schema: z.ZodType<T>, most: number): Promise<T> {
  const text = new TextDecoder().decode(await bytesOf(request, most));
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new Refused('badRequest', 'not JSON');
  }
  const parsed = schema.safeParse(raw);
  if (parsed.success) return parsed.data;
  throw new Refused('badRequest', parsed.error.issues[0]?.path.join('.') ?? '');
}
