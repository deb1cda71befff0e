import { expect, it } from 'vitest';
import { markOf, studentOf } from '../../../tests/unit/samples';
import { textSeats } from '../../../tests/unit/textSeats';
import { orderedScripts, type ScriptOrder } from './scriptOrder';

it('scripts stand by name, number, total or nearness to the pass line; what has no points comes last', () => {
  const points = [3, 1, null, 2];
  const people = [
    ['Zhou', '9'],
    ['Abe', '10'],
    ['Moyo', '100'],
    ['Lund', '11'],
  ] as const;
  const seats = textSeats(
    points.map((_, n) => `answer ${n}`),
    points.map((worth, n) => markOf({ attemptId: `a${n}`, points: worth })),
  ).map((seat, n) => ({
    ...seat,
    student: studentOf({ id: `s${n}`, familyName: people[n]?.[0] ?? '', number: people[n]?.[1] ?? '' }),
  }));
  const names = (order: ScriptOrder, line = 0.6) =>
    orderedScripts(seats, order, line).map(({ student }) => student.familyName);
  expect(names('name')).toEqual(['Abe', 'Lund', 'Moyo', 'Zhou']);
  expect(names('number')).toEqual(['Zhou', 'Abe', 'Lund', 'Moyo']);
  expect(names('total')).toEqual(['Abe', 'Lund', 'Zhou', 'Moyo']);
  const max = seats[0]?.scorecard?.max ?? 1;
  expect(names('line', 2 / max)[0]).toBe('Lund');
  expect(names('line', 3 / max)[0]).toBe('Zhou');
});
