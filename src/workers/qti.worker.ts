import { expose } from 'comlink';
import { nanoid } from 'nanoid';
import { papersFromQti, type ReadPackage } from '@/core/formats/qti/readPackage';
import { orRefused, type OrRefused } from '@/core/basics/refused';
import { qtiPackage } from '@/core/formats/qti/writePackage';

/** A package that was read, or why it was not. */
export type PackageReply = OrRefused<ReadPackage>;

/** Packages are read and written here, so that the page goes on and can stop it. */
const qtiWorker = {
  papersFrom: (
    bytes: Uint8Array,
    name: string,
    progress: (done: number, of: number) => void,
  ): Promise<PackageReply> => orRefused(() => papersFromQti(bytes, name, () => nanoid(12), progress)),
  packageOf: qtiPackage,
};
export type QtiWorker = typeof qtiWorker;

expose(qtiWorker);
