import { once } from 'remeda';
import type { Student } from './people';

export function fullName(student: Pick<Student, 'familyName' | 'givenName'>): string {
  return [student.givenName, student.familyName].filter(Boolean).join(' ');
}

/** "Okafor, Amara": as in a register. */
export function registerName(student: Pick<Student, 'familyName' | 'givenName'>): string {
  return [student.familyName, student.givenName].filter(Boolean).join(', ');
}

const collator = once(() => new Intl.Collator(undefined, { sensitivity: 'base', numeric: true }));

/** Whether the student is a guest: sat under a typed name. */
export const isGuest = (student: Pick<Student, 'role'>) => student.role === 'guest';

/** Those a view can show beside whole groups. */
export const guestsOnly = 'guests';
export const withoutGuests = 'noGuests';

/** Whether a student is in view: '' shows all, otherwise guests, all but guests, or a group by its id. */
export function inView(student: Pick<Student, 'role' | 'groupIds'>, view: string): boolean {
  if (view === '') return true;
  if (view === guestsOnly) return isGuest(student);
  return view === withoutGuests ? !isGuest(student) : student.groupIds.includes(view);
}

/** Order of a register: family name, given name, number. */
export function byRegister(a: Student, b: Student): number {
  return (
    collator().compare(a.familyName, b.familyName) ||
    collator().compare(a.givenName, b.givenName) ||
    collator().compare(a.number, b.number)
  );
}
