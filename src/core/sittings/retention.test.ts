import dayjs from 'dayjs';
import utc from 'dayjs/plugin/utc';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { dueAt, overAt } from './retention';

dayjs.extend(utc);

it('months are those of the calendar, as a library of dates counts them', () => {
  const instants = fc.date({ min: new Date('2000-01-01'), max: new Date('2080-01-01'), noInvalidDate: true });
  fc.assert(
    fc.property(instants, fc.integer({ min: 0, max: 120 }), (from, months) => {
      expect(dueAt(from.toISOString(), months)).toBe(dayjs.utc(from).add(months, 'month').toISOString());
    }),
  );
  expect(dueAt('2026-08-31T10:00:00.000Z', 6)).toBe('2027-02-28T10:00:00.000Z');
});

it('a sitting without an end was over when it opened, as far as anybody can say', () => {
  const opensAt = '2026-01-01T10:00:00.000Z';
  expect(overAt({ opensAt, closesAt: null })).toBe(opensAt);
  expect(overAt({ opensAt, closesAt: '2026-01-02T10:00:00.000Z' })).toBe('2026-01-02T10:00:00.000Z');
});
