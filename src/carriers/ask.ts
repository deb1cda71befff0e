import { ServerFault } from '@/core/exchange/serverFault';

/** A connection that says nothing for so long is taken for broken, and asked again. */
const patienceMs = 20_000;

const mostKeptAlive = 30_000;

export type Fetch = (address: string, init: RequestInit) => Promise<Response>;

/**
 * Asks an endpoint of the classroom server.
 *
 * @param body sent as JSON
 * @param outlives whether it goes out though the page is closed: browsers bound how much such requests may hold together
 * @throws {ServerFault} with the server's word, or `unreachable`
 */
export async function askServer(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body: unknown,
  fetcher: Fetch = (address, init) => fetch(address, init),
  outlives = true,
): Promise<unknown> {
  let response: Response;
  const text = body === undefined ? null : JSON.stringify(body);
  try {
    response = await fetcher(`/api/exchange${path}`, {
      method,
      credentials: 'same-origin',
      signal: AbortSignal.timeout(patienceMs),
      ...(text !== null && {
        headers: { 'content-type': 'application/json' },
        body: text,
        // What is handed over as the tab is closed still goes out.
        keepalive: outlives && text.length < mostKeptAlive,
      }),
    });
    const said: unknown = await response.json();
    if (response.ok) return said;
    const { error, place } = said as { error?: string; place?: string };
    const wait = Number(response.headers.get('retry-after'));
    throw new ServerFault(error ?? 'failed', place, wait > 0 ? wait : null);
  } catch (error) {
    // A page instead of an answer: something else is at this address.
    throw error instanceof ServerFault ? error : new ServerFault('unreachable');
  }
}
