import { writtenAlone } from '../paper/PaperKind';
import type { FilesResponse, StudentFileQuestion } from './schema';

/** What would be a file is drawn or written. */
export const filePaper = writtenAlone<StudentFileQuestion, FilesResponse>(
  () => [{ id: 'answer', label: '', lines: 12, drawn: true }],
  { files: [] },
);
