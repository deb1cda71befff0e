import { expect, it } from 'vitest';
import { markOf, openQuestion } from '../../../tests/unit/samples';
import { textSeats } from '../../../tests/unit/textSeats';
import { scriptSays } from './scriptSays';

const says = (...marks: Parameters<typeof markOf>[0][]) => {
  const [seat] = textSeats(
    ['north'],
    marks.map((mark) => markOf({ attemptId: 'a0', ...mark })),
    openQuestion,
  );
  return seat ? scriptSays(seat) : '';
};

it('a script says something else once a mark or a comment is another, and else the same', () => {
  const marked = says({ points: 1 });
  expect(says({ points: 1 })).toBe(marked);
  expect(says({ points: 2 })).not.toBe(marked);
  expect(says({ points: 1, comment: 'See rule 8' })).not.toBe(marked);
});
