import { CloseButton } from '@mantine/core';
import { sumBy } from 'remeda';
import { isWritten } from '@/core/attempts/answerFill';
import { countedAnswer, countedAnswers } from '@/core/attempts/late';
import { versionsOf } from '@/core/attempts/versions';
import { kindOf } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { fullName } from '@/core/model/names';
import { plainText } from '@/core/basics/richWords';
import type { Attempt } from '@/core/model/sitting';
import { receiptOf } from '@/core/attempts/receipt';
import type { Seat } from '@/core/seats/seats';
import { attemptState, isAside } from '@/core/attempts/terms';
import { begunAt, timeTaken } from '@/core/attempts/timeTaken';
import { byTeacher, inRuns, timelineOf, type Happening, type Timeline } from '@/core/attempts/timeline';
import { scoreAttempt } from '@/core/scoring/scoreAttempt';
import { awardGlyph } from '@/ui/awardGlyph';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { FillGlyph } from '@/ui/FillGlyph';
import { clockLength, clockTime, counted, dayAndTime, duration, points } from '@/words/format';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { CourseChart } from './CourseChart';
import { LateOfStudent } from './LateAnswers';
import { DeleteAttempt } from './DeleteAttempt';
import { allowanceWords } from './SeatPanel';
import { notReadWords } from '@/words/onPaper';
import { eventWords, sourceWords, stateWords } from '@/words/attempts';
import styles from './attempt.module.css';

interface AttemptPageProps {
  sittingId: string;
  attemptId: string;
}

/** The whole course of one attempt: when what was answered, left and come back to, and what the teacher did. */
export function AttemptPage({ sittingId, attemptId }: AttemptPageProps) {
  return (
    <SittingPage sittingId={sittingId} current="run" tickMs={10_000}>
      {(sitting) => {
        const attempt = sitting.attempts.find((each) => each.id === attemptId);
        const seat = sitting.seats.find((each) => each.student.id === attempt?.studentId);
        return attempt && seat ? (
          <Course attempt={attempt} seat={seat} sitting={sitting} />
        ) : (
          <EmptyState
            title="Attempt not found"
            action={<a href={`/sittings/${sittingId}/run`}>Go to the sitting</a>}
          />
        );
      }}
    </SittingPage>
  );
}

interface CourseProps {
  attempt: Attempt;
  seat: Seat;
  sitting: SittingData;
}

function Course({ attempt, seat, sitting }: CourseProps) {
  const numbers = numbersOf(sitting.questions);
  const timeline = timelineOf(attempt, seat.allowances, seat.terms, sitting.now);
  const state = isAside(attempt) ? 'set aside' : stateWords[attemptState(attempt, seat.terms, sitting.now)];
  const run = `/sittings/${sitting.sitting.id}/run?student=${seat.student.id}`;
  const [begun, took] = [begunAt(attempt), timeTaken(attempt, seat.terms, sitting.now)];
  const left = sumBy(timeline.away, ({ from, to }) => to - from);
  return (
    <TwoColumns
      marginLabel="About the attempt"
      margin={
        <>
          <MarginBlock
            title={fullName(seat.student)}
            aside={
              <CloseButton
                size="sm"
                aria-label="Back to the sitting"
                onClick={() => window.location.assign(run)}
              />
            }
          >
            <dl className={styles.facts}>
              <dt>attempt</dt>
              <dd>
                {attempt.number}, {state}
              </dd>
              {attempt.source && (
                <>
                  <dt>answers</dt>
                  <dd>{sourceWords[attempt.source]}</dd>
                </>
              )}
              <dt>begun</dt>
              <dd>{begun === null ? notKnown : dayAndTime(begun, sitting.now)}</dd>
              <dt>took</dt>
              <dd>{took === null ? notKnown : lengthWords(took)}</dd>
              {!attempt.source && (
                <>
                  <dt>left the page</dt>
                  <dd>
                    {timeline.away.length === 0
                      ? 'never'
                      : `${counted(timeline.away.length, 'time')}, ${lengthWords(left)} in all`}
                  </dd>
                  <dt>receipt</dt>
                  <dd>{receiptOf(attempt.id)}</dd>
                </>
              )}
            </dl>
            <a href={`/sittings/${sitting.sitting.id}/scripts/${seat.student.id}`}>Whole script</a>
          </MarginBlock>
          <LateOfStudent seat={seat} sitting={sitting} />
          <MarginBlock title="Timeline">
            <Happenings timeline={timeline} numbers={numbers} now={sitting.now} />
          </MarginBlock>
          <MarginBlock title="The attempt">
            <DeleteAttempt attempts={[attempt]} sitting={sitting} done={() => window.location.assign(run)} />
          </MarginBlock>
        </>
      }
    >
      <h2 className={styles.heading}>Timeline of the attempt</h2>
      {!attempt.source && <CourseChart timeline={timeline} numbers={numbers} />}
      <AnswersNow attempt={attempt} sitting={sitting} timeline={timeline} numbers={numbers} />
    </TwoColumns>
  );
}

