import { readMarks } from '@/core/formats/packet/shareFile';
import type { RefusedFile } from '@/core/formats/packet/wrapping';
import type { MarksBack } from '@/core/model/share';
import { desk } from '@/store/tables';

/** A file that should hold marks: they, or why it does not. */
export interface MarksFile {
  name: string;
  back: MarksBack | null;
  refused: string;
}

/** Why a packet file is not read, in words. */
export function refusedFileWords(read: RefusedFile): string {
  if (read.why === 'newer') return 'Made by a newer version of Gribbet.';
  if (read.why !== 'damaged') return 'Not a file of this kind.';
  return `The file is damaged (${read.place || 'the whole file'}: ${read.expected}). Nothing was taken; ask for it again.`;
}

/** Reads files with marks, all at once: most of the time is the browser's own sealing. */
export async function marksInFiles(files: readonly File[]): Promise<MarksFile[]> {
  const secrets = new Map((await desk.shares.toArray()).map(({ id, secret }) => [id, secret]));
  return Promise.all(
    files.map(async (file) => {
      const read = await readMarks(new Uint8Array(await file.arrayBuffer()), (id) => secrets.get(id));
      if (read.outcome === 'read') return { name: file.name, back: read.back, refused: '' };
      const refused =
        read.outcome === 'unknown'
          ? `Marks of a share that this desk did not give (${read.title}).`
          : refusedFileWords(read);
      return { name: file.name, back: null, refused };
    }),
  );
}
