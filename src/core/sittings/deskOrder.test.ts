import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, sittingOf } from '../../../tests/unit/samples';
import type { SittingProgress } from '../seats/progress';
import { courseOf, deskOrder, foundOnDesk, sittingsByCourse, withCourse, type DeskRow } from './deskOrder';

const now = Date.parse(at);
const iso = (hours: number) => new Date(now + hours * 3_600_000).toISOString();
const none: SittingProgress = {
  sittingId: 's',
  students: 30,
  notStarted: 0,
  working: 0,
  in: 30,
  byHand: 0,
  waiting: 0,
  forward: 0,
  aside: 0,
  noKey: 0,
  notRead: 0,
  ready: 30,
  released: 30,
  opened: 0,
  meanShare: 0.5,
  validUntil: null,
};
const group = (id: string, course?: string, term?: string) => ({
  id,
  name: `Group ${id}`,
  createdAt: at,
  ...(course !== undefined && { course }),
  ...(term !== undefined && { term }),
});
const row = (
  id: string,
  progress: Partial<SittingProgress> = {},
  part: Partial<DeskRow['sitting']> = {},
  groups: DeskRow['groups'] = [],
): DeskRow => ({
  sitting: sittingOf({ id, title: `Quiz ${id}`, opensAt: iso(-48), closesAt: iso(-24), ...part }),
  progress: { ...none, ...progress },
  groups,
});
const ids = (rows: readonly DeskRow[]) => rows.map(({ sitting }) => sitting.id);

describe('the desk in its order', () => {
  it('what wants something is on top, what is done lies by course and term, the latest first', () => {
    const coast = [group('g', 'Coastal navigation', 'Autumn')];
    const order = deskOrder(
      [
        row('done', {}, { opensAt: iso(-90) }, coast),
        row('later', {}, { opensAt: iso(-40) }, coast),
        row('toMark', { waiting: 3, released: 0 }),
        row('running', { working: 2 }),
        row('coming', { in: 0, released: 0, notStarted: 30 }, { opensAt: iso(5), closesAt: iso(6) }),
        row('nobodyCame', { in: 0, released: 0, notStarted: 30 }),
        row('old', {}, { archivedAt: iso(-1) }),
      ],
      now,
    );
    expect(ids(order.pressing)).toEqual(['running', 'toMark', 'coming']);
    expect(order.sections.map(({ course, term, rows }) => [course, term, ids(rows)])).toEqual([
      ['Coastal navigation', 'Autumn', ['later', 'done']],
      ['', '', ['nobodyCame']],
    ]);
    expect(ids(order.archived)).toEqual(['old']);
  });

  it('a sitting’s own course goes before its groups’, which counts where they have it in common', () => {
    const two = [group('a', 'Coastal', 'Autumn'), group('b', 'Coastal', 'Spring')];
    expect(courseOf(row('s', {}, {}, two))).toEqual({ course: 'Coastal', term: '' });
    expect(courseOf(row('s', {}, { term: 'Summer', course: '' }, two))).toEqual({
      course: '',
      term: 'Summer',
    });
    const sittings = [row('4', {}, { opensAt: iso(-60) }, two), row('3', {}, {}, two)];
    expect(ids(foundOnDesk(sittings, 'quiz coast'))).toEqual(['3', '4']);
    expect(ids(foundOnDesk(sittings, 'group b'))).toEqual(['3', '4']);
    expect(foundOnDesk(sittings, 'quiz spring')).toEqual([]);
  });

  it('what is said of a course is kept without the spaces around it, and nothing said is no field', () => {
    const named = withCourse(group('a', 'Old', 'Old'), { course: ' Coastal ', term: '' });
    expect(named).toEqual(group('a', 'Coastal'));
    expect(withCourse(named, { course: ' ', term: '' })).toEqual(group('a'));
  });

  it('every sitting lies in exactly one place, whatever there is', () => {
    const anyRow = fc.record({
      in: fc.nat(3),
      working: fc.nat(1),
      waiting: fc.nat(1),
      released: fc.nat(3),
      archived: fc.boolean(),
      course: fc.option(fc.constantFrom('', 'A', 'B'), { nil: undefined }),
    });
    fc.assert(
      fc.property(fc.array(anyRow, { maxLength: 12 }), (all) => {
        const rows = all.map(({ archived, course, ...progress }, index) =>
          row(`s${index}`, progress, {
            ...(archived && { archivedAt: at }),
            ...(course !== undefined && { course }),
          }),
        );
        const { pressing, sections, archived } = deskOrder(rows, now);
        const placed = [
          ...ids(pressing),
          ...sections.flatMap((section) => ids(section.rows)),
          ...ids(archived),
        ];
        expect(placed.sort()).toEqual(ids(rows).sort());
      }),
    );
  });
});

it('sittings of a course are those that name it or whose groups all do; made-up classes and shares are none', () => {
  const groups = [group('a', 'Tides'), group('b', 'Tides'), group('c')];
  const sittings = [
    sittingOf({ id: '1', groupIds: ['a', 'b'] }),
    sittingOf({ id: '2', groupIds: ['a', 'c'] }),
    sittingOf({ id: '3', groupIds: ['c', 'gone'], course: 'Tides' }),
    sittingOf({ id: '4', groupIds: ['a'], rehearsal: true }),
    sittingOf({ id: '5', groupIds: ['a'], share: true }),
  ];
  const found = [...sittingsByCourse(sittings, groups)].map(([course, own]) => [
    course,
    own.map(({ id }) => id),
  ]);
  expect(Object.fromEntries(found)).toEqual({ Tides: ['1', '3'], '': ['2'] });
});
