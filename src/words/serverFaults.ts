import { ServerFault } from '@/core/exchange/serverFault';

const minutes = (seconds: number) => (seconds < 90 ? 'a minute' : `${Math.ceil(seconds / 60)} minutes`);

/** Why a call to the teacher's side failed, what it means for the student's answers, and what to do. */
export function faultWords(error: unknown): string {
  const { why, waitS } = error instanceof ServerFault ? error : new ServerFault('unreachable');
  if (why === 'tooManyGuesses')
    return `Too many wrong codes. Try again in ${minutes(waitS ?? 600)}, or tell your teacher, who can let you in straight away.`;
  if (why === 'full')
    return 'Your teacher’s computer is out of space. What you typed is saved on this device; tell your teacher.';
  if (why === 'unreachable')
    return 'Your teacher’s computer can’t be reached right now. Check your connection and try again.';
  return 'Something went wrong on your teacher’s computer. Try again in a moment; if it happens again, tell your teacher.';
}
