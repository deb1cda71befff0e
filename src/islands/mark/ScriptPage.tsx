import { countedAnswer } from '@/core/attempts/late';
import { Button } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Rich } from '@/ui/Rich';
import { kindOf, type Question } from '@/core/kinds';
import { marksThatCount } from '@/core/scoring/marksThatCount';
import { clearedPoints, givenPoints } from '@/core/marking/markChanges';
import { schemeOf } from '@/core/marking/scheme';
import { withLineSwitched } from '@/core/marking/switchLine';
import { orderedScripts } from '@/core/marking/scriptOrder';
import { fullName } from '@/core/model/names';
import type { WorkStep } from '@/core/model/workMark';
import type { Seat } from '@/core/seats/seats';
import type { Award, AwardState } from '@/core/scoring/scoreAttempt';
import { markAnswers, markWork, type MarkStep } from '@/store/marks';
import { awardGlyph } from '@/ui/awardGlyph';
import { isoNow } from '@/ui/clock';
import { actWhenRoom } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { useInHand } from '@/offline/useInHand';
import { EmptyState } from '@/ui/EmptyState';
import { FillGlyph } from '@/ui/FillGlyph';
import { counted, points } from '@/words/format';
import { KeptTextarea } from '@/ui/KeptTextarea';
import { pointStepOf } from '@/core/marking/typedPoints';
import { PointsField } from '@/ui/PointsField';
import { shareWords } from '@/words/shares';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { viewOf } from '../kinds';
import { PaperPictures } from '../kinds/PaperPictures';
import { EarlierPapers } from './EarlierPapers';
import { MarkHistory } from './MarkHistory';
import { ScriptKeys, scriptShortcuts } from './ScriptKeys';
import { LayerMarks, TextMarks } from './TextMarks';
import { WholeComment } from './WholeComment';
import { SchemeChecks } from './SchemeChecks';
import { ScriptsBlock } from './ScriptsBlock';
import { useMarkingHabits } from './useMarkingHabits';
import { useQuestionNumbers } from './useQuestionNumbers';
import styles from './mark.module.css';

/** One student's whole script, with points and comments where they belong. */
export function ScriptPage({ sittingId, studentId }: { sittingId: string; studentId: string }) {
  useInHand();
  return (
    <SittingPage sittingId={sittingId} current="mark" shortcuts={scriptShortcuts}>
      {(sitting) => <Script sitting={sitting} studentId={studentId} />}
    </SittingPage>
  );
}

function Script({ sitting, studentId }: { sitting: SittingData; studentId: string }) {
  const { habits, keepHabits } = useMarkingHabits();
  const numbers = useQuestionNumbers(sitting);
  const [beside, setBeside] = useState(() => new URLSearchParams(window.location.search).get('beside'));
  const seats = useMemo(
    () =>
      orderedScripts(
        sitting.seats.filter((seat) => seat.attempt),
        habits.scriptOrder,
        habits.passLine,
      ),
    [sitting.seats, habits.scriptOrder, habits.passLine],
  );
  const seat = seats.find((each) => each.student.id === studentId);
  if (!seat?.scorecard)
    return (
      <EmptyState
        title="No script yet"
        action={<a href={`/sittings/${sitting.sitting.id}/run`}>Go to the sitting</a>}
      >
        This student hasn’t started.
      </EmptyState>
    );
  const other = seats.find((each) => each.student.id === beside && each !== seat) ?? null;
  const awards = new Map(seat.scorecard.awards.map((award) => [award.questionId, award]));
  const hrefOf = (id: string) =>
    `/sittings/${sitting.sitting.id}/scripts/${id}${beside ? `?beside=${encodeURIComponent(beside)}` : ''}`;
  const putBeside = (id: string | null) => {
    setBeside(id);
    window.history.replaceState(
      null,
      '',
      id ? `?beside=${encodeURIComponent(id)}` : window.location.pathname,
    );
  };
  return (
    <TwoColumns
      marginLabel="About the script"
      margin={
        <>
          <TotalBlock seat={seat} />
          <WholeComment sitting={sitting} seat={seat} />
          <ScriptsBlock
            {...{ seat, seats, hrefOf, habits, keepHabits }}
            beside={other?.student.id ?? null}
            setBeside={putBeside}
          />
          <EarlierPapers studentId={studentId} sittingId={sitting.sitting.id} />
        </>
      }
    >
      <h2 className={styles.total}>
        {fullName(seat.student)}
        {other && `, beside ${fullName(other.student)}`}
      </h2>
      <ScriptKeys sitting={sitting} seat={seat} seats={seats} hrefOf={hrefOf} />
      {sitting.questions.map((question) => {
        const award = awards.get(question.id);
        return (
          award && (
            <div key={question.id} className={other ? styles.pair : undefined}>
              <ScriptAnswer
                question={question}
                number={numbers.get(question.id) ?? ''}
                award={award}
                seat={seat}
                sitting={sitting}
              />
              {other && <BesideAnswer question={question} seat={other} />}
            </div>
          )
        );
      })}
    </TwoColumns>
  );
}

