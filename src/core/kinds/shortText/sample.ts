import { shortText } from '.';
import type { KindSample } from '../KindSample';
import type { ShortText } from './schema';

export const shortTextSample: KindSample<ShortText> = {
  question: {
    ...shortText.empty(() => 'q3-new'),
    kind: 'shortText',
    id: 'q3',
    stem: 'True course?',
    points: 2,
    accepted: [
      { id: 'k0', text: 'SECRET-118', share: 1, comment: 'SECRET-ACCEPTED-COMMENT' },
      { id: 'k1', text: 'SECRET-half', share: 0.5, comment: '' },
    ],
    forgive: { case: true, spaces: true, accents: true },
    note: 'SECRET-NOTE',
  },
  blank: { text: ' ' },
};
