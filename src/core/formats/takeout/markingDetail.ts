import { isWritten } from '../../attempts/answerFill';
import { countedAnswer } from '../../attempts/late';
import { kindOf, type Question } from '../../kinds';
import { numbersOf } from '../../kinds/itemNumbers';
import { schemeOf } from '../../marking/scheme';
import { historyOf, type HandMark } from '../../model/mark';
import type { Answer } from '../../model/sitting';
import { marksThatCount } from '../../scoring/marksThatCount';
import type { Award } from '../../scoring/scoreAttempt';
import { isIn, type Seat } from '../../seats/seats';
import { personColumns, type SittingTables } from './grades';
import { tableOf, type ExportTable, type Written } from './exportTable';

/** One answer of one student. */
interface MarkedAnswer {
  student: Seat['student'];
  seat: Seat;
  question: Question;
  number: string;
  award: Award;
  mark: HandMark | undefined;
}

/** How points came about, as the file says it. */
const byWords: Record<Award['state'], string> = {
  notAnswered: 'not answered',
  noKey: 'no key yet',
  notRead: 'not read yet',
  waiting: 'waits',
  byKey: 'by key',
  byHand: 'by hand',
  overridden: 'overridden by hand',
  given: 'given by a repair',
  dropped: 'dropped by a repair',
};

/** Every answer that is in, by student, in the order of the paper. */
function answersIn({ questions, seats }: SittingTables): MarkedAnswer[] {
  const numbers = numbersOf(questions);
  const byId = new Map(questions.map((question) => [question.id, question]));
  return seats.filter(isIn).flatMap((seat) => {
    const markOf = marksThatCount(seat.marks);
    return (seat.scorecard?.awards ?? []).flatMap((award): MarkedAnswer[] => {
      const question = byId.get(award.questionId);
      if (!question) return [];
      const number = numbers.get(question.id) ?? '';
      return [{ student: seat.student, seat, question, number, award, mark: markOf.get(question.id) }];
    });
  });
}

const answerColumns: Written<MarkedAnswer>[] = [
  { id: 'question', title: 'question', cell: ({ number }) => number },
  { id: 'points', title: 'points', cell: ({ award }) => award.points },
  { id: 'max', title: 'maximum', cell: ({ award }) => award.max },
  { id: 'by', title: 'points by', cell: ({ award }) => byWords[award.state] },
];

/**
 * How every answer was marked: points, scheme lines met, adjustment, comments, who, when and what was changed.
 *
 * @param nameOf what a marker is called
 */
export function markingTable(about: SittingTables, nameOf: (markerId: string) => string): ExportTable {
  const columns: Written<MarkedAnswer>[] = [
    ...personColumns(about.seats, about.groups),
    ...answerColumns,
    {
      id: 'lines',
      title: 'scheme lines met',
      cell: ({ question, mark }) =>
        schemeOf(question)
          .filter(({ id }) => mark?.lines.includes(id))
          .map(({ text, points }) => `${text} (${points})`)
          .join('; '),
    },
    { id: 'adjustment', title: 'adjustment', cell: ({ mark }) => mark?.adjustment?.points ?? null },
    { id: 'adjustmentWhy', title: 'reason', cell: ({ mark }) => mark?.adjustment?.reason ?? null },
    { id: 'comment', title: 'comment', cell: ({ mark }) => mark?.comment || null },
    { id: 'note', title: 'private note', cell: ({ mark }) => mark?.note ?? null },
    { id: 'marker', title: 'marked by', cell: ({ mark }) => (mark ? nameOf(mark.markerId) : null) },
    { id: 'at', title: 'marked at', cell: ({ mark }) => mark?.at || null },
    { id: 'changes', title: 'times changed', cell: ({ mark }) => (mark ? mark.history.length : null) },
    {
      id: 'history',
      title: 'history',
      cell: ({ mark }) =>
        mark
          ? historyOf(mark)
              .map(({ at, by, from, to, why }) =>
                [`${at} ${nameOf(by)}: ${from?.points ?? '–'} to ${to.points ?? '–'}`, why]
                  .filter(Boolean)
                  .join(', '),
              )
              .join('; ')
          : null,
    },
    {
      id: 'wonBack',
      title: 'won back by a correction',
      cell: ({ award }) => award.correction?.gained ?? null,
    },
  ];
  return tableOf(columns, answersIn(about));
}

/** One version of one answer. */
interface AnswerVersion extends MarkedAnswer {
  version: 'counts' | 'earlier' | 'late' | 'correction';
  text: string;
  at: string;
}

/** What stands on paper and nobody typed has no words: it says so. */
function withoutWords(row: AnswerVersion, answer: Answer | undefined): AnswerVersion {
  if (row.text !== '') return row;
  const unread = row.award.state === 'notRead' ? 'not read yet' : '';
  const text = isWritten(answer) ? ['on paper', unread].filter(Boolean).join(', ') : unread;
  return text ? { ...row, text: `(${text})` } : row;
}

/** Every answer as it was given, with its times; earlier, late and corrected versions behind the one that counts. */
export function answersTableOf(about: SittingTables): ExportTable {
  const rows = answersIn(about).flatMap((answer): AnswerVersion[] => {
    const { seat, question } = answer;
    const { attempt } = seat;
    if (!attempt) return [];
    const kind = kindOf(question);
    const own = <T extends { questionId: string }>(all: readonly T[] = []) =>
      all.filter(({ questionId }) => questionId === question.id);
    const counts = countedAnswer(attempt, question.id);
    const correction = attempt.corrections?.[question.id];
    const version = (
      name: AnswerVersion['version'],
      { response, at }: { response: Parameters<typeof kind.asText>[1]; at: string },
    ): AnswerVersion => ({ ...answer, version: name, text: kind.asText(question, response), at });
    return [
      counts
        ? withoutWords(version('counts', counts), counts)
        : withoutWords({ ...answer, version: 'counts', text: '', at: '' }, counts),
      ...own(attempt.earlier).map((each) => version('earlier', each)),
      ...own(attempt.late)
        .filter(({ decision }) => decision?.counts !== true)
        .map((each) => version('late', each)),
      ...(correction ? [version('correction', correction)] : []),
    ];
  });
  const columns: Written<AnswerVersion>[] = [
    ...personColumns(about.seats, about.groups),
    { id: 'question', title: 'question', cell: ({ number }) => number },
    { id: 'version', title: 'version', cell: ({ version }) => version },
    { id: 'answer', title: 'answer', cell: ({ text }) => text },
    { id: 'at', title: 'typed at', cell: ({ at }) => at || null },
    {
      id: 'seconds',
      title: 'seconds on it',
      cell: ({ seat, question, version }) => {
        const ms = seat.attempt?.timeOnMs?.[question.id];
        return version === 'counts' && ms !== undefined ? Math.round(ms / 1000) : null;
      },
    },
    {
      id: 'points',
      title: 'points',
      cell: ({ award, version }) => (version === 'counts' ? award.points : null),
    },
    { id: 'attempt', title: 'attempt', cell: ({ seat }) => seat.attempt?.number ?? null },
  ];
  return tableOf(columns, rows);
}
