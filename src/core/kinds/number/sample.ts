import { number } from '.';
import type { KindSample } from '../KindSample';
import type { NumberQuestion } from './schema';

export const numberSample: KindSample<NumberQuestion> = {
  /** 18 nautical miles in an hour and a half; half the points within 5 %. */
  question: {
    ...number.empty(() => 'q6-new'),
    kind: 'number',
    id: 'q6',
    stem: 'How far does she run?',
    points: 2,
    accepted: [
      { id: 'n0', form: 'percent', value: 18, tolerance: 2, upTo: null, share: 1, comment: '' },
      { id: 'n1', form: 'percent', value: 18, tolerance: 5, upTo: null, share: 0.5, comment: 'SECRET-TIER' },
    ],
    unitAsked: 'optional',
    units: [
      { id: 'u0', names: 'nm, M, nautical miles', factor: 1 },
      // SI Brochure, 9th edition, table 8 of the 8th: 1 nautical mile = 1852 m.
      { id: 'u1', names: 'km', factor: 1000 / 1852 },
    ],
    figures: null,
    note: 'SECRET-NOTE',
  },
  blank: { text: '' },
};
