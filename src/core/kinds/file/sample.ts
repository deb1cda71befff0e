import { file } from '.';
import type { KindSample } from '../KindSample';
import type { FileQuestion } from './schema';

export const fileSample: KindSample<FileQuestion> = {
  question: {
    ...file.empty(() => 'q12-new'),
    kind: 'file',
    id: 'q12',
    stem: 'Hand in your passage plan',
    points: 3,
    sorts: ['pdf', 'sheet'],
    most: 2,
    modelAnswer: 'SECRET-MODEL',
    scheme: [{ id: 'f1', text: 'SECRET-LINE-1', points: 3 }],
    note: 'SECRET-NOTE',
  },
  blank: { files: [] },
};
