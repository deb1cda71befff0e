import { ordering } from '.';
import type { KindSample } from '../KindSample';
import type { Ordering } from './schema';

export const orderingSample: KindSample<Ordering> = {
  question: {
    ...ordering.empty(() => 'q9-new'),
    kind: 'ordering',
    id: 'q9',
    stem: 'In the order of a day',
    points: 3,
    items: ['low water', 'flood', 'high water', 'ebb'].map((text, index) => ({ id: `p${index}`, text })),
    rule: 'pairs',
    note: 'SECRET-NOTE',
  },
  blank: { order: [] },
};
