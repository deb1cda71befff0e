import type { Seat } from '@/core/seats/seats';
import type { Attempt, AttemptEvent } from '@/core/model/sitting';
import { counted, points } from './format';

/** "Reading answers: 401 of 10,000 attempts so far…": what a view that shows them already says. */
export const readingWords = ({ done, of }: { done: number; of: number }) =>
  `Reading answers: ${points(done)} of ${counted(of, 'attempt')} so far. Everything on this page is about these until all are there.`;

export type StateGroup = 'notStarted' | 'working' | 'in';

export const stateGroups: Record<StateGroup, Seat['state'][]> = {
  notStarted: ['notStarted'],
  working: ['working'],
  in: ['handedIn', 'collected', 'collectedByTime'],
};

export const stateWords: Record<Seat['state'], string> = {
  notStarted: 'not started',
  working: 'working',
  handedIn: 'handed in',
  collected: 'collected',
  collectedByTime: 'time was up',
};

export const eventWords: Record<AttemptEvent['kind'], string> = {
  started: 'started',
  cameBack: 'came back to it',
  handedIn: 'handed in',
  collected: 'collected by the teacher',
  carriedOn: 'reopened by the teacher',
  setAside: 'set aside by the teacher',
  takenBack: 'restored by the teacher',
  answered: 'answered',
  left: 'left the page',
  returned: 'came back to the page',
  tried: 'tried',
  hinted: 'took a hint',
  shown: 'saw the answer',
  broughtIn: 'answers imported from a sheet',
};

/** Where the answers of an attempt came from that was not sat here. */
export const sourceWords: Record<NonNullable<Attempt['source']>, string> = {
  sheet: 'from a sheet',
  paper: 'from paper',
};
