import { writtenAlone } from '../paper/PaperKind';
import type { TextResponse } from '../textResponse';
import type { StudentNumberQuestion } from './schema';

export const numberPaper = writtenAlone<StudentNumberQuestion, TextResponse>(
  () => [{ id: 'answer', label: '', lines: 1 }],
  { text: '' },
);
