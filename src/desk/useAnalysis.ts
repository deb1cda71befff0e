import { useEffect, useMemo, useState } from 'react';
import { answerFigures, type AnswerFigures } from '@/core/analysis/answerFigures';
import { correlationWithRest, questionMoments } from '@/core/analysis/moments';
import { reliability, type Reliability } from '@/core/analysis/reliability';
import { matrixOf } from '@/core/analysis/seatsMatrix';
import { questionFigures, type QuestionFigures } from '@/core/analysis/sittingFigures';
import { sittingLooksWrong, type Suspect } from '@/core/analysis/sittingLooksWrong';
import { upperLowerOfAll } from '@/core/analysis/upperLower';
import { plainText } from '@/core/basics/richWords';
import type { FigureRow } from '@/core/formats/figureTables';
import type { Question } from '@/core/kinds';
import { inView } from '@/core/model/names';
import { isIn, type Seat } from '@/core/seats/seats';
import type { SittingData } from '@/desk/useSitting';

/** A question with its figures. */
export interface QuestionRow extends QuestionFigures {
  discrimination: number | null;
  /** Upper–lower index. */
  d: number | null;
  /** Reliability of the other questions. */
  alphaWithout: number | null;
  suspect: Suspect | null;
}

/** All figures of some seats of a sitting. */
export interface Analysis {
  /** Students who are in. */
  seats: Seat[];
  rows: QuestionRow[];
  trust: Reliability | null;
  answersOf: (question: Question) => AnswerFigures;
  /** What looks wrong, gravest first; null with too few students; undefined while it is looked for. */
  suspects: Suspect[] | null | undefined;
}

/** Figures of these seats; what takes long is looked for once the rest stands. */
export function useAnalysis(sitting: SittingData, seats: readonly Seat[]): Analysis {
  const { questions, groups } = sitting;
  const inSeats = useMemo(() => seats.filter(isIn), [seats]);
  const trust = useMemo(() => reliability(matrixOf(questions, inSeats)), [questions, inSeats]);
  const answersOf = useMemo(() => {
    const known = new Map<string, AnswerFigures>();
    return (question: Question) => {
      const figures = known.get(question.id) ?? answerFigures(question, inSeats);
      known.set(question.id, figures);
      return figures;
    };
  }, [inSeats]);
  const suspects = useSuspects(questions, inSeats, groups, answersOf);
  const rows = useMemo(() => {
    const matrix = matrixOf(questions, inSeats);
    const moments = questionMoments(matrix);
    const ds = upperLowerOfAll(matrix);
    const columns = new Map(matrix.questions.map(({ id }, column) => [id, column]));
    return questionFigures(questions, inSeats).map((figures): QuestionRow => {
      const { id } = figures.question;
      const column = columns.get(id) ?? -1;
      const of = moments[column];
      return {
        ...figures,
        discrimination: of ? correlationWithRest(of) : null,
        d: ds[column] ?? null,
        alphaWithout: trust?.without.get(id) ?? null,
        suspect: suspects?.find(({ question }) => question.id === id) ?? null,
      };
    });
  }, [questions, inSeats, trust, suspects]);
  return { seats: inSeats, rows, trust, answersOf, suspects };
}

function useSuspects(
  questions: readonly Question[],
  seats: readonly Seat[],
  groups: SittingData['groups'],
  answersOf: (question: Question) => AnswerFigures,
): Suspect[] | null | undefined {
  const [found, setFound] = useState<{ of: typeof answersOf; suspects: Suspect[] | null }>();
  useEffect(() => {
    let stopped = false;
    // One question at a time, so that the page goes on meanwhile.
    const look = async () => {
      for (const question of questions) {
        answersOf(question);
        await new Promise((rest) => setTimeout(rest));
        if (stopped) return;
      }
      const held = groups.map(({ id, name }) => ({ name, has: ({ student }: Seat) => inView(student, id) }));
      setFound({ of: answersOf, suspects: sittingLooksWrong(questions, seats, held, answersOf) });
    };
    void look();
    return () => {
      stopped = true;
    };
  }, [questions, seats, groups, answersOf]);
  // While a change is looked at, what was found before stays in sight.
  return found?.suspects;
}

/** The questions with their figures, as they are taken out. */
export const figureRows = ({ rows, answersOf }: Analysis): FigureRow[] =>
  rows.map((row) => ({
    ...row,
    stem: plainText(row.question.stem),
    max: row.question.points,
    upperLower: row.d,
    answers: answersOf(row.question),
  }));
