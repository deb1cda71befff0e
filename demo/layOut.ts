/// <reference types="vite/client" />
import { replaceDesk } from '@/store/backup';
import type { Asset } from '@/core/basics/asset';
import { desk } from '@/store/tables';
import { buildDemo } from './buildDemo';
import { pagePictures } from './onPaper';

const files = import.meta.glob<string>('./onPaper/*.jpg', { query: '?url', import: 'default', eager: true });

/** Lays the demo course out on this desk. Only called on a fresh profile. */
export async function layOutDemo(now: number): Promise<void> {
  const pages = Promise.all(pagePictures.map(fetched));
  await replaceDesk(buildDemo(now));
  await desk.assets.bulkPut((await pages).flatMap((page) => page ?? []));
}

/** A page of those that are on paper; null where it does not come: it says so where it would be seen. */
async function fetched({ id, name, file }: (typeof pagePictures)[number]): Promise<Asset | null> {
  const url = files[`./onPaper/${file}`];
  const response = url === undefined ? null : await fetch(url).catch(() => null);
  if (!response?.ok) return null;
  const bytes = new Uint8Array(await response.arrayBuffer());
  return { id, name, mediaType: 'image/jpeg', size: bytes.length, bytes };
}
