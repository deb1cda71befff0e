import { writtenAlone } from '../paper/PaperKind';
import type { TextResponse } from '../textResponse';
import type { StudentShortText } from './schema';

export const shortTextPaper = writtenAlone<StudentShortText, TextResponse>(
  () => [{ id: 'answer', label: '', lines: 1 }],
  { text: '' },
);
