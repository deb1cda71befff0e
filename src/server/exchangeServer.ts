import { Hono, type Context } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { Presence } from '@/core/exchange/presence';
import { mailboxRepository } from './mailboxRepository';
import { deskEndpoints } from './deskEndpoints';
import { smallBytes, type Endpoint, type Surroundings } from './endpoint';
import { StoreFull, type ExchangeStore } from './exchangeStore';
import { networkOf, newGuesses } from './guesses';
import { mailEndpoints } from './mailEndpoints';
import { registerEndpoints } from './registerEndpoints';
import { Refused, refusal } from './respond';
import { needDesk, needSession } from './sessions';
import type { ServerSettings } from './settings';
import { shareEndpoints } from './shareEndpoints';
import { studentEndpoints } from './studentEndpoints';

/** What comes with a request from outside of it. */
interface From {
  address: string;
  now: number;
}

/**
 * The classroom server: a mailbox between students and desk, with the rules of core. It knows HTTP and who may do what;
 * what is answered is decided by `core/exchange`.
 *
 * @param log takes lines without answers, names or codes
 */
export function exchangeServer(
  store: ExchangeStore,
  settings: ServerSettings,
  log: (line: string) => void = () => undefined,
  guesses = newGuesses(),
) {
  const presence = new Presence();
  const place = mailboxRepository(store, settings.secret, presence);
  const surroundings: Surroundings = { store, settings, guesses, presence, log };
  const endpoints: Endpoint[] = [
    {
      method: 'GET',
      path: '/',
      role: 'anyone',
      most: smallBytes,
      answer: async ({ http, now }) => http.json({ gribbet: 1, now }),
    },
    ...studentEndpoints(place, surroundings),
    ...deskEndpoints(place, surroundings),
    ...shareEndpoints(surroundings),
    ...mailEndpoints(surroundings),
    ...registerEndpoints(surroundings),
  ];

  const app = new Hono<{ Bindings: From }>({ strict: false }).basePath('/api/exchange');
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
        if (role === 'desk') await needDesk(store, http);
        if (role === 'student') await needSession(store, http, http.req.param('attemptId') ?? '');
        await next();
      },
      bodyLimit({
        maxSize: most,
        onError: () => {
          throw new Refused('tooLarge');
        },
      }),
      (http) => answer({ http, from: networkOf(http.env.address), now: http.env.now }),
    );
  app.notFound((http) => refusal(http, new Refused('notFound')));
  app.onError((error, http) => {
    if (error instanceof Refused) return refusal(http, error);
    if (error instanceof StoreFull) {
      log('no room is left on the disk: what comes now cannot be kept');
      return refusal(http, new Refused('full'));
    }
    const { method, path } = endpoints.find(
      (each) => http.req.routePath.endsWith(each.path) && each.method === http.req.method,
    ) ?? { method: http.req.method, path: 'unknown' };
    // Its words may hold what was sent.
    log(`${method} ${path} failed: ${error.name}`);
    return refusal(http, new Refused('failed'));
  });

  const answer = (request: Request, address: string, now: number): Promise<Response> =>
    Promise.resolve(app.fetch(request, { address, now }));
  return { endpoints, answer };
}

export type ExchangeServer = ReturnType<typeof exchangeServer>;

/** Changes are taken only from pages of this server: a page elsewhere must not act with a cookie of ours. */
function checkOrigin({ req }: Context, { origin }: ServerSettings): void {
  if (req.method === 'GET' || req.method === 'HEAD') return;
  const said = req.header('origin') ?? '';
  const host = req.header('host');
  // Behind a proxy there is one address, for the computer itself as well.
  const own = origin ? said === origin : URL.canParse(said) && new URL(said).host === host;
  if (!own) throw new Refused('wrongOrigin');
}
