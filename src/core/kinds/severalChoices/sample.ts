import { severalChoices } from '.';
import type { KindSample } from '../KindSample';
import type { SeveralChoices } from './schema';

export const severalChoicesSample: KindSample<SeveralChoices> = {
  question: {
    ...severalChoices.empty(() => 'q2-new'),
    kind: 'severalChoices',
    id: 'q2',
    stem: 'At springs',
    points: 2,
    options: ['range larger', 'streams faster', 'low water lower', 'high water lower'].map((text, index) => ({
      id: `o${index}`,
      text,
      comment: index === 3 ? 'SECRET-OPTION-COMMENT' : '',
    })),
    key: ['o0', 'o1', 'o2'],
    rule: 'rightMinusWrong',
    note: 'SECRET-NOTE',
  },
  blank: { picked: [] },
};
