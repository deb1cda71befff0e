import { expect, it } from 'vitest';
import { markOf } from '../../../tests/unit/samples';
import { changedMark, settledMarker, type HandMark } from '../model/mark';
import { marksThatCount } from './marksThatCount';

it('of several markers the teacher’s mark counts, else the one made first, in whatever order they come', () => {
  const own = markOf({ points: 1, at: '2026-03-02T20:00:00.000Z' });
  const early = markOf({ markerId: 'm1', points: 2, at: '2026-03-02T18:00:00.000Z' });
  const late = markOf({ markerId: 'm2', points: 3, at: '2026-03-02T19:00:00.000Z' });
  const counts = (...marks: (typeof own)[]) => marksThatCount(marks).get('q4')?.points;
  expect([counts(own, early, late), counts(late, early, own), counts(early, own)]).toEqual([1, 1, 1]);
  expect([counts(early, late), counts(late, early)]).toEqual([2, 2]);
});

it('what was settled counts above what markers gave, until the teacher marks again', () => {
  const other = markOf({ markerId: 'm1', points: 2, at: '2026-03-02T18:00:00.000Z' });
  const own = markOf({ points: 1, at: '2026-03-02T17:00:00.000Z' });
  const settled = markOf({ markerId: settledMarker, points: 1.5, at: '2026-03-02T19:00:00.000Z' });
  const later = markOf({ points: 3, at: '2026-03-02T20:00:00.000Z' });
  const counts = (...marks: HandMark[]) => marksThatCount(marks).get('q4')?.points;
  expect(counts(other, own, settled)).toBe(1.5);
  expect(counts(settled, other)).toBe(1.5);
  expect(counts(other, later, settled)).toBe(3);
});

it('the teacher’s words stand with another’s points; what the teacher cleared is cleared', () => {
  const other = markOf({ markerId: 'm1', points: 2, comment: 'Theirs' });
  const words = markOf({ comment: 'Mine', note: 'look again', aside: true });
  expect(marksThatCount([other, words]).get('q4')).toMatchObject({
    ...{ markerId: 'm1', points: 2, comment: 'Mine', note: 'look again', aside: true },
  });
  const given = changedMark(
    markOf(),
    { points: 1 },
    { at: '2026-11-23T11:00:00.000Z', by: 'teacher', why: '' },
  );
  const cleared = changedMark(
    given,
    { points: null },
    { at: '2026-11-23T12:00:00.000Z', by: 'teacher', why: '' },
  );
  expect(marksThatCount([other, cleared]).get('q4')?.points).toBeNull();
  // Of others one with points goes before one that only said something.
  const said = markOf({ markerId: 'm0', comment: 'Hm', at: '2026-03-02T18:00:00.000Z' });
  expect(marksThatCount([said, other]).get('q4')?.markerId).toBe('m1');
});
