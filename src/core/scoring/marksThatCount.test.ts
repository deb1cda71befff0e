import { expect, it } from 'vitest';
import { markOf } from '../../../tests/unit/samples';
import { marksThatCount } from './marksThatCount';

it('of several markers the teacher’s mark counts, else the one made first, in whatever order they come', () => {
  const own = markOf({ points: 1, at: '2026-03-02T20:00:00.000Z' });
  const early = markOf({ markerId: 'm1', points: 2, at: '2026-03-02T18:00:00.000Z' });
  const late = markOf({ markerId: 'm2', points: 3, at: '2026-03-02T19:00:00.000Z' });
  const counts = (...marks: (typeof own)[]) => marksThatCount(marks).get('q4')?.points;
  expect([counts(own, early, late), counts(late, early, own), counts(early, own)]).toEqual([1, 1, 1]);
  expect([counts(early, late), counts(late, early)]).toEqual([2, 2]);
});
