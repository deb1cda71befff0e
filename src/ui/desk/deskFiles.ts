import { deskFile, keepAsset } from '@/store/assets';
import type { Files } from '../files';

/** The pictures and files of the desk. */
export const deskFiles: Files = { get: deskFile, put: keepAsset };
