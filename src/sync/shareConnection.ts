import { GotShare, MarksNews, type AskShare, type PutMarks, type PutShare } from '@/core/exchange/shares';
import type { z } from 'zod';
import { askServer, type Fetch } from '../carriers/ask';

/** Shares of marking over the classroom server, from the desk that gives them and from the one that marks. */
export interface ShareConnection {
  put(shareId: string, share: z.infer<typeof PutShare>): Promise<void>;
  pullBack(shareId: string): Promise<void>;
  news(after: number): Promise<MarksNews>;
  /** The share that a code opens, still sealed. */
  ask(code: string): Promise<z.infer<typeof GotShare>>;
  putMarks(marks: z.infer<typeof PutMarks>): Promise<void>;
}

export function shareConnection(fetcher?: Fetch): ShareConnection {
  const ask = (method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown) =>
    askServer(method, path, body, fetcher);
  const placeOf = (shareId: string) => `/desk/shares/${encodeURIComponent(shareId)}`;
  return {
    put: async (shareId, share) => void (await ask('PUT', placeOf(shareId), share)),
    pullBack: async (shareId) => void (await ask('DELETE', placeOf(shareId))),
    news: async (after) => MarksNews.parse(await ask('GET', `/desk/shares?after=${after}`)),
    ask: async (code) =>
      GotShare.parse(await ask('POST', '/share', { code } satisfies z.infer<typeof AskShare>)),
    putMarks: async (marks) => void (await ask('PUT', '/share/marks', marks)),
  };
}
