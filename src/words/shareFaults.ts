import { ServerFault } from '@/core/exchange/serverFault';
import { WordedFault } from './wordedFault';

const words: Record<string, string> = {
  unreachable: 'the classroom server can’t be reached',
  notPaired: 'this desk is no longer paired with the server. Pair it again under Run, own devices',
  full: 'the classroom server is out of space',
  tooLarge: 'this is too large for the server. Give fewer answers, or use a file',
  tooManyGuesses: 'too many wrong codes. Try again in ten minutes',
  pulledBack: 'this share was pulled back. Ask the colleague who gave it',
};

/** Why the server did not take or give a share or its marks. */
export const shareFaultWords = (error: unknown): string =>
  (error instanceof ServerFault && words[error.why]) || 'the classroom server failed. Its terminal says why';

/** What the server refused, in words. @throws {WordedFault} */
export async function overServer<T>(asked: Promise<T>): Promise<T> {
  try {
    return await asked;
  } catch (error) {
    throw error instanceof ServerFault ? new WordedFault(shareFaultWords(error)) : error;
  }
}
