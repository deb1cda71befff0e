import type { Context } from 'hono';
import { getCookie, setCookie } from 'hono/cookie';
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { plainSecret } from '@/core/exchange/mailbox';
import type { Computer, PairedComputer } from '@/core/model/deskHold';
import type { Attempt } from '@/core/model/sitting';
import { keys } from './mailboxKeys';
import type { ExchangeStore } from './exchangeStore';
import { Refused } from './respond';
import type { ServerSettings } from './settings';

/** Tokens are random and kept as digests only: who reads the folder cannot use them. */
const newToken = () => randomBytes(24).toString('base64url');
const digestOf = (text: string) => createHash('sha256').update(text).digest('hex');

function sameDigest(a: string, b: string): boolean {
  const [left, right] = [Buffer.from(a, 'hex'), Buffer.from(b, 'hex')];
  return left.length === right.length && timingSafeEqual(left, right);
}

const deskCookie = 'gribbet-desk';
const attemptCookie = 'gribbet-attempt';
const weekS = 7 * 24 * 3600;

/** So many devices of one attempt keep their token; older ones ask for a new one. */
const mostTokens = 12;

export interface Session {
  studentId: string;
  sittingId: string;
  tokens: string[];
}

/** Sets a cookie that scripts cannot read and that only our own pages send (RFC 6265). */
function give(
  http: Context,
  { origin }: ServerSettings,
  name: string,
  value: string,
  path: string,
  maxAge: number,
): void {
  const secure = origin?.startsWith('https:') === true;
  setCookie(http, name, value, { path, maxAge, httpOnly: true, sameSite: 'Strict', secure });
}

const passCookie = 'gribbet-pass';
/** So many students can have come in on one device, and are known there. */
const mostPasses = 12;

/** What says that a device came in with a join code: nobody else can make it, and it tells no code. */
const passOf = (store: ExchangeStore, { secret }: ServerSettings, joinCode: string) =>
  createHmac('sha256', `${secret} ${store.id}`).update(joinCode).digest('base64url').slice(0, 24);

const passesOf = (http: Context) => (getCookie(http, passCookie) ?? '').split('.').filter(Boolean);

/** Whether the device that asks came in with this code before. */
export const hasPass = (store: ExchangeStore, settings: ServerSettings, http: Context, joinCode: string) =>
  passesOf(http).includes(passOf(store, settings, joinCode));

/** Gives the device that came in with a code what says so, for the codes before as well. */
export function withPass(
  store: ExchangeStore,
  settings: ServerSettings,
  http: Context,
  joinCode: string,
): void {
  const mine = passOf(store, settings, joinCode);
  const all = [...passesOf(http).filter((each) => each !== mine), mine].slice(-mostPasses);
  give(http, settings, passCookie, all.join('.'), '/api/exchange', 26 * weekS);
}

/** A browser that is paired. */
interface DeskSession {
  at: string;
  /** Absent: it was paired by an older version. */
  computer?: Computer;
  /** It was lost: whoever has it is told that it was forgotten, and nothing else. */
  forgotten?: string;
}

export const isSecret = (settings: ServerSettings, typed: string): boolean =>
  sameDigest(digestOf(plainSecret(typed)), digestOf(settings.secret));

/** Keyed with the secret: with another one, no browser is paired any more. */
const deskKey = ({ secret }: ServerSettings, token: string) =>
  keys.desk(createHmac('sha256', secret).update(token).digest('hex'));

/** As versions before kept it. */
const oldDeskKey = (token: string) => keys.desk(digestOf(token));

/** Pairs the browser that asks; null where the secret is another one. */
export async function pair(
  store: ExchangeStore,
  settings: ServerSettings,
  http: Context,
  secret: string,
  now: number,
  computer?: Computer,
): Promise<true | null> {
  if (!isSecret(settings, secret)) return null;
  const token = newToken();
  const session: DeskSession = { at: new Date(now).toISOString(), ...(computer && { computer }) };
  // What this browser had before is worth nothing once it has another.
  const before = computer
    ? (await store.list('desks/')).filter(({ value }) => (value as DeskSession).computer?.id === computer.id)
    : [];
  await store.commit([
    ...before.map(({ key }) => ({ key, value: null })),
    { key: deskKey(settings, token), value: session },
  ]);
  give(http, settings, deskCookie, token, '/api/exchange', 26 * weekS);
  return true;
}

export async function unpair(store: ExchangeStore, settings: ServerSettings, http: Context): Promise<void> {
  const token = getCookie(http, deskCookie) ?? '';
  await store.commit([
    { key: deskKey(settings, token), value: null },
    { key: oldDeskKey(token), value: null },
  ]);
  give(http, settings, deskCookie, '', '/api/exchange', 0);
}

