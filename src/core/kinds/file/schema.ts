import { z } from 'zod';
import { FileRef } from '../../basics/file';
import { schemeFields } from '../handMarked';
import { questionFields, studentQuestionFields } from '../QuestionKind';

/** A sort of file that a question takes. */
export const FileSort = z.enum(['picture', 'pdf', 'text', 'sheet', 'sound']);
export type FileSort = z.infer<typeof FileSort>;

const asked = {
  kind: z.literal('file'),
  /** The sorts that are taken; none named: any. */
  sorts: FileSort.array().max(5),
  most: z.number().int().min(1).max(10),
};

export const FileQuestion = z.object({ ...questionFields, ...schemeFields, ...asked });
export type FileQuestion = z.infer<typeof FileQuestion>;

export const StudentFileQuestion = z.object({ ...studentQuestionFields, ...asked });
export type StudentFileQuestion = z.infer<typeof StudentFileQuestion>;

export const FilesResponse = z.object({ files: FileRef.array().max(10) });
export type FilesResponse = z.infer<typeof FilesResponse>;
