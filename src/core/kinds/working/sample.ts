import { working } from '.';
import type { KindSample } from '../KindSample';
import type { Working } from './schema';

export const workingSample: KindSample<Working> = {
  /** A course to plot on a chart. */
  question: {
    ...working.empty(() => 'q11-new'),
    kind: 'working',
    id: 'q11',
    stem: 'Plot the course to steer',
    points: 4,
    ways: ['words', 'maths', 'drawing', 'photo'],
    canvas: { asset: 'chart', alt: 'A chart of the bay', decoration: false, width: 800, height: 600 },
    modelAnswer: 'SECRET-MODEL',
    scheme: [
      { id: 'w1', text: 'SECRET-LINE-1', points: 3 },
      { id: 'w2', text: 'SECRET-LINE-2', points: 1 },
    ],
    note: 'SECRET-NOTE',
  },
  blank: { words: ' ', maths: [''], drawing: [], photos: [] },
};
