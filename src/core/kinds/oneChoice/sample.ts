import { oneChoice } from '.';
import type { KindSample } from '../KindSample';
import type { OneChoice } from './schema';

export const oneChoiceSample: KindSample<OneChoice> = {
  question: {
    ...oneChoice.empty(() => 'q1-new'),
    kind: 'oneChoice',
    id: 'q1',
    stem: 'How much of the range in the third hour?',
    points: 1,
    options: [
      { id: 'a', text: '1/12', comment: '' },
      { id: 'b', text: '3/12', comment: '' },
      { id: 'c', text: '2/12', comment: 'SECRET-OPTION-COMMENT' },
    ],
    key: 'b',
    commentRight: 'SECRET-RIGHT',
    commentWrong: 'SECRET-WRONG',
    note: 'SECRET-NOTE',
  },
  blank: { picked: [] },
};
