import type { Carrier } from '@/carriers/Carrier';
import { assetId } from '@/core/model/asset';
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
      if (!attemptId) throw new Error('Files are put in only while the paper is sat.');
      const ref = { id: await assetId(bytes), name: name.slice(0, 200), mediaType, size: bytes.length };
      await sitDesk.files.put({ ...ref, bytes, attemptId, sent: false });
      return ref;
    },
  };
}

/** Hands over the files of an attempt that have not been; throws where one is not taken, so that it is tried again. */
export async function handOverFiles(carrier: Carrier, joinCode: string, attemptId: string): Promise<void> {
  const files = await sitDesk.files.where({ attemptId }).toArray();
  for (const { attemptId: _, sent, ...file } of files) {
    if (sent) continue;
    const reply = await carrier.handOverFile(joinCode, attemptId, file);
    if (reply !== 'kept' && reply !== 'over') throw new Error(`${file.name}: ${reply}`);
    await sitDesk.files.update([attemptId, file.id], { sent: true });
  }
}
