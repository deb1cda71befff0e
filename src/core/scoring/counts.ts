import type { Question } from '../kinds';

/** Whether a question still counts: it was not dropped by a repair. */
export const counts = ({ repaired }: Question): boolean => repaired?.rule?.kind !== 'dropped';
