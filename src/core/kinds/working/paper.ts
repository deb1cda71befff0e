import { writtenAlone } from '../paper/PaperKind';
import type { StudentWorking, WorkingResponse } from './schema';
import { noWorking } from './ways';

export const workingPaper = writtenAlone<StudentWorking, WorkingResponse>(
  ({ points }) => [{ id: 'answer', label: '', lines: Math.min(20, 6 + Math.ceil(points)), drawn: true }],
  noWorking,
);
