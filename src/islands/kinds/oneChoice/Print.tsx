import type { StudentOneChoice } from '@/core/kinds/oneChoice/schema';
import { PrintedOptions } from '../printed';
import type { PrintedProps } from '../KindView';

export function Printed({ question }: PrintedProps<StudentOneChoice>) {
  return <PrintedOptions options={question.options} several={false} />;
}
