import { z } from 'zod';
import { Id, Instant, Line } from './common';

export { joinCodeAlphabet, joinCodeFrom, joinCodeShown } from './joinCode';

export const Student = z.object({
  id: Id,
  familyName: Line,
  givenName: Line,
  number: Line,
  email: Line,
  /** The personal code a student enters with. */
  joinCode: z.string().regex(/^[2-9A-HJKMNP-TV-Z]{6}$/),
  groupIds: Id.array(),
  /** Percent of every time limit that this student has more, in each sitting; absent: none. */
  extraPercent: z.number().min(1).max(300).optional(),
  /** The teacher's own fields by name: period, course year… Absent: none. */
  fields: z.record(Line, Line).optional(),
  /** Since when this student is no longer in any list; attempts stay. */
  archivedAt: Instant.optional(),
  /** Who is on no list: sat under a typed name, or is the teacher trying it out. */
  role: z.enum(['guest', 'tryOut']).optional(),
  /** The one sitting that a guest or a try-out is there for. */
  onlySittingId: Id.optional(),
});
export type Student = z.infer<typeof Student>;

export const Group = z.object({
  id: Id,
  name: Line.min(1),
  createdAt: Instant,
  /** Made up for a rehearsal; it goes with it. */
  rehearsal: z.boolean().optional(),
});
export type Group = z.infer<typeof Group>;

export function fullName(student: Pick<Student, 'familyName' | 'givenName'>): string {
  return [student.givenName, student.familyName].filter(Boolean).join(' ');
}

/** "Okafor, Amara": as in a register. */
export function registerName(student: Pick<Student, 'familyName' | 'givenName'>): string {
  return [student.familyName, student.givenName].filter(Boolean).join(', ');
}

const collator = new Intl.Collator(undefined, { sensitivity: 'base', numeric: true });

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
    collator.compare(a.familyName, b.familyName) ||
    collator.compare(a.givenName, b.givenName) ||
    collator.compare(a.number, b.number)
  );
}
