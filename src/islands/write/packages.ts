import { proxy } from 'comlink';
import type { PackedPicture, ReadPackage } from '@/core/formats/qti/readPackage';
import { picturesOf, type WrittenPackage } from '@/core/formats/qti/writePackage';
import type { PictureRef } from '@/core/basics/file';
import { withPictures } from '@/core/formats/qti/withPictures';
import type { PaperContent } from '@/core/model/paper';
import { deskFile, keepAsset } from '@/store/assets';
import { pictureFile } from '@/ui/pictureFile';
import type { PackageReply, QtiWorker } from '@/workers/qti.worker';
import { stoppable, type Work } from '@/workers/stoppable';
import { deskWorker } from '@/workers/deskWorker';

export type Progress = (done: number, of: number) => void;

const worker = () => deskWorker('qti');

/** The papers of a package, read in a worker. */
export function readPackage(file: File, progress: Progress): Work<PackageReply> {
  const name = file.name.replace(/\.zip$/i, '');
  return stoppable<QtiWorker, PackageReply>(worker(), async (qti) =>
    qti.papersFrom(new Uint8Array(await file.arrayBuffer()), name, proxy(progress)),
  );
}

/** A paper as a package, written in a worker, with those of its pictures that are here. */
export function writePackage(paper: PaperContent, progress: Progress): Work<WrittenPackage> {
  return stoppable<QtiWorker, WrittenPackage>(worker(), async (qti) => {
    const files = await Promise.all([...picturesOf(paper)].map(deskFile));
    return qti.packageOf(
      paper,
      files.filter((file) => file !== null),
      proxy(progress),
    );
  });
}

/**
 * The papers of a package with their pictures kept on this desk.
 *
 * @returns with the names of pictures that could not be read, which are left out
 */
export async function withKeptPictures({
  papers,
  pictures,
}: ReadPackage): Promise<{ papers: PaperContent[]; unread: string[] }> {
  const kept = new Map<string, Pick<PictureRef, 'asset' | 'width' | 'height'>>();
  const unread: string[] = [];
  for (const picture of pictures) {
    const stored = await keptPicture(picture);
    if (stored) kept.set(picture.id, stored);
    else unread.push(picture.name);
  }
  return { papers: papers.map((paper) => withPictures(paper, kept)), unread };
}

async function keptPicture({ name, bytes }: PackedPicture) {
  const type = /\.svg$/i.test(name) ? 'image/svg+xml' : '';
  try {
    const { width, height, ...file } = await pictureFile(new File([bytes], name, { type }));
    const { id } = await keepAsset(file);
    return { asset: id, width, height };
  } catch {
    return null;
  }
}