/** What is said of an answer that has no words here. */
function withoutWords(attempt: Attempt, questionId: string): string {
  const why = attempt.unread?.[questionId];
  if (why) return `not read yet: ${notReadWords[why]}`;
  return isWritten(countedAnswer(attempt, questionId)) ? 'on paper' : 'not answered';
}

const notKnown = 'not known';

interface HappeningsProps {
  timeline: Timeline;
  numbers: ReadonlyMap<string, string>;
  now: number;
}

/** Everything in words, with its time; runs of answers are together. */
function Happenings({ timeline, numbers, now }: HappeningsProps) {
  const rows = inRuns(timeline.happenings);
  return (
    <div className={styles.happenings} role="region" aria-label="Timeline" tabIndex={0}>
      <ol>
        {rows.map(({ first, questionIds }, index) => (
          <li key={index} data-teacher={byTeacher(first)}>
            <time dateTime={new Date(first.at).toISOString()}>{clockTime(first.at)}</time>{' '}
            {words(first, questionIds, numbers, now)}
          </li>
        ))}
      </ol>
    </div>
  );
}

function words(
  { kind, reason, allowance }: Happening,
  questions: readonly string[],
  numbers: ReadonlyMap<string, string>,
  now: number,
): string {
  const which = questions.map((id) => numbers.get(id) ?? '?').join(', ');
  const why = reason ? ` (${reason})` : '';
  if (allowance) return `${allowanceWords(allowance, now)}${why}`;
  if (kind === 'timeUp') return 'time was up';
  if (kind === 'cameLate') return `arrived after the end: ${which}`;
  if (kind === 'lateCounts') return `late answer accepted: ${which}${why}`;
  if (kind === 'lateNot') return `late answer not counted: ${which}${why}`;
  if (kind === 'allowance') return why;
  return `${eventWords[kind]}${which && ` ${which}`}${why}`;
}

interface AnswersNowProps {
  attempt: Attempt;
  sitting: SittingData;
  timeline: Timeline;
  numbers: ReadonlyMap<string, string>;
}

/** The answers as they stand, with the time each question took. */
function AnswersNow({ attempt, sitting, timeline, numbers }: AnswersNowProps) {
  const marks = sitting.marks.filter((mark) => mark.attemptId === attempt.id);
  const card = scoreAttempt(sitting.questions, attempt, marks);
  const awards = new Map(card.awards.map((award) => [award.questionId, award]));
  const counting = countedAnswers(attempt);
  const laneOf = new Map(timeline.lanes.map((lane) => [lane.questionId, lane]));
  return (
    <table className={styles.answers}>
      <caption className="visuallyHidden">Current answers</caption>
      <thead>
        <tr>
          <th scope="col">Question</th>
          <th scope="col">Current answer</th>
          <th scope="col" className={styles.figure}>
            Points
          </th>
          <th scope="col" className={styles.figure}>
            Time spent
          </th>
          <th scope="col" className={styles.figure}>
            Changed
          </th>
        </tr>
      </thead>
      <tbody>
        {sitting.questions.map((question) => {
          const award = awards.get(question.id);
          if (!award) return null;
          const answer = counting[question.id];
          const versions = versionsOf(attempt, question.id);
          const lane = laneOf.get(question.id);
          const text = answer && award.answered ? kindOf(question).asText(question, answer.response) : '';
          return (
            <tr key={question.id}>
              <th scope="row" title={plainText(question.stem)}>
                {numbers.get(question.id)}
              </th>
              <td className={styles.text}>
                {text || <span className={styles.soft}>{withoutWords(attempt, question.id)}</span>}
                {versions.length > 0 && (
                  <details className={styles.versions}>
                    <summary>{counted(versions.length, 'earlier version')}</summary>
                    <ul>
                      {versions.map(({ answer: earlier, unseen }, index) => (
                        <li key={index}>
                          <time dateTime={earlier.at}>{clockTime(earlier.at)}</time>{' '}
                          {kindOf(question).asText(question, earlier.response) || 'not answered'}
                          {unseen && (
                            <span className={styles.soft}>
                              {' '}
                              (typed on another device, without seeing the newer one)
                            </span>
                          )}
                        </li>
                      ))}
                    </ul>
                  </details>
                )}
              </td>
              <td className={styles.figure}>
                <FillGlyph {...awardGlyph(award)} /> {award.points === null ? '–' : points(award.points)}
              </td>
              <td className={styles.figure}>{lane?.timeOnMs == null ? '–' : clockLength(lane.timeOnMs)}</td>
              <td className={styles.figure}>
                {answer ? clockTime(answer.at) : ''}
                {lane && lane.ticks.length > 1 && ` (${lane.ticks.length})`}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** "42 min", and where it was short "1:05 min". */
const lengthWords = (ms: number) => (ms < 10 * 60_000 ? `${clockLength(ms)} min` : duration(ms));
