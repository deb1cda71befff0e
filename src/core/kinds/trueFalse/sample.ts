import { trueFalse } from '.';
import type { KindSample } from '../KindSample';
import type { TrueFalse } from './schema';

export const trueFalseSample: KindSample<TrueFalse> = {
  question: {
    ...trueFalse.empty(() => 'q5-new'),
    kind: 'trueFalse',
    id: 'q5',
    stem: 'A stern light is white',
    points: 1,
    key: true,
    commentTrue: '',
    commentFalse: 'SECRET-OPTION-COMMENT',
    note: 'SECRET-NOTE',
  },
  blank: { picked: [] },
};
