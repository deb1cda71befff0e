import { sum } from 'remeda';
import { historyOf, type HandMark } from '../../model/mark';

/** More between two marks is a pause. */
const pauseMs = 5 * 60_000;

/** How fast somebody marked. */
export interface Pace {
  /** Answers that have points. */
  answers: number;
  /** From mark to mark without pauses, ms. */
  workedMs: number;
  /** Null where there is too little to tell. */
  perHour: number | null;
  lastAt: string | null;
}

/** How fast these marks were given, by when each first had points; what lies more than five minutes apart is a pause. */
export function paceOf(marks: readonly HandMark[]): Pace {
  const given = marks.filter(({ points }) => points !== null);
  const at = given.map((mark) => historyOf(mark).find(({ to }) => to.points !== null)?.at ?? mark.at).sort();
  const gaps = at.slice(1).map((each, place) => Date.parse(each) - Date.parse(at[place] ?? each));
  const worked = gaps.filter((gap) => gap <= pauseMs);
  const workedMs = sum(worked);
  return {
    answers: given.length,
    workedMs,
    perHour: workedMs < 60_000 ? null : Math.round((worked.length / workedMs) * 3_600_000),
    lastAt:
      given
        .map((mark) => mark.at)
        .sort()
        .at(-1) ?? null,
  };
}
