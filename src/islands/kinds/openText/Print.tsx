import type { StudentOpenText } from '@/core/kinds/openText/schema';
import { PrintedLines } from '../printed';
import type { PrintedProps } from '../KindView';

export function Printed({ question, room }: PrintedProps<StudentOpenText>) {
  return <PrintedLines count={room ? Math.min(12, 3 + Math.ceil(question.points)) : 0} />;
}
