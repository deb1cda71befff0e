import { WordedFault } from '@/words/wordedFault';
import type { Carrier } from '@/carriers/Carrier';
import { assetId } from '@/core/basics/assetBytes';
import type { FileRef } from '@/core/basics/file';
import { mostAttemptBytes } from '@/core/basics/fileRules';
import type { Files } from '@/ui/files';
import { sitDesk } from '@/store/sitTables';

/**
 * The pictures of a paper and the files of one's own answers. A file put in is kept on this device first, and handed
 * over with the answer that names it; what this device does not hold is asked for.
 */
export function studentFiles(
  carrier: Carrier,
  place: { joinCode: string; sittingId: string; attemptId?: string },
): Files {
  const { joinCode, sittingId, attemptId } = place;
  return {
    get: async (id) =>
      (attemptId && (await sitDesk.files.get([attemptId, id]))) || carrier.file(joinCode, sittingId, id),
    put: async ({ name, mediaType, bytes }) => {
      if (!attemptId) throw new WordedFault('You can only add files while sitting the paper.');
      const held = await sitDesk.files.where({ attemptId }).toArray();
      if (held.reduce((sum, file) => sum + file.size, bytes.length) > mostAttemptBytes)
        throw new WordedFault(`Your files are too large with ${name}: at most 100 MB in total.`);
      const ref = { id: await assetId(bytes), name: name.slice(0, 200), mediaType, size: bytes.length };
      await sitDesk.files.put({ ...ref, bytes, attemptId, sent: false });
      return ref;
    },
  };
}

/**
 * Hands over the files of an attempt that have not been; throws where the desk does not answer, so that it is tried
 * again. One that is refused must not hold the answers back: it is marked so, and named to the student.
 *
 * @returns all files of the attempt that were refused
 */
export async function handOverFiles(
  carrier: Carrier,
  joinCode: string,
  attemptId: string,
): Promise<FileRef[]> {
  const files = await sitDesk.files.where({ attemptId }).toArray();
  const refused: FileRef[] = [];
  for (const { attemptId: _, sent, refused: before, ...file } of files) {
    if (before) refused.push(file);
    if (sent) continue;
    const reply = await carrier.handOverFile(joinCode, attemptId, file);
    const taken = reply === 'kept';
    if (!taken) refused.push(file);
    await sitDesk.files.update([attemptId, file.id], { sent: true, refused: !taken });
  }
  return refused;
}
