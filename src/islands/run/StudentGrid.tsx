import { memo, type ReactNode } from 'react';
import { undecided } from '@/core/attempts/late';
import type { Question } from '@/core/kinds';
import { plainText } from '@/core/basics/richWords';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { minutesLeft, minutesOf, questionTotals, type GridColumn } from '@/core/seats/gridOrder';
import type { Seat } from '@/core/seats/seats';
import { isQuiet, leavingOf, seenAt, triesOf } from '@/core/attempts/watching';
import { awardGlyph } from '@/ui/awardGlyph';
import { deskHearing } from '@/store/live/presence';
import type { SittingData } from '@/desk/useSitting';
import { FillGlyph } from '@/ui/FillGlyph';
import { clockTime, percent } from '@/words/format';
import { PickBox } from '@/ui/PickBox';
import { VirtualRows } from '@/ui/VirtualRows';
import { stateWords } from '@/words/attempts';
import styles from './run.module.css';

const rowHeight = 31;

/** What the grid is in order of. */
export interface GridOrder {
  column: GridColumn;
  turned: boolean;
}

interface StudentGridProps {
  sitting: SittingData;
  seats: Seat[];
  nameOf: (seat: Seat) => string;
  order: GridOrder;
  setOrder: (order: GridOrder) => void;
  currentId: string | null;
  choose: (studentId: string) => void;
  picked: ReadonlySet<string>;
  pick: (studentIds: string[], on: boolean) => void;
}

const sameColumn = (a: GridColumn, b: GridColumn) => JSON.stringify(a) === JSON.stringify(b);

/** Students by questions, filling as they work. Only the rows in sight are drawn. */
export function StudentGrid(props: StudentGridProps) {
  const { sitting, seats, nameOf, order, setOrder, currentId, choose, picked, pick } = props;
  const numbers = numbersOf(sitting.questions);
  const practice = sitting.sitting.practice !== undefined;
  // Where anybody's time is up at some time.
  const timed = sitting.sitting.timeLimitMs !== null || sitting.sitting.closesAt !== null;
  const head = (column: GridColumn, words: ReactNode, more: { className?: string; title?: string } = {}) => {
    const here = sameColumn(order.column, column);
    return (
      <th
        key={JSON.stringify(column)}
        scope="col"
        {...(more.className !== undefined && { className: more.className })}
        aria-sort={here ? (order.turned ? 'descending' : 'ascending') : 'none'}
      >
        <button
          type="button"
          className={styles.sort}
          title={more.title}
          onClick={() => setOrder({ column, turned: here && !order.turned })}
        >
          {words}
          {here && <span aria-hidden>{order.turned ? ' ↑' : ' ↓'}</span>}
        </button>
      </th>
    );
  };
  const all = seats.length > 0 && seats.every((seat) => picked.has(seat.student.id));
  return (
    <div
      data-scroller
      className={styles.scroller}
      role="region"
      aria-label="Students and their answers"
      tabIndex={0}
    >
      <table className={styles.grid} aria-rowcount={seats.length + 2}>
        <thead>
          <tr>
            <th className={styles.pickCell}>
              <PickBox
                label="Select all shown"
                checked={all}
                some={seats.some((seat) => picked.has(seat.student.id))}
                change={(on) =>
                  pick(
                    seats.map((seat) => seat.student.id),
                    on,
                  )
                }
              />
            </th>
            {head('name', 'Student', { className: styles.name ?? '' })}
            {head('state', 'State')}
            {head('minutes', 'Min', { className: styles.figure ?? '', title: 'Minutes at work' })}
            {timed && head('timeLeft', 'Min left', { className: styles.figure ?? '', title: 'Minutes left' })}
            {head('lastSign', 'Last seen')}
            {head('left', 'Left page', {
              className: styles.figure ?? '',
              title: 'How often the page was left',
            })}
            {practice && head('tries', 'Tries', { className: styles.figure ?? '' })}
            {sitting.questions.map((question) =>
              head({ questionId: question.id }, numbers.get(question.id), {
                className: styles.cell ?? '',
                title: plainText(question.stem),
              }),
            )}
          </tr>
        </thead>
        <VirtualRows rows={seats} height={rowHeight}>
          {(seat) => (
            <GridRow
              key={seat.student.id}
              seat={seat}
              questions={sitting.questions}
              now={sitting.now}
              name={nameOf(seat)}
              current={seat.student.id === currentId}
              picked={picked.has(seat.student.id)}
              choose={choose}
              pick={pick}
              practice={practice}
              timed={timed}
            />
          )}
        </VirtualRows>
        <Totals sitting={sitting} seats={seats} between={4 + Number(practice) + Number(timed)} />
      </table>
    </div>
  );
}

