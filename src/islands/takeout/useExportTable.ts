import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { answersTable, questionsTable } from '@/core/formats/figureTables';
import type { Cell } from '@/core/formats/csv/table';
import type { ExportTable } from '@/core/formats/takeout/exportTable';
import { gradesTable } from '@/core/formats/takeout/grades';
import { answersTableOf, markingTable } from '@/core/formats/takeout/markingDetail';
import { messagesTable } from '@/core/formats/takeout/messages';
import { inView } from '@/core/model/names';
import { inFigures } from '@/core/seats/seats';
import { useMarkerNames } from '@/desk/markerNames';
import { figureRows, useAnalysis } from '@/desk/useAnalysis';
import type { SittingData } from '@/desk/useSitting';
import { desk } from '@/store/tables';

/** The tables that a sitting can be taken out as. */
export const exportKinds = ['grades', 'marking', 'answers', 'questions', 'figures', 'messages'] as const;
export type ExportKind = (typeof exportKinds)[number];

export const kindWords: Record<ExportKind, { title: string; about: string }> = {
  grades: { title: 'Grades', about: 'One row per student: total, grade, times, points per question.' },
  marking: {
    title: 'Marking detail',
    about: 'One row per answer: scheme lines, adjustments, comments, who marked it and when.',
  },
  answers: {
    title: 'Answers',
    about: 'One row per answer as it was given, with earlier versions and times.',
  },
  questions: { title: 'Figures of questions', about: 'One row per question. Guests are not in the figures.' },
  figures: {
    title: 'Figures of answers',
    about: 'What was answered, by thirds of the class, without guests.',
  },
  messages: { title: 'Messages and openings', about: 'Every message, and every time a result was opened.' },
};

/** Sets of columns that are chosen together. */
export const setTitles = { points: 'points per question' };

/** A table of a kind for the students of a group; '' for all. */
export function useExportTable(sitting: SittingData, what: ExportKind, group: string): ExportTable {
  const { questions, groups, now } = sitting;
  const id = sitting.sitting.id;
  const seats = useMemo(
    () => sitting.seats.filter(({ student }) => inView(student, group)),
    [sitting.seats, group],
  );
  const scale = useLiveQuery(() => desk.grades.get(id), [id]) ?? null;
  const messages = useLiveQuery(() => desk.outbox.where({ sittingId: id }).toArray(), [id]) ?? noMessages;
  const nameOf = useMarkerNames(id);
  const figured = useMemo(
    () => (what === 'questions' || what === 'figures' ? inFigures(seats) : noSeats),
    [what, seats],
  );
  const analysis = useAnalysis(sitting, figured);
  return useMemo(() => {
    const about = { questions, seats, groups, scale, now };
    switch (what) {
      case 'grades':
        return gradesTable(about);
      case 'marking':
        return markingTable(about, nameOf);
      case 'answers':
        return answersTableOf(about);
      case 'questions':
        return asTable(questionsTable(figureRows(analysis)));
      case 'figures':
        return asTable(answersTable(figureRows(analysis)));
      case 'messages':
        return messagesTable(about, messages);
    }
  }, [what, questions, seats, groups, scale, now, nameOf, analysis, messages]);
}

const noMessages: never[] = [];
const noSeats: never[] = [];

const asTable = ([heading = [], ...rows]: Cell[][]): ExportTable => ({
  columns: heading.map((title) => ({ id: String(title), title: String(title) })),
  rows,
});
