import { Button, NumberInput } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { useState } from 'react';
import { kindOf } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { countedAnswer } from '@/core/attempts/late';
import { correctionOf } from '@/core/model/mark';
import { registerName } from '@/core/model/names';
import { act } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { markAnswers } from '@/store/marks';
import { answerRequest, type RequestRow } from '@/store/requests';
import { isoNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted, dayAndTime, points } from '@/words/format';
import { done } from '@/words/done';
import { viewOf } from '../kinds';
import { useAfterwards, type CorrectionRow } from './useAfterwards';
import styles from './afterwards.module.css';

/** What students did with their results: questions about marks, and missed questions answered again. */
export function AfterwardsPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="handBack">
      {(sitting) => <Afterwards sitting={sitting} />}
    </SittingPage>
  );
}

function Afterwards({ sitting }: { sitting: SittingData }) {
  const { corrections, questions, waiting } = useAfterwards(sitting);
  const id = sitting.sitting.id;
  if (corrections.length + questions.length === 0)
    return (
      <EmptyState
        title="No corrections or questions yet"
        action={<a href={`/sittings/${id}/hand-back`}>Go to hand back</a>}
      >
        Invite students there to ask about a mark, or to answer again what they missed.
      </EmptyState>
    );
  return (
    <TwoColumns
      marginLabel="How much"
      margin={
        <MarginBlock title="Corrections and questions">
          <p>
            {counted(corrections.length, 'correction')}, {counted(questions.length, 'question')} about marks.
            {waiting > 0 ? ` ${waiting} ${waiting === 1 ? 'waits' : 'wait'} for you.` : ' Nothing waits.'}
          </p>
          <p>
            <a href={`/sittings/${id}/hand-back`}>Hand back</a>
          </p>
        </MarginBlock>
      }
    >
      {questions.length > 0 && (
        <section aria-label="Questions about marks">
          <h2 className={styles.heading}>Questions about marks</h2>
          <ul className={styles.list}>
            {questions.map((row) => (
              <AboutMark key={row.request.id} row={row} sitting={sitting} />
            ))}
          </ul>
        </section>
      )}
      {corrections.length > 0 && (
        <section aria-label="Corrections">
          <h2 className={styles.heading}>Corrections</h2>
          <ul className={styles.list}>
            {corrections.map((row) => (
              <Corrected key={`${row.seat.student.id} ${row.question.id}`} row={row} sitting={sitting} />
            ))}
          </ul>
        </section>
      )}
    </TwoColumns>
  );
}

function AboutMark({ row: { request, student }, sitting }: { row: RequestRow; sitting: SittingData }) {
  const [words, setWords] = useState('');
  const { sitting: record, seats, questions, now } = sitting;
  const question = questions.find(({ id }) => id === request.questionId);
  const award = seats
    .find((seat) => seat.student.id === student.id)
    ?.scorecard?.awards.find(({ questionId }) => questionId === request.questionId);
  const number = numbersOf(questions).get(request.questionId ?? '') ?? '';
  return (
    <li>
      <p>
        <strong>{registerName(student)}</strong>, question {number}
        {award?.points != null &&
          question &&
          `, ${points(award.points)} of ${points(question.points)} points`}
        : “{request.words}” <span className={styles.soft}>{dayAndTime(request.at, now)}</span>
      </p>
      <p>
        <a href={`/sittings/${record.id}/scripts/${student.id}?question=${request.questionId ?? ''}`}>
          Open the script of {registerName(student)}
        </a>
      </p>
      {request.answer ? (
        <p>
          You answered {dayAndTime(request.answer.at, now)}: “{request.answer.words}”
        </p>
      ) : (
        <form
          className={styles.answer}
          onSubmit={(event) => {
            event.preventDefault();
            void act(answerRequest(request.id, true, words, isoNow()));
          }}
        >
          <GrowingTextarea
            label={`Your answer to ${registerName(student)}`}
            size="sm"
            maxLength={500}
            value={words}
            onChange={(event) => setWords(event.currentTarget.value)}
          />
          <Button type="submit" disabled={!words.trim()}>
            Send answer
          </Button>
        </form>
      )}
    </li>
  );
}

function Corrected({ row, sitting }: { row: CorrectionRow; sitting: SittingData }) {
  const { seat, question, correction, award } = row;
  const { Show } = viewOf(question);
  const attempt = seat.attempt;
  const number = numbersOf(sitting.questions).get(question.id) ?? '';
  const name = registerName(seat.student);
  const made = award.correction ?? { points: null, gained: 0 };
  const before = (award.points ?? 0) - made.gained;
  const mark = (value: number | null) =>
    attempt &&
    void act(
      markAnswers(
        {
          sittingId: sitting.sitting.id,
          questionId: correctionOf(question.id),
          attemptIds: [attempt.id],
        },
        { points: value },
        done.correctionMarked(name, number),
        isoNow(),
      ),
    );
  return (
    <li>
      <p>
        <strong>
          {number} · {name}
        </strong>{' '}
        <span className={styles.soft}>{dayAndTime(correction.at, sitting.now)}</span>
      </p>
      <div className={styles.sides}>
        <div>
          <p className={styles.soft}>before: {counted(before, 'point')}</p>
          <Show
            question={question}
            response={(attempt && countedAnswer(attempt, question.id)?.response) ?? null}
            small
          />
        </div>
        <div>
          <p className={styles.soft}>corrected</p>
          <Show question={question} response={correction.response} small />
        </div>
        <div className={styles.figures}>
          {kindOf(question).scoredBy === 'hand' ? (
            <NumberInput
              label={`Points for the correction, of ${points(question.points)}`}
              size="sm"
              min={0}
              max={question.points}
              step={0.5}
              value={made.points ?? ''}
              onChange={(value) =>
                mark(value === '' ? null : Math.min(question.points, Math.max(0, Number(value))))
              }
            />
          ) : (
            <p>
              {made.points === null
                ? 'no points yet'
                : `${points(made.points)} of ${counted(question.points, 'point')}`}
            </p>
          )}
          {made.points !== null && <p>wins back {counted(made.gained, 'point')}</p>}
        </div>
      </div>
    </li>
  );
}