/** The answer of another student to the same question, with what it has: to look at, not to change. */
function BesideAnswer({ question, seat }: { question: Question; seat: Seat }) {
  const { Show } = viewOf(question);
  const award = seat.scorecard?.awards.find(({ questionId }) => questionId === question.id);
  const mark = marksThatCount(seat.marks).get(question.id);
  const { response = null, pictures = [] } = (seat.attempt && countedAnswer(seat.attempt, question.id)) ?? {};
  return (
    <section className={styles.besideAnswer} aria-label={`The answer of ${fullName(seat.student)}`}>
      <p className={styles.soft}>
        {fullName(seat.student)}
        {award
          ? `: ${award.points === null ? stateWords[award.state] : `${points(award.points)} of ${points(award.max)}`}`
          : ' did not have this question'}
      </p>
      {award && (
        <Show
          question={kindOf(question).forStudent(question, `${seat.attempt?.id ?? ''} ${question.id}`)}
          response={response}
          work={mark?.work}
        />
      )}
      {pictures.length > 0 && <PaperPictures pictures={pictures} work={mark?.work} />}
      {mark?.comment && <p className={styles.comment}>{mark.comment}</p>}
    </section>
  );
}

function TotalBlock({ seat }: { seat: Seat }) {
  const card = seat.scorecard;
  return (
    <MarginBlock title="Total">
      {card && (
        <p className={styles.total}>
          {points(card.total)} of {points(card.max)}
          {card.max > 0 && ` (${shareWords(card)})`}
        </p>
      )}
      {card?.meanOf && (
        <p>
          The mean of {counted(card.meanOf.length, 'attempt')}:{' '}
          {card.meanOf.map((each) => `${points(each.total)} of ${points(each.max)}`).join(', ')}. Below is
          attempt {seat.attempt?.number}.
        </p>
      )}
      <p className={styles.soft}>
        {card?.final ? 'Fully marked.' : `Not final: ${openWords(seat)}.`}
        {seat.state === 'working' && ' Still working.'}
      </p>
    </MarginBlock>
  );
}

/** "3 answers are open", and where several attempts matter, how many of them are in another one. */
function openWords({ scorecard }: Seat): string {
  const isOpen = ({ state, aside }: Award) =>
    state === 'waiting' || state === 'notRead' || state === 'noKey' || aside;
  const here = scorecard?.awards.filter(isOpen).length ?? 0;
  const all = (scorecard?.waiting ?? 0) + (scorecard?.noKey ?? 0) + (scorecard?.notRead ?? 0);
  const words = `${counted(here, 'answer')} of this attempt ${here === 1 ? 'is' : 'are'} open`;
  return all > here ? `${words}, and ${all - here} of other attempts that count towards the total` : words;
}

const stateWords: Record<AwardState, string> = {
  notAnswered: 'not answered',
  noKey: 'no key yet',
  notRead: 'not read yet',
  waiting: 'waits for a mark',
  byKey: 'by the key',
  byHand: 'by hand',
  overridden: 'overridden',
  given: 'given to everyone',
  dropped: 'doesn’t count',
};

