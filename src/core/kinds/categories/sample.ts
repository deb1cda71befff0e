import { categories } from '.';
import type { KindSample } from '../KindSample';
import type { Categories } from './schema';

export const categoriesSample: KindSample<Categories> = {
  question: {
    ...categories.empty(() => 'q10-new'),
    kind: 'categories',
    id: 'q10',
    stem: 'Sort the marks',
    points: 2,
    items: ['red can', 'green cone', 'red pillar', 'green pillar'].map((text, index) => ({
      id: `m${index}`,
      text,
    })),
    targets: ['to port', 'to starboard'].map((text, index) => ({ id: `s${index}`, text })),
    key: { m0: 's0', m1: 's1', m2: 's0', m3: 's1' },
    wrongTakesOff: true,
    note: 'SECRET-NOTE',
  },
  blank: { pairs: {} },
};
