import { matching } from '.';
import type { KindSample } from '../KindSample';
import type { Matching } from './schema';

export const matchingSample: KindSample<Matching> = {
  question: {
    ...matching.empty(() => 'q8-new'),
    kind: 'matching',
    id: 'q8',
    stem: 'Which light is which colour?',
    points: 3,
    items: ['port', 'starboard', 'stern'].map((text, index) => ({ id: `i${index}`, text })),
    targets: ['red', 'green', 'white', 'yellow'].map((text, index) => ({ id: `t${index}`, text })),
    key: { i0: 't0', i1: 't1', i2: 't2' },
    wrongTakesOff: false,
    note: 'SECRET-NOTE',
  },
  blank: { pairs: {} },
};
