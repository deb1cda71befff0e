import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';

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
  /** What it belongs to, if the teacher says so. */
  course: Line.optional(),
  term: Line.optional(),
  /** Made up for a rehearsal; it goes with it. */
  rehearsal: z.boolean().optional(),
});
export type Group = z.infer<typeof Group>;
