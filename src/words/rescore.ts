import type { RescorePreview } from '@/core/repair/rescore';
import { counted } from './format';
import { meanWords } from './repairs';

/** "3 answers of the 92 students who have handed in would get different points: 2 would go up, 1 down, the mean from … to …." */
export const rescoreWords = ({
  answersChanged,
  students,
  studentsUp,
  studentsDown,
  before,
  after,
}: RescorePreview) =>
  `${counted(answersChanged, 'answer')} of the ${counted(students, 'student')} who have handed in would get different points: ${studentsUp} would go up, ${studentsDown} down, the mean from ${meanWords(before)} to ${meanWords(after)}.`;
