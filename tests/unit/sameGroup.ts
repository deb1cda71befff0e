import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { HandMark } from '@/core/model/mark';
import type { Award } from '@/core/scoring/scoreAttempt';

/** Equal answers with these marks, for tests of what is made of them. */
export function sameGroup(text: string, marks: readonly HandMark[]): SameAnswers {
  const points = new Set(marks.map((mark) => mark.points));
  const [only = null] = points.size === 1 ? points : [null];
  return {
    ...{
      id: text,
      text,
      blank: false,
      onPaper: false,
      points: only,
      uneven: points.size > 1,
      aside: false,
      nearMiss: null,
    },
    waiting: marks.filter((mark) => mark.points === null).length,
    answers: marks.map((mark) => ({
      ...{
        attemptId: mark.attemptId,
        studentId: mark.attemptId,
        text,
        response: null,
        pictures: [],
        typed: false,
        mark,
        marks: [mark],
      },
      award: { points: mark.points, byKey: null } as Award, // no more of it is asked
    })),
  };
}
