import { openText } from '.';
import type { KindSample } from '../KindSample';
import type { OpenText } from './schema';

export const openTextSample: KindSample<OpenText> = {
  question: {
    ...openText.empty(() => 'q4-new'),
    kind: 'openText',
    id: 'q4',
    stem: 'Explain deviation',
    points: 3,
    modelAnswer: 'SECRET-MODEL',
    scheme: [
      { id: 'l1', text: 'SECRET-LINE-1', points: 2 },
      { id: 'l2', text: 'SECRET-LINE-2', points: 1 },
      { id: 'l3', text: 'SECRET-LINE-3', points: -1 },
    ],
    commentWrong: 'SECRET-WRONG',
    note: 'SECRET-NOTE',
  },
  blank: { text: '\n' },
};
