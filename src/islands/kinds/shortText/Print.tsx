import type { StudentShortText } from '@/core/kinds/shortText/schema';
import { PrintedLines } from '../printed';
import type { PrintedProps } from '../KindView';

export function Printed({ room }: PrintedProps<StudentShortText>) {
  return <PrintedLines count={room ? 1 : 0} />;
}
