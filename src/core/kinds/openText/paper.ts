import { writtenAlone } from '../paper/PaperKind';
import type { TextResponse } from '../textResponse';
import type { StudentOpenText } from './schema';

export const openTextPaper = writtenAlone<StudentOpenText, TextResponse>(
  ({ points }) => [{ id: 'answer', label: '', lines: Math.min(14, 3 + Math.ceil(points)) }],
  { text: '' },
);
