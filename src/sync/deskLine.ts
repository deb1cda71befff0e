import { z } from 'zod';
import { base64From, bytesFrom } from '@/core/basics/base64';
import { BoxNews, BoxPresence, BoxState, type BoxChange } from '@/core/exchange/box';
import { DeskCopy, LackingParts, SealedBytes } from '@/core/formats/backup/copies';
import { PackedAsset, type Asset } from '@/core/basics/asset';
import { packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { askServer, type Fetch } from '../carriers/ask';

/** The desk's line to the box of the classroom server. */
export interface DeskLine {
  /** @returns which box it is */
  pair(secret: string): Promise<string>;
  unpair(): Promise<void>;
  state(): Promise<BoxState>;
  forgive(from: string): Promise<void>;
  put(changes: readonly BoxChange[]): Promise<void>;
  news(after: number): Promise<BoxNews>;
  present(after: number): Promise<BoxPresence>;
  putFile(file: Asset): Promise<void>;
  file(id: string): Promise<Asset>;
  /** Which of these parts of copies are not there. */
  lackingParts(ids: readonly string[]): Promise<string[]>;
  putPart(id: string, sealed: Uint8Array): Promise<void>;
  part(id: string): Promise<Uint8Array>;
  /** Says that a copy is whole; its parts are there. */
  putCopy(copy: DeskCopy): Promise<void>;
  /** The copies that are there, of whatever desk, the newest first. */
  copies(): Promise<DeskCopy[]>;
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
    present: async (after) => BoxPresence.parse(await ask('GET', `/desk/present?after=${after}`)),
    putFile: async (file) => void (await ask('PUT', '/desk/files', packedAsset(file))),
    file: async (id) =>
      unpackedAsset(PackedAsset.parse(await ask('GET', `/desk/files/${encodeURIComponent(id)}`))),
    lackingParts: async (ids) => LackingParts.parse(await ask('POST', '/desk/copies/lacking', { ids })).ids,
    putPart: async (id, sealed) =>
      void (await ask('PUT', `/desk/copies/parts/${id}`, { base64: base64From(sealed) })),
    part: async (id) => bytesFrom(SealedBytes.parse(await ask('GET', `/desk/copies/parts/${id}`)).base64),
    putCopy: async (copy) => void (await ask('PUT', '/desk/copies', copy)),
    copies: async () => DeskCopy.array().parse(await ask('GET', '/desk/copies')),
  };
}