interface ScriptAnswerProps {
  question: Question;
  number: string;
  award: Award;
  seat: Seat;
  sitting: SittingData;
}

function ScriptAnswer({ question, number, award, seat, sitting }: ScriptAnswerProps) {
  const { Show, written = false, drawn = false } = viewOf(question);
  const kind = kindOf(question);
  const mark = marksThatCount(seat.marks).get(question.id);
  const response = (seat.attempt && countedAnswer(seat.attempt, question.id)?.response) ?? null;
  const place = {
    sittingId: sitting.sitting.id,
    questionId: question.id,
    attemptIds: [seat.attempt?.id ?? ''],
  };
  const keep = (step: MarkStep, said: string, joins: string) => {
    const [now, whole] = [isoNow(), `${fullName(seat.student)}, question ${number}: ${said}`];
    void actWhenRoom(() => markAnswers(place, step, whole, now, joins));
  };
  const answered = response && !kind.isBlank(response) ? response : null;
  const changeWork = (step: WorkStep, said: string) => {
    const [now, whole] = [isoNow(), `${fullName(seat.student)}, question ${number}: ${said}`];
    void actWhenRoom(() => markWork(place, step, whole, now));
  };
  const pictures = (seat.attempt && countedAnswer(seat.attempt, question.id)?.pictures) ?? [];
  const said = (
    <Show
      question={kind.forStudent(question, `${seat.attempt?.id ?? ''} ${question.id}`)}
      response={response}
      work={mark?.work}
    />
  );
  const shown =
    pictures.length > 0 ? (
      <>
        {answered && said}
        <PaperPictures pictures={pictures} work={mark?.work} folded={answered !== null} />
      </>
    ) : (
      said
    );
  const layered = (drawn && answered) || (pictures.length > 0 && !answered);
  return (
    <section
      className={styles.script}
      aria-label={`Question ${number}`}
      data-question={question.id}
      tabIndex={-1}
    >
      <div className={styles.written}>
        <div>
          <strong>{number}</strong>&ensp;
          <Rich text={question.stem} />
        </div>
        {layered ? <LayerMarks change={changeWork}>{shown}</LayerMarks> : shown}
        {written && answered && (
          <TextMarks text={kind.asText(question, answered)} work={mark?.work ?? []} change={changeWork} />
        )}
        {kind.keyText(question) && (
          <p className={`keepLines ${styles.soft}`}>
            {kind.scoredBy === 'hand' ? 'Model answer' : 'Accepted'}: {kind.keyText(question)}
          </p>
        )}
      </div>
      <div className={styles.marking}>
        <div className={styles.steps}>
          <FillGlyph {...awardGlyph(award)} size={18} />
          <PointsField
            label={`Points for question ${number}`}
            w={58}
            value={award.points}
            max={award.max}
            step={pointStepOf(question)}
            onPoints={(worth) => {
              if (worth !== null)
                keep(
                  givenPoints(worth),
                  `${points(worth)} of ${points(award.max)}`,
                  `script-${question.id}-${seat.student.id}`,
                );
            }}
          />
          of {points(award.max)}, {stateWords[award.state]}
        </div>
        {award.state === 'overridden' && (
          <Button size="compact-sm" onClick={() => keep(clearedPoints, 'override removed', '')}>
            Remove override ({award.byKey === null ? 'no key' : `${points(award.byKey)} by the key`})
          </Button>
        )}
        <SchemeChecks
          question={question}
          met={mark?.lines ?? []}
          keys={false}
          switchLine={(id) =>
            keep((before) => withLineSwitched(question, before, [before], id), 'scheme line switched', '')
          }
        />
        <KeptTextarea
          size="xs"
          aria-label={`Comment on question ${number}`}
          placeholder="Comment for the student"
          value={mark?.comment ?? ''}
          onKeep={(comment) =>
            keep({ comment }, 'comment', `script-comment-${question.id}-${seat.student.id}`)
          }
        />
        {mark && (
          <MarkHistory
            marks={seat.marks.filter(({ questionId }) => questionId === question.id)}
            scheme={schemeOf(question)}
          />
        )}
      </div>
    </section>
  );
}
