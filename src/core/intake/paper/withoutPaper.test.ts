import { expect, it } from 'vitest';
import { studentOf } from '../../../../tests/unit/samples';
import { inRegister, withoutPaper } from './withoutPaper';

it('who has a paper of any print is not asked for, and only who stands in the register is named by its order', () => {
  const students = [
    studentOf({ id: 's1', familyName: 'Rivera' }),
    studentOf({ id: 's2', familyName: 'Haddad' }),
    studentOf({ id: 's3', familyName: 'Duarte', role: 'guest' }),
    studentOf({ id: 's4', familyName: 'Åberg' }),
  ];
  const left = withoutPaper([{ copies: [null, 's2'] }, { copies: [null] }], students);
  expect(left.map(({ id }) => id)).toEqual(['s4', 's3', 's1']);
  expect(left.filter(inRegister).map(({ id }) => id)).toEqual(['s4', 's1']);
});
