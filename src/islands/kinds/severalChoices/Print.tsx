import type { StudentSeveralChoices } from '@/core/kinds/severalChoices/schema';
import { PrintedOptions } from '../printed';
import type { PrintedProps } from '../KindView';

export function Printed({ question }: PrintedProps<StudentSeveralChoices>) {
  return <PrintedOptions options={question.options} several />;
}
