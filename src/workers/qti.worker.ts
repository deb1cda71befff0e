import { expose } from 'comlink';
import { nanoid } from 'nanoid';
import { papersFromQti, type ReadPackage } from '@/core/formats/qti/readPackage';
import { Refused, type Refusal } from '@/core/formats/refused';
import { qtiPackage } from '@/core/formats/qti/writePackage';

/** A package that was read, or why it was not. */
export type PackageReply =
  { read: ReadPackage } | { refused: { why: Refusal; place: string; detail: string } };

/** Packages are read and written here, so that the page goes on and can stop it. */
const qtiWorker = {
  papersFrom: (
    bytes: Uint8Array,
    name: string,
    progress: (done: number, of: number) => void,
  ): PackageReply => {
    try {
      return { read: papersFromQti(bytes, name, () => nanoid(12), progress) };
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      const { why, place, detail } = error;
      return { refused: { why, place, detail } };
    }
  },
  packageOf: qtiPackage,
};
export type QtiWorker = typeof qtiWorker;

expose(qtiWorker);
