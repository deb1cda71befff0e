import type { StudentOrdering } from '@/core/kinds/ordering/schema';
import { PrintedItems } from '../printed';
import type { PrintedProps } from '../KindView';

export function Printed({ question }: PrintedProps<StudentOrdering>) {
  return <PrintedItems items={question.items} />;
}
