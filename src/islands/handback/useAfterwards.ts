import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import type { Question } from '@/core/kinds';
import type { Correction } from '@/core/model/sitting';
import type { Award } from '@/core/scoring/scoreAttempt';
import type { Seat } from '@/core/seats/seats';
import type { SittingData } from '@/desk/useSitting';
import { requestRows, type RequestRow } from '@/store/requests';

/** One question answered again by one student. */
export interface CorrectionRow {
  seat: Seat;
  question: Question;
  correction: Correction;
  award: Award;
}

/** What students did with their results: answered again, and asked about marks. Those that wait come first. */
export function useAfterwards(sitting: SittingData) {
  const { id } = sitting.sitting;
  const requests = useLiveQuery(() => requestRows(id), [id]);
  const corrections = useMemo(() => correctionRows(sitting), [sitting]);
  return useMemo(() => {
    const questions: RequestRow[] = (requests ?? []).filter(({ request }) => request.asks === 'mark');
    const waiting =
      questions.filter(({ request }) => request.answer === null).length +
      corrections.filter(({ award }) => award.correction?.points === null).length;
    return { corrections, questions, waiting };
  }, [requests, corrections]);
}

function correctionRows({ seats, questions }: SittingData): CorrectionRow[] {
  const byId = new Map(questions.map((question) => [question.id, question]));
  const rows = seats.flatMap((seat) =>
    Object.entries(seat.attempt?.corrections ?? {}).flatMap(([questionId, correction]): CorrectionRow[] => {
      const question = byId.get(questionId);
      const award = seat.scorecard?.awards.find((each) => each.questionId === questionId);
      return question && award ? [{ seat, question, correction, award }] : [];
    }),
  );
  const place = new Map(questions.map(({ id }, index) => [id, index]));
  const waits = ({ award }: CorrectionRow) => (award.correction?.points === null ? 0 : 1);
  return rows.sort(
    (a, b) =>
      waits(a) - waits(b) ||
      (place.get(a.question.id) ?? 0) - (place.get(b.question.id) ?? 0) ||
      a.correction.at.localeCompare(b.correction.at),
  );
}
