import { ServerFault } from '@/core/exchange/serverFault';
import { WordedFault } from '@/words/wordedFault';
import { fileNameOf } from '@/core/formats/fileName';
import { putShare, sealedShare } from '@/sync/sharedMarks';
import { shareConnection } from '@/sync/shareConnection';
import { saveFile } from '@/ui/saveFile';

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
export const sendShare = (shareId: string): Promise<void> => overServer(putShare(shareServer, shareId));

/** Takes it off the classroom server. */
export const withdrawShare = (shareId: string): Promise<void> => overServer(shareServer.pullBack(shareId));

const words: Record<string, string> = {
  unreachable: 'the classroom server can’t be reached. Check the connection and try again',
  notPaired: 'this desk is no longer paired with the server. Pair it again under Run, own devices',
  full: 'the classroom server is out of space',
  tooLarge: 'the share is too large for the server. Give fewer answers, or give it as a file',
  tooManyGuesses: 'too many wrong codes. Try again in ten minutes',
};

/** What the server refused, in words. @throws {WordedFault} */
export async function overServer<T>(asked: Promise<T>): Promise<T> {
  try {
    return await asked;
  } catch (error) {
    if (!(error instanceof ServerFault)) throw error;
    throw new WordedFault(words[error.why] ?? 'the classroom server failed. Its terminal says why');
  }
}
