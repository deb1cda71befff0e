import { z } from 'zod';
import { BoxNews, BoxState, type BoxChange } from '@/core/exchange/box';
import { packedAsset, PackedAsset, unpackedAsset, type Asset } from '@/core/model/asset';
import { askServer, type Fetch } from './ask';

/** The desk's line to the box of the classroom server. */
export interface DeskLine {
  /** @returns which box it is */
  pair(secret: string): Promise<string>;
  unpair(): Promise<void>;
  state(): Promise<BoxState>;
  forgive(from: string): Promise<void>;
  put(changes: readonly BoxChange[]): Promise<void>;
  news(after: number): Promise<BoxNews>;
  putFile(file: Asset): Promise<void>;
  file(id: string): Promise<Asset>;
}

export function deskLine(fetcher?: Fetch): DeskLine {
  const ask = (method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown) =>
    askServer(method, path, body, fetcher);
  return {
    pair: async (secret) => z.object({ box: z.string() }).parse(await ask('POST', '/pair', { secret })).box,
    unpair: async () => void (await ask('DELETE', '/pair')),
    state: async () => BoxState.parse(await ask('GET', '/desk/state')),
    forgive: async (from) => void (await ask('POST', '/desk/forgive', { from })),
    put: async (changes) => void (await ask('POST', '/desk/changes', { changes })),
    news: async (after) => BoxNews.parse(await ask('GET', `/desk/news?after=${after}`)),
    putFile: async (file) => void (await ask('PUT', '/desk/files', packedAsset(file))),
    file: async (id) =>
      unpackedAsset(PackedAsset.parse(await ask('GET', `/desk/files/${encodeURIComponent(id)}`))),
  };
}
