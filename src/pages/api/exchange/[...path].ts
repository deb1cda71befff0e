import type { APIRoute } from 'astro';
import { runningExchange } from '@/server/running';

/** Every endpoint of the classroom server: see `server/exchangeServer`. */
export const ALL: APIRoute = async ({ request, clientAddress }) => {
  try {
    return await (await runningExchange()).answer(request, clientAddress, Date.now());
  } catch {
    return Response.json({ error: 'failed' }, { status: 500, headers: { 'cache-control': 'no-store' } });
  }
};
