import type { StudentFileQuestion } from '@/core/kinds/file/schema';
import { sortWords } from '@/core/kinds/file/sorts';
import type { PrintedProps } from '../KindView';

export function Printed({ question }: PrintedProps<StudentFileQuestion>) {
  return <p>(Hand in {sortWords(question.sorts)}.)</p>;
}