/** @throws {Refused} where the request does not come from a paired desk */
export async function needDesk(
  store: ExchangeStore,
  settings: ServerSettings,
  http: Context,
): Promise<Computer | null> {
  const token = getCookie(http, deskCookie);
  const session = token ? ((await sessionOf(store, settings, token)) ?? null) : null;
  if (!session) throw new Refused('notPaired');
  if (session.forgotten !== undefined) throw new Refused('forgotten');
  return session.computer ?? null;
}

const sessionOf = async (store: ExchangeStore, settings: ServerSettings, token: string) =>
  ((await store.get(deskKey(settings, token))) ?? (await store.get(oldDeskKey(token)))) as
    DeskSession | undefined;

/** The browsers that are paired; by name, the newest first. */
export async function pairedComputers(
  store: ExchangeStore,
  settings: ServerSettings,
  http: Context,
): Promise<PairedComputer[]> {
  const token = getCookie(http, deskCookie) ?? '';
  const own = [deskKey(settings, token), oldDeskKey(token)];
  return (await store.list('desks/'))
    .flatMap(({ key, value }) => {
      const { at, computer, forgotten } = value as DeskSession;
      if (forgotten !== undefined) return [];
      const [id, name] = computer ? [computer.id, computer.name] : [shortOf(key), ''];
      return [{ id, name, pairedAt: at, here: own.includes(key) }];
    })
    .sort((a, b) => b.pairedAt.localeCompare(a.pairedAt));
}

/** What the computers that were paired are called now; by id. */
export async function computerNames(store: ExchangeStore): Promise<Map<string, string>> {
  const sessions = (await store.list('desks/')).map(({ value }) => value as DeskSession);
  return new Map(
    sessions
      .sort((a, b) => a.at.localeCompare(b.at))
      .flatMap(({ computer }) => (computer ? [[computer.id, computer.name] as const] : [])),
  );
}

/** The browser that asks is called otherwise from now on. */
export async function nameComputer(
  store: ExchangeStore,
  settings: ServerSettings,
  http: Context,
  computer: Computer,
): Promise<void> {
  const token = getCookie(http, deskCookie) ?? '';
  for (const key of [deskKey(settings, token), oldDeskKey(token)]) {
    const session = (await store.get(key)) as DeskSession | undefined;
    if (session) await store.commit([{ key, value: { ...session, computer } satisfies DeskSession }]);
  }
}

/** Stands for a browser that said no id of its own; nobody can come in with it. */
const shortOf = (key: string) => key.slice('desks/'.length).slice(0, 16);

/** A browser that was lost is paired no longer, and is told so once it comes. */
export async function forgetComputer(store: ExchangeStore, id: string, now: number): Promise<void> {
  const lost = (await store.list('desks/')).filter(
    ({ key, value }) =>
      (value as DeskSession).forgotten === undefined &&
      ((value as DeskSession).computer?.id ?? shortOf(key)) === id,
  );
  if (lost.length === 0) throw new Refused('notFound');
  await store.commit(
    lost.map(({ key, value }) => ({
      key,
      value: { ...(value as DeskSession), forgotten: new Date(now).toISOString() } satisfies DeskSession,
    })),
  );
}

/** Gives the device that asks a token for this attempt alone. */
export async function beginSession(
  store: ExchangeStore,
  settings: ServerSettings,
  http: Context,
  attempt: Pick<Attempt, 'id' | 'studentId' | 'sittingId'>,
): Promise<void> {
  const token = newToken();
  const { id, studentId, sittingId } = attempt;
  const key = keys.session(id);
  await store.locked(key, async () => {
    const before = (await store.get(key)) as Session | undefined;
    const tokens = [...(before?.tokens ?? []), digestOf(token)].slice(-mostTokens);
    await store.commit([{ key, value: { studentId, sittingId, tokens } satisfies Session }]);
  });
  give(http, settings, attemptCookie, token, `/api/exchange/attempts/${id}`, weekS);
}

/** Whose attempt this is. @throws {Refused} where the request has no token for it */
export async function needSession(store: ExchangeStore, http: Context, attemptId: string): Promise<Session> {
  const token = getCookie(http, attemptCookie) ?? '';
  const session = (await store.get(keys.session(attemptId))) as Session | undefined;
  const digest = digestOf(token);
  if (!token || !session?.tokens.some((each) => sameDigest(each, digest))) throw new Refused('noSession');
  return session;
}
