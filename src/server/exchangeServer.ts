import { setMaxListeners } from 'node:events';
import { Hono, type Context } from 'hono';
import { matchedRoutes } from 'hono/route';
import type { BlankSchema } from 'hono/types';
import { bodyLimit } from 'hono/body-limit';
import type { ExchangeRepository } from '@/core/exchange/repository';
import { readsOf } from './mailboxKeys';
import { mailboxRepository } from './mailboxRepository';
import { deskEndpoints } from './deskEndpoints';
import { smallBytes, type Endpoint, type Surroundings } from './endpoint';
import { StoreFull, type ExchangeStore } from './exchangeStore';
import { networkOf, newGuesses } from './guesses';
import { mailEndpoints } from './mailEndpoints';
import { newMetrics } from './metrics';
import { registerEndpoints } from './registerEndpoints';
import { Refused, refusal } from './respond';
import { computerName } from './deskHolds';
import { needDesk, needSession } from './sessions';
import type { Log } from './serverLog';
import type { ServerSettings } from './settings';
import { SharedPresence } from './sharedPresence';
import { shareEndpoints } from './shareEndpoints';
import { studentEndpoints } from './studentEndpoints';
import { watchEndpoints } from './watchEndpoints';

/** What comes with a request from outside of it. */
interface From {
  address: string;
  now: number;
}

type App = Hono<{ Bindings: From }, BlankSchema, string>;

/**
 * The classroom server: a mailbox between students and desk, with the rules of core. It knows HTTP and who may do what;
 * what is answered is decided by `core/exchange`.
 */
export function exchangeServer(
  store: ExchangeStore,
  settings: ServerSettings,
  log: Log = () => undefined,
  metrics = newMetrics(),
  guesses = newGuesses(store, metrics),
) {
  const presence = new SharedPresence(store);
  const place = mailboxRepository(store, settings.secret, presence);
  const ending = new AbortController();
  const stopping = ending.signal;
  setMaxListeners(0, stopping); // every stream listens
  const surroundings: Surroundings = { store, settings, guesses, presence, metrics, stopping, log };
  const endpoints = allEndpoints(place, surroundings);

  const app: App = new Hono<{ Bindings: From }>({ strict: false }).basePath('/api/exchange');
  app.use(async (http, next) => {
    const began = performance.now();
    await next();
    const path = pathOf(http);
    const [status, ms] = [http.res.status, performance.now() - began];
    metrics.requests.observe({ method: http.req.method, path, status }, ms / 1000);
    log('answered', { method: http.req.method, path, status, ms: Math.round(ms * 10) / 10 });
  });
  app.use(async (http, next) => {
    checkOrigin(http, settings);
    http.header('cache-control', 'no-store');
    await next();
  });
  for (const { method, path, role, most, answer } of endpoints)
    app.on(
      method,
      path,
      async (http, next) => {
        if (role === 'desk') {
          const computer = await needDesk(store, settings, http);
          if (computer) presence.saw(computerName(computer.id), http.env.now);
        }
        if (role !== 'student') return next();
        return store.request(async () => {
          const session = await needSession(store, http, http.req.param('attemptId') ?? '');
          await store.readAhead(...readsOf(session));
          await next();
        });
      },
      bodyLimit({
        maxSize: most,
        onError: () => {
          throw new Refused('tooLarge');
        },
      }),
      (http) => answer({ http, from: networkOf(http.env.address), now: http.env.now }),
    );
  answerErrors(app, log);

  const answer = (request: Request, address: string, now: number): Promise<Response> =>
    Promise.resolve(app.fetch(request, { address, now }));
  // Streams are told to come again, and what goes on by itself stops; what is asked meanwhile is still answered.
  return { endpoints, answer, stop: () => ending.abort() };
}

export type ExchangeServer = ReturnType<typeof exchangeServer>;

/** Everything that is answered. */
const allEndpoints = (place: ExchangeRepository, surroundings: Surroundings): Endpoint[] => [
  {
    method: 'GET',
    path: '/',
    role: 'anyone',
    most: smallBytes,
    answer: async ({ http, now }) => http.json({ gribbet: 1, now }),
  },
  ...watchEndpoints(surroundings),
  ...studentEndpoints(place, surroundings),
  ...deskEndpoints(place, surroundings),
  ...shareEndpoints(surroundings),
  ...mailEndpoints(surroundings),
  ...registerEndpoints(surroundings),
];

/** What was asked as the list has it, so without the ids in it. */
const pathOf = (http: Context): string =>
  matchedRoutes(http).findLast(({ method }) => method !== 'ALL')?.path ?? 'unknown';

function answerErrors(app: App, log: Log): void {
  app.notFound((http) => refusal(http, new Refused('notFound')));
  app.onError((error, http) => {
    if (error instanceof Refused) return refusal(http, error);
    if (error instanceof StoreFull) {
      log('no room is left on the disk: what comes now cannot be kept');
      return refusal(http, new Refused('full'));
    }
    // Its words may hold what was sent.
    log(`${http.req.method} ${pathOf(http)} failed: ${error.name}`);
    return refusal(http, new Refused('failed'));
  });
}

/** Changes are taken only from pages of this server: a page elsewhere must not act with a cookie of ours. */
function checkOrigin({ req }: Context, { origin }: ServerSettings): void {
  if (req.method === 'GET' || req.method === 'HEAD') return;
  const said = req.header('origin') ?? '';
  const host = req.header('host');
  // Behind a proxy there is one address, for the computer itself as well.
  const own = origin ? said === origin : URL.canParse(said) && new URL(said).host === host;
  if (!own) throw new Refused('wrongOrigin');
}
