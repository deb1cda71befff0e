import type { StudentWorking } from '@/core/kinds/working/schema';
import { PrintedLines } from '../printed';
import { Picture } from '@/ui/Picture';
import type { PrintedProps } from '../KindView';

export function Printed({ question, room }: PrintedProps<StudentWorking>) {
  return (
    <>
      {question.canvas && <Picture picture={question.canvas} />}
      <PrintedLines count={room ? Math.min(14, 5 + Math.ceil(question.points)) : 0} />
    </>
  );
}
