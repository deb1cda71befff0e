import { WordedFault } from './wordedFault';
import { brokenLimit, type BrokenLimit } from '@/core/basics/brokenLimit';
import { counted } from '@/core/basics/counted';
import { points } from './format';
import type { CommandFaultCode } from '@/core/model/commandFault';

/** Why something could not be done, as a sentence. */
const words: Record<CommandFaultCode, string | ((detail: string) => string)> = {
  questionGone: 'This question no longer exists',
  bankQuestionGone: 'This question is no longer in the bank',
  paperGone: 'This paper no longer exists',
  paperQuestionGone: 'This question is no longer in the paper',
  paperInUse: 'A paper that was given out can’t be deleted',
  paperSat: 'Nothing can be added to a paper that was sat already',
  paperNotReady: 'This paper isn’t ready to be sat',
  paperChangedSince: 'This paper was changed since the sitting: score with the changed paper in Write first',
  noAttemptToSetAside: 'There is no attempt to set aside',
  noAttemptEnded: 'No attempt has ended',
  noTimeLeft: 'There was no time left: give more minutes and it reopens by itself',
  notSetAside: 'This attempt isn’t set aside',
  attemptGone: 'This attempt no longer exists',
  studentGone: 'This student no longer exists',
  sittingOrStudentGone: 'This sitting or student no longer exists',
  sameStudent: 'Choose two different students',
  rehearsalGone: 'This rehearsal no longer exists',
  notRehearsal: 'This isn’t a rehearsal',
  requestGone: 'This request no longer exists',
  shareGone: 'This share no longer exists',
  printGone: 'These answer papers no longer exist',
  printChanged:
    'These answer papers can’t be made again: this version lays pages out differently. What was printed can still be scanned',
  scanGone: 'This scanned page no longer exists',
  copyTaken: 'This student has another answer paper already',
  deskElsewhere: (computer) =>
    computer === ''
      ? 'this browser was forgotten by the server, and the desk is for reading only here. See Computers'
      : `the desk is on ${computer} and for reading only here. Take it over here first, under Computers`,
  fileChanged: (name) => `The file ${name} has changed since it was saved`,
};

/** What is too much or too little, and how much may be. */
function limitWords({ of, is, limit, beyond }: BrokenLimit): string {
  if (of === 'text')
    return is === 'most'
      ? `The text is too long: shorten it to ${counted(limit, 'character')}`
      : `The text is too short: it needs at least ${counted(limit, 'character')}`;
  if (of === 'number' && beyond)
    return is === 'most'
      ? `The number is too large: it must be less than ${points(limit)}`
      : `The number is too small: it must be more than ${points(limit)}`;
  if (of === 'number')
    return is === 'most'
      ? `The number is too large: ${points(limit)} is the most`
      : `The number is too small: ${points(limit)} is the least`;
  return is === 'most'
    ? `That is too many: ${points(limit)} is the most`
    : `That is too few: ${points(limit)} is the least`;
}

/**
 * What to say of an error: its own words only where they are ours. What nobody foresaw goes to the console, and is not
 * shown.
 *
 * @param otherwise what is said then
 */
export function faultWords(error: unknown, otherwise = 'Something unexpected went wrong. Try again'): string {
  if (error instanceof WordedFault) return error.message;
  const limit = brokenLimit(error);
  if (limit) return limitWords(limit);
  const [, code = '', detail = ''] =
    /^(\w+)(?: (.*))?$/s.exec(error instanceof Error ? error.message : '') ?? [];
  if (!Object.hasOwn(words, code)) {
    console.error(error);
    return otherwise;
  }
  const said = words[code as CommandFaultCode]; // it is one of them
  return typeof said === 'string' ? said : said(detail);
}
