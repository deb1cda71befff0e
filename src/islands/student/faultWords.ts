import { ServerFault } from '@/carriers/ask';

const minutes = (seconds: number) => (seconds < 90 ? 'a minute' : `${Math.ceil(seconds / 60)} minutes`);

/** Why a call to the teacher's side failed, what it means for the student's answers, and what to do. */
export function faultWords(error: unknown): string {
  const { why, waitS } = error instanceof ServerFault ? error : new ServerFault('unreachable');
  if (why === 'tooManyGuesses')
    return `Too many wrong codes were typed here. Try again in ${minutes(waitS ?? 600)}, or tell your teacher, who can let you in at once.`;
  if (why === 'full')
    return 'Your teacher’s computer has no room left. What you typed is kept on this device; tell your teacher.';
  if (why === 'unreachable')
    return 'Your teacher’s computer cannot be reached at the moment. Check the connection and try again.';
  return 'Your teacher’s computer could not do that. Try again in a moment; if it stays, tell your teacher.';
}
