import { z } from 'zod';
import { Id } from '../../basics/common';
import { schemeFields } from '../handMarked';
import { questionFields, studentQuestionFields } from '../QuestionKind';

const asked = {
  kind: z.literal('openText'),
  /** The question this is the working of, where it is one. Only made, never stored: see `itemsOf`. */
  workingOf: Id.optional(),
};

export const OpenText = z.object({ ...questionFields, ...schemeFields, ...asked });
export type OpenText = z.infer<typeof OpenText>;

export const StudentOpenText = z.object({ ...studentQuestionFields, ...asked });
export type StudentOpenText = z.infer<typeof StudentOpenText>;
