import type { Asks } from '@/core/model/sitting';

/** What is asked for, as the end of "asks for…". */
export const asksWords: Record<Asks, string> = {
  moreTime: 'more time',
  otherTimes: 'another day or time',
  anotherAttempt: 'another attempt',
  carryOn: 'to reopen what I handed in',
  other: 'something else',
  mark: 'a look at a mark',
};
