import type { Context } from 'hono';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import type { z } from 'zod';

/** Why something is refused: in a word for programs; the pages have the sentences. */
export type Refusal =
  | 'badRequest'
  | 'notPaired'
  | 'noSession'
  | 'wrongOrigin'
  | 'wrongSecret'
  | 'notFound'
  | 'pulledBack'
  | 'tooLarge'
  | 'notYet'
  | 'elsewhere'
  | 'changed'
  | 'forgotten'
  | 'tooManyGuesses'
  | 'full'
  | 'failed';

const statusOf: Record<Refusal, ContentfulStatusCode> = {
  badRequest: 400,
  wrongSecret: 401,
  notPaired: 401,
  noSession: 401,
  wrongOrigin: 403,
  notFound: 404,
  pulledBack: 410,
  notYet: 409,
  elsewhere: 409,
  changed: 409,
  forgotten: 401,
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

/** The answer to what is refused. */
export const refusal = (http: Context, { why, place, headers }: Refused): Response =>
  http.json({ error: why, ...(place && { place }) }, statusOf[why], headers);

/** The JSON of a request. @throws {Refused} where it is none, or broke off on its way */
export async function bodyOf(http: Context): Promise<unknown> {
  let text: string;
  try {
    text = await http.req.text();
  } catch {
    // Nobody waits for the answer any more.
    throw new Refused('badRequest', 'broken off');
  }
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new Refused('badRequest', 'not JSON');
  }
}

/** What a request says, as a schema has it. @throws {Refused} with the field that does not fit */
export function fitting<T>(schema: z.ZodType<T>, said: unknown): T {
  const parsed = schema.safeParse(said);
  if (parsed.success) return parsed.data;
  throw new Refused('badRequest', parsed.error.issues[0]?.path.join('.') ?? '');
}
