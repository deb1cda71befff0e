import type { APIRoute } from 'astro';
import { Refused, refusal } from '@/server/respond';
import { runningExchange } from '@/server/running';

/** Every endpoint of the classroom server: see `server/exchangeServer`. */
export const ALL: APIRoute = async ({ request, params, clientAddress }) => {
  try {
    const server = await runningExchange();
    return await server.answer(request, `/${params.path ?? ''}`, clientAddress, Date.now());
  } catch {
    return refusal(new Refused('failed'));
  }
};
