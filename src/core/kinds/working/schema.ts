import { z } from 'zod';
import { Id, Text } from '../../basics/common';
import { FileRef, PictureRef } from '../../basics/file';
import { schemeFields } from '../handMarked';
import { questionFields, studentQuestionFields } from '../QuestionKind';
import { Drawing } from './drawing';
import { WorkingWay } from './WorkingWay';

const asked = {
  kind: z.literal('working'),
  /** How it may be shown; the student takes one or several. */
  ways: WorkingWay.array().max(4),
  /** What there is to draw on: a chart, a diagram. None: an empty sheet. */
  canvas: PictureRef.optional(),
  /** The question this is the working of, where it is one. Only made, never stored: see `itemsOf`. */
  workingOf: Id.optional(),
};

export const Working = z.object({ ...questionFields, ...schemeFields, ...asked });
export type Working = z.infer<typeof Working>;

export const StudentWorking = z.object({ ...studentQuestionFields, ...asked });
export type StudentWorking = z.infer<typeof StudentWorking>;

/** The way to an answer, as far as it was shown. */
export const WorkingResponse = z.object({
  words: Text,
  /** Lines of maths, as TeX. */
  maths: z.string().max(2_000).array().max(40),
  drawing: Drawing,
  photos: FileRef.array().max(10),
});
export type WorkingResponse = z.infer<typeof WorkingResponse>;