interface GridRowProps {
  seat: Seat;
  questions: readonly Question[];
  now: number;
  name: string;
  current: boolean;
  picked: boolean;
  choose: (studentId: string) => void;
  pick: (studentIds: string[], on: boolean) => void;
  practice: boolean;
  timed: boolean;
}

/** Drawn again only when something of it changes: an answer arrives in one of hundreds, scrolling goes past all of them. */
const GridRow = memo(function GridRow(props: GridRowProps) {
  const { seat, questions, now, name, current, picked, choose, pick, practice, timed } = props;
  const { attempt, student } = seat;
  const leaving = attempt && leavingOf(attempt);
  const working = seat.state === 'working';
  const late = attempt ? undecided(attempt).length : 0;
  const hearing = deskHearing();
  const quiet = attempt !== null && isQuiet(attempt, hearing, now);
  return (
    <tr data-current={current}>
      <td className={styles.pickCell}>
        <PickBox label={`Select ${name}`} checked={picked} change={(on) => pick([student.id], on)} />
      </td>
      <th scope="row" className={styles.name}>
        <button
          type="button"
          className={styles.pick}
          data-student={student.id}
          onClick={() => choose(student.id)}
        >
          {name}
        </button>
        {student.role === 'guest' && <span className={styles.soft}> guest</span>}
      </th>
      <td>
        {stateWords[seat.state]}
        {seat.attemptCount > 1 && attempt && `, attempt ${attempt.number} of ${seat.attemptCount}`}
        {late > 0 && <span className={styles.quiet}>, {late} late</span>}
      </td>
      <td className={styles.figure}>{minutesOf(seat, now) ?? ''}</td>
      {timed && <td className={styles.figure}>{minutesLeft(seat, now) ?? ''}</td>}
      <td>
        {attempt && working && (
          <span className={quiet ? styles.quiet : undefined}>
            {clockTime(new Date(seenAt(attempt, hearing)).toISOString())}
            {quiet && ' quiet'}
          </span>
        )}
      </td>
      <td className={styles.figure}>
        {leaving && leaving.times > 0 && (
          <span className={leaving.away && working ? styles.quiet : undefined}>
            {leaving.times}
            {leaving.away && working && ' away'}
          </span>
        )}
      </td>
      {practice && <td className={styles.figure}>{attempt ? triesOf(attempt) || '' : ''}</td>}
      <AnswerCells seat={seat} questions={questions} />
    </tr>
  );
});

const AnswerCells = memo(function AnswerCells({
  seat,
  questions,
}: {
  seat: Seat;
  questions: readonly Question[];
}) {
  const awards = new Map(seat.scorecard?.awards.map((award) => [award.questionId, award]));
  return questions.map((question) => {
    const award = awards.get(question.id);
    return (
      <td key={question.id} className={styles.cell}>
        {award && <FillGlyph {...awardGlyph(award)} />}
      </td>
    );
  });
});

interface TotalsProps {
  sitting: SittingData;
  seats: Seat[];
  /** How many columns stand between the name and the first question. */
  between: number;
}

/** How many of those shown have answered each question, and what share of its points they have. */
function Totals({ sitting, seats, between }: TotalsProps) {
  const totals = questionTotals(
    sitting.questions.map((question) => question.id),
    seats,
  );
  return (
    <tfoot>
      <tr>
        <td className={styles.pickCell} />
        <th scope="row" className={styles.name}>
          Answered, share of points
        </th>
        <td colSpan={between} />
        {totals.map(({ questionId, answered, given, share }) => (
          <td key={questionId} className={styles.cell} title={`${answered} of ${given} answered`}>
            {answered}
            <span className={styles.share}>{share === null ? '–' : percent(share)}</span>
          </td>
        ))}
      </tr>
    </tfoot>
  );
}
