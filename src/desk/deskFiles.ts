import { deskFile, keepAsset } from '@/store/assets';
import type { Files } from '../ui/files';

/** The pictures and files of the desk. */
export const deskFiles: Files = { get: deskFile, put: keepAsset };
