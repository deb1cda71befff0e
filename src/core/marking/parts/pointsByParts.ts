import { hundredths } from '../../basics/points';

/** A marked answer: its sentences, and its points. */
export interface PartsWithPoints {
  parts: readonly string[];
  points: number;
}

/** With more sentences than this nothing is worked out: they hardly come again, and it would take long. */
const mostParts = 400;

/** One equation: how often each sentence counts, and the hundredths of a point that makes. */
interface Equation {
  of: Map<string, number>;
  makes: number;
}

const minus = (a: Equation, b: Equation, times: number): Equation => {
  const of = new Map(a.of);
  for (const [part, count] of b.of) {
    const left = (of.get(part) ?? 0) - times * count;
    if (Math.abs(left) < 1e-9) of.delete(part);
    else of.set(part, left);
  }
  return { of, makes: a.makes - times * b.makes };
};

/**
 * What marked answers tell of the points of others with the same sentences, if each sentence is worth its own points and they
 * add up. Worked out by elimination (Gauss): only what follows for certain is given. Answers with all or no points say
 * nothing of their parts, unless they are one sentence: a bound may have cut them.
 *
 * @param max the question's points
 * @returns for the sentences of an answer its points; null where the marked ones leave that open or contradict one another
 */
export function pointsByParts(
  marked: readonly PartsWithPoints[],
  max: number,
): (parts: readonly string[]) => number | null {
  const solved = new Map<string, Equation>();
  const contradicted = new Set<string>();
  const reduced = (equation: Equation): Equation => {
    let left = equation;
    for (const part of [...left.of.keys()]) {
      const known = solved.get(part);
      const count = left.of.get(part);
      if (known && count !== undefined) left = minus(left, known, count);
    }
    return left;
  };
  const equationOf = (parts: readonly string[], makes: number): Equation => ({
    of: new Map(parts.map((part) => [part, 1])),
    makes,
  });
  const telling = marked.filter(
    ({ parts, points }) => parts.length === 1 || (parts.length > 0 && points > 0 && points < max),
  );
  const judged = new Set(telling.flatMap(({ parts }) => parts));
  if (judged.size > mostParts) return () => null;
  for (const { parts, points } of telling) {
    const equation = reduced(equationOf(parts, hundredths(points)));
    const [first] = equation.of;
    if (!first) {
      if (Math.abs(equation.makes) > 1e-6) for (const part of parts) contradicted.add(part);
      continue;
    }
    const [part, count] = first;
    const own: Equation = {
      of: new Map([...equation.of].map(([each, times]) => [each, times / count])),
      makes: equation.makes / count,
    };
    for (const [other, before] of solved) {
      const times = before.of.get(part);
      if (times !== undefined) solved.set(other, minus(before, own, times));
    }
    solved.set(part, own);
  }
  return (parts) => {
    if (parts.length === 0 || parts.some((part) => !judged.has(part) || contradicted.has(part))) return null;
    const { of, makes } = reduced(equationOf(parts, 0));
    if (of.size > 0) return null;
    const points = Math.round(-makes);
    return Math.min(hundredths(max), Math.max(0, points)) / 100;
  };
}
