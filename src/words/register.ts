import type { RegisterLoss } from '@/core/formats/oneroster/writeResults';
import { counted } from '@/core/basics/counted';

/** What a register's results cannot hold, as a sentence. */
export function registerLossWords(loss: RegisterLoss): string {
  switch (loss.code) {
    case 'noNumber': {
      const { names } = loss;
      const shown = names.slice(0, 4).join('; ');
      return `${counted(names.length, 'student')} without a number can’t be sent: ${shown}${names.length > 4 ? ` and ${names.length - 4} more` : ''}.`;
    }
    case 'guests':
      return `${counted(loss.count, 'guest')} ${loss.count === 1 ? 'is' : 'are'} left out.`;
    case 'onlyTotals':
      return 'Only totals go: points and comments of single questions don’t.';
    case 'classNames':
      return 'Classes go by the id they have here, since the register’s own isn’t known.';
    case 'noGrades':
      return 'Without grade lines no grades go along.';
  }
}
