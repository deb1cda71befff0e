import type { AnswerPaper } from '../../model/answerPaper';
import { byRegister } from '../../model/names';
import type { Student } from '../../model/people';

/** Those of some students of whom no paper is here, in the order of the register. */
export function withoutPaper(
  prints: readonly Pick<AnswerPaper, 'copies'>[],
  students: readonly Student[],
): Student[] {
  const have = new Set(prints.flatMap(({ copies }) => copies));
  return students.filter(({ id }) => !have.has(id)).sort(byRegister);
}

/** Who stands in the register: no guest, and nobody who tries it out. */
export const inRegister = ({ role }: Student): boolean => role === undefined;
