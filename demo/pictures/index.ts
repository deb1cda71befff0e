import type { PackedAsset } from '@/core/model/asset';
import bayPng from './bay.png?inline';

/** A made-up bay with a landing, an island, a stream and a scale: drawn for this course. */
export const bay: PackedAsset = {
  id: 'ZZkAFi5v9TOKB4sLRVmLoEZV2vG-yXNGHjZMHuIZVA0',
  name: 'bay.png',
  mediaType: 'image/png',
  base64: bayPng.slice(bayPng.indexOf(',') + 1),
};
