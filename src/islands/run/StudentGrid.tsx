import { memo } from 'react';
import { plainText } from '@/core/model/richText';
import { numbersOf } from '@/core/kinds/items';
import { registerName } from '@/core/model/people';
import type { Seat } from '@/core/running/standing';
import { endOf } from '@/core/running/terms';
import { awardGlyph } from '@/ui/awardGlyph';
import type { SittingData } from '@/ui/desk/useSitting';
import { FillGlyph } from '@/ui/FillGlyph';
import { clockTime } from '@/ui/format';
import { VirtualRows } from '@/ui/VirtualRows';
import { stateWords } from './stateWords';
import styles from './run.module.css';

const rowHeight = 31;

interface StudentGridProps {
  sitting: SittingData;
  seats: Seat[];
  currentId: string | null;
  choose: (studentId: string) => void;
}

/** Students by questions, filling as they work. Only the rows in sight are drawn. */
export function StudentGrid({ sitting, seats, currentId, choose }: StudentGridProps) {
  const numbers = numbersOf(sitting.questions);
  return (
    <div
      data-scroller
      className={styles.scroller}
      role="region"
      aria-label="Students and their answers"
      tabIndex={0}
    >
      <table className={styles.grid} aria-rowcount={seats.length + 1}>
        <thead>
          <tr>
            <th scope="col" className={styles.name}>
              Student
            </th>
            <th scope="col">State</th>
            <th scope="col" className={styles.figure}>
              Minutes
            </th>
            <th scope="col">Last sign</th>
            {sitting.questions.map((question) => (
              <th key={question.id} scope="col" className={styles.cell} title={plainText(question.stem)}>
                {numbers.get(question.id)}
              </th>
            ))}
          </tr>
        </thead>
        <VirtualRows rows={seats} height={rowHeight}>
          {(seat) => (
            <GridRow
              key={seat.student.id}
              seat={seat}
              sitting={sitting}
              current={seat.student.id === currentId}
              choose={choose}
            />
          )}
        </VirtualRows>
      </table>
    </div>
  );
}

interface GridRowProps {
  seat: Seat;
  sitting: SittingData;
  current: boolean;
  choose: (studentId: string) => void;
}

function GridRow({ seat, sitting, current, choose }: GridRowProps) {
  const { attempt, student } = seat;
  const end = attempt && (endOf(attempt, seat.terms, sitting.now) ?? sitting.now);
  return (
    <tr data-current={current}>
      <th scope="row" className={styles.name}>
        <button type="button" className={styles.pick} onClick={() => choose(student.id)}>
          {registerName(student)}
        </button>
      </th>
      <td>
        {stateWords[seat.state]}
        {seat.attemptCount > 1 && `, attempt ${seat.attemptCount}`}
      </td>
      <td className={styles.figure}>
        {attempt && end ? Math.round((end - Date.parse(attempt.startedAt)) / 60_000) : ''}
      </td>
      <td>{attempt && seat.state === 'working' ? clockTime(attempt.lastSeenAt) : ''}</td>
      <AnswerCells seat={seat} sitting={sitting} />
    </tr>
  );
}

const AnswerCells = memo(function AnswerCells({ seat, sitting }: { seat: Seat; sitting: SittingData }) {
  const awards = new Map(seat.scorecard?.awards.map((award) => [award.questionId, award]));
  return sitting.questions.map((question) => {
    const award = awards.get(question.id);
    return (
      <td key={question.id} className={styles.cell}>
        {award && <FillGlyph {...awardGlyph(award)} />}
      </td>
    );
  });
});
