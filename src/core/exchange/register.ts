import { z } from 'zod';
import { Line, Text } from '../basics/common';

/** What the desk gives the server for a school register (1EdTech OneRoster 1.2, Gradebook service; from memory). */
const Day = z.iso.date();
/** A sourcedId as it stands in an address. */
const SourcedId = z.string().min(1).max(200);

export const RegisterItem = z.object({
  sourcedId: SourcedId,
  title: Line,
  assignDate: Day,
  dueDate: Day,
  classSourcedId: z.string().max(200),
  categorySourcedId: SourcedId,
  resultValueMin: z.number(),
  resultValueMax: z.number(),
});

export const RegisterRow = z.object({
  sourcedId: SourcedId,
  lineItemSourcedId: SourcedId,
  studentSourcedId: SourcedId,
  classSourcedId: z.string().max(200),
  scoreStatus: Line,
  score: z.number().nullable(),
  textScore: Line,
  scoreDate: Day,
  comment: Text,
  late: z.boolean(),
  missing: z.boolean(),
});

export const ToRegister = z.object({ item: RegisterItem, results: RegisterRow.array().max(20_000) });
export type ToRegister = z.infer<typeof ToRegister>;

/** What became of each result; `words` say why the register refused one. */
export const RegisterReply = z.object({
  outcomes: z
    .object({ id: SourcedId, is: z.enum(['created', 'updated', 'refused']), words: z.string().max(500) })
    .array(),
  /** Why nothing could be sent at all. */
  fault: z.string().max(600).optional(),
});
export type RegisterReply = z.infer<typeof RegisterReply>;
