import { boxPlace } from './boxPlace';
import { deskEndpoints } from './deskEndpoints';
import type { Endpoint, Surroundings } from './endpoint';
import { StoreFull, type ExchangeStore } from './exchangeStore';
import { networkOf, newGuesses } from './guesses';
import { json, Refused, refusal } from './respond';
import { needDesk, needSession } from './sessions';
import type { ServerSettings } from './settings';
import { studentEndpoints } from './studentEndpoints';

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
  guesses = newGuesses(),
) {
  const place = boxPlace(store, settings.secret);
  const surroundings: Surroundings = { store, settings, guesses, log };
  const endpoints: Endpoint[] = [
    { method: 'GET', path: '/', role: 'anyone', answer: async ({ now }) => json({ gribbet: 1, now }) },
    ...studentEndpoints(place, surroundings),
    ...deskEndpoints(place, surroundings),
  ];

  async function answer(request: Request, path: string, from: string, now: number): Promise<Response> {
    let pattern = '';
    try {
      checkOrigin(request, settings);
      for (const endpoint of endpoints) {
        const params = matched(endpoint.path, path);
        if (!params || endpoint.method !== request.method) continue;
        pattern = endpoint.path;
        const asked = { request, params, from: networkOf(from), now };
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

/** Changes are taken only from pages of this server: a page elsewhere must not act with a cookie of ours. */
function checkOrigin(request: Request, { origin }: ServerSettings): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const said = request.headers.get('origin') ?? '';
  const host = request.headers.get('host');
  // Behind a proxy there is one address, for the computer itself as well.
  const own = origin ? said === origin : URL.canParse(said) && new URL(said).host === host;
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
