import { describe, expect, it } from 'vitest';
import { studentOf } from '../../../tests/unit/samples';
import { broughtIn } from './broughtIn';

const students = [
  studentOf(),
  studentOf({
    id: 'student2',
    number: '007',
    familyName: 'Silva',
    givenName: 'Ana',
    email: 'ana@example.org',
  }),
];

describe('points that are brought in', () => {
  it('find their student by number, email or name, with a decimal comma too', () => {
    expect(broughtIn('007\t7,5\nAMARA.OKAFOR@example.org\t9', students).values).toEqual({
      student2: 7.5,
      student1: 9,
    });
    expect(broughtIn('Silva, Ana; 8\nOkafor, Amara; 3', students).values).toEqual({
      student2: 8,
      student1: 3,
    });
  });

  it('say of each line that could not be used why', () => {
    const { values, bad } = broughtIn('007;7\n007;8\n999;1\n2101;soon\n', students);
    expect(values).toEqual({ student2: 7 });
    expect(bad.map(({ line, why }) => [line, why])).toEqual([
      [2, 'twice'],
      [3, 'unknown'],
      [4, 'noPoints'],
    ]);
  });
});
