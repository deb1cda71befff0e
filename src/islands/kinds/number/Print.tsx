import type { StudentNumberQuestion } from '@/core/kinds/number/schema';
import { PrintedLines } from '../printed';
import type { PrintedProps } from '../KindView';

export function Printed({ room }: PrintedProps<StudentNumberQuestion>) {
  return <PrintedLines count={room ? 1 : 0} />;
}
