import { fileNameOf } from '@/core/formats/fileName';
import { putShare, sealedShare } from '@/sync/sharedMarks';
import { shareConnection } from '@/sync/shareConnection';
import { isoNow } from '@/ui/clock';
import { saveFile } from '@/ui/saveFile';
import { overServer } from '@/words/shareFaults';

/** The ways a share goes to its marker. */
export const shareServer = shareConnection();

/** Saves a share as a sealed file. */
export async function saveShare(shareId: string, marker: string, title: string): Promise<void> {
  const text = await sealedShare(shareId);
  saveFile(
    `${fileNameOf(`${title} share for ${marker}`)}.json`,
    'application/json',
    new TextEncoder().encode(text),
  );
}

/** Puts a share on the classroom server. */
export const sendShare = (shareId: string): Promise<void> =>
  overServer(putShare(shareServer, shareId, isoNow()));

/** Takes it off the classroom server. */
export const withdrawShare = (shareId: string): Promise<void> => overServer(shareServer.pullBack(shareId));
