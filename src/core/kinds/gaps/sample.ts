import { gaps } from '.';
import type { KindSample } from '../KindSample';
import type { Gaps } from './schema';

export const gapsSample: KindSample<Gaps> = {
  question: {
    ...gaps.empty(() => 'q7-new'),
    kind: 'gaps',
    id: 'q7',
    stem: 'Fill in.',
    points: 2,
    forgive: { case: true, spaces: true, accents: true },
    text: 'The stream that comes in is the [1], the one that goes out the [2].',
    gaps: [
      {
        id: 'g1',
        number: 1,
        filledBy: 'typing',
        accepted: [{ id: 'ga', text: 'SECRET-FLOOD', share: 1, comment: 'SECRET-GAP-COMMENT' }],
        options: [],
        key: null,
      },
      {
        id: 'g2',
        number: 2,
        filledBy: 'picking',
        accepted: [],
        options: [
          { id: 'ge', text: 'ebb', comment: '' },
          { id: 'gs', text: 'slack', comment: 'SECRET-OPTION-COMMENT' },
        ],
        key: 'ge',
      },
    ],
    note: 'SECRET-NOTE',
  },
  blank: { gaps: { g1: ' ', g2: '' } },
};
