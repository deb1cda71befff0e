import type { PackedAsset } from '@/core/basics/asset';
import bayPng from './bay.png?inline';

/** A made-up bay with a landing, an island, a stream and a scale: drawn for this course. */
export const bay: PackedAsset = {
  id: 'kaUNmftZ1OXs7os3ta_fIv7iaHQiDpMYtJF_GAnbjQc',
  name: 'bay.png',
  mediaType: 'image/png',
  base64: bayPng.slice(bayPng.indexOf(',') + 1),
};
