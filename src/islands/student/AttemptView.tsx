import { useEffect, useRef } from 'react';
import type { AttemptStatus, Carrier } from '@/carriers/Carrier';
import type { StudentQuestion } from '@/core/kinds';
import { fillOf as fillOfAnswer, type AnswerFill } from '@/core/kinds/fillings';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { takeInHand } from '@/offline/kept';
import type { HeldAttempt } from '@/store/sitTables';
import { useNow } from '@/ui/clock';
import { announce } from '@/ui/announce';
import { counted } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { PaperQuestions, responsesOf } from '../kinds/PaperQuestions';
import { AskInside } from './AskInside';
import { AttemptBar } from './AttemptBar';
import { ChoiceOfTwo } from './ChoiceOfTwo';
import { LastLook } from './LastLook';
import { PracticePanel } from './PracticePanel';
import { Receipt } from './Receipt';
import { TimeIsUp } from './TimeIsUp';
import type { AttemptSession } from './attemptSession';
import { useAttempt } from './useAttempt';
import { useSteps } from './useSteps';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

interface AttemptViewProps {
  carrier: Carrier;
  held: HeldAttempt;
  /** Whether the other side knows that it goes on here. */
  opened: boolean;
  done: () => void;
  seeResult: () => void;
}

/** Sitting the paper: time, state and a way to every question across the top; all at once or one by one below. */
export function AttemptView({ carrier, held: initial, opened, done, seeResult }: AttemptViewProps) {
  const attempt = useAttempt(carrier, initial, opened);
  const { held, status, deadline, saveState, refused, session, lookingAt } = attempt;
  const { questions, oneByOne, noBack } = held.packet;
  const steps = useSteps(initial, held.packet, lookingAt);
  useNow(500);
  const leftMs = deadline === null ? null : deadline - session.rulingNow();
  const timeUp = leftMs !== null && leftMs <= 0 && (status === null || status.state === 'working');

  const sent = useRef(false);
  useEffect(() => {
    if (!timeUp || sent.current) return;
    sent.current = true;
    void session.handIn().finally(() => (sent.current = false));
  }, [timeUp, session]);

  // What the teacher lets go on goes on at its questions, not at the last look that ended it.
  const over = status !== null && status.state !== 'working';
  // A newer Gribbet waits until it is handed in.
  useEffect(() => (over ? undefined : takeInHand()), [over]);
  const { goOn } = steps;
  useEffect(() => {
    if (over) goOn();
  }, [over, goOn]);

  if (over)
    return <Receipt carrier={carrier} held={held} status={status} done={done} seeResult={seeResult} />;
  if (timeUp) return <TimeIsUp held={held} saveState={saveState} />;
  if (status?.elsewhere)
    return <Elsewhere held={held} status={status} takeOver={session.takeOver} done={done} />;

  const fillOf = (id: string): AnswerFill => {
    const question = questions.find((each) => each.id === id);
    return question ? fillOfAnswer(question, held.answers[id]?.response) : 'open';
  };
  const noted = (id: string | null) => {
    if (id) session.leftAt(id);
    if (!oneByOne) lookingAt(id);
  };
  const { step, place, looking } = steps;
  return (
    <>
      <AttemptBar
        held={held}
        leftMs={leftMs}
        totalMs={deadline === null ? null : deadline - Date.parse(held.packet.startedAt)}
        saveState={saveState}
        fillOf={fillOf}
        {...(oneByOne && !looking && { current: step.map(({ id }) => id) })}
        goTo={noBack ? null : steps.goTo}
        lastLook={looking || noBack ? null : steps.look}
      />
      {refused.length > 0 && (
        <p role="alert">
          Too large to send: {refused.join(', ')}. Your other answers are saved. Tell your teacher, or add a
          smaller file.
        </p>
      )}
      {looking ? (
        <LastLook
          held={held}
          fillOf={fillOf}
          goTo={noBack ? null : steps.goTo}
          handIn={session.handIn}
          back={noBack ? null : steps.goOn}
        />
      ) : (
        <div
          // Which question is in front of the student is where the last touch or key was.
          onFocusCapture={(event) => noted(questionAt(event.target))}
          onPointerDownCapture={(event) => noted(questionAt(event.target))}
        >
          <ViewHeading text={held.packet.title} />
          <PaperQuestions
            questions={questions}
            only={step}
            parts={held.packet.parts ?? []}
            responseTo={responsesOf(held.answers)}
            respond={session.respond}
            locked={({ id }) => held.packet.practice?.views[id]?.done === true}
            below={(question) => (
              <BelowQuestion question={question} held={held} status={status} session={session} />
            )}
          />
          {opened && <AskInside carrier={carrier} joinCode={held.joinCode} sittingId={held.sittingId} />}
          {oneByOne ? (
            <StepButtons
              place={place}
              of={steps.count}
              noBack={noBack === true}
              trying={step.some(({ id }) => {
                const view = held.packet.practice?.views[id];
                return view !== undefined && view.canTry && !view.done;
              })}
              back={steps.back}
              next={() => {
                if (noBack) session.pass(step.map(({ id }) => id));
                steps.next();
              }}
            />
          ) : (
            <Button variant="filled" size="md" onClick={steps.look}>
              Check before handing in
            </Button>
          )}
        </div>
      )}
    </>
  );
}

/** What stands under a question: two answers to choose between, practice, and the mark to come back. */
function BelowQuestion({
  question,
  held,
  status,
  session,
}: {
  question: StudentQuestion;
  held: HeldAttempt;
  status: AttemptStatus | null;
  session: AttemptSession;
}) {
  const { questions, noBack, practice } = held.packet;
  const view = practice?.views[question.id];
  const marked = held.comeBack.includes(question.id);
  const choice = status?.choices.find((each) => each.questionId === question.id);
  return (
    <>
      {choice && (
        <ChoiceOfTwo
          question={question}
          choice={choice}
          choose={(answer, inView) => session.respond(question.id, answer.response, inView)}
        />
      )}
      {view && (
        <PracticePanel
          question={question}
          view={view}
          response={held.answers[question.id]?.response ?? null}
          practise={(doing) => session.practise(question.id, doing)}
        />
      )}
      {!noBack && (
        <button
          type="button"
          className={styles.quiet}
          aria-pressed={marked}
          onClick={() => {
            session.toggleComeBack(question.id);
            const number = numbersOf(questions).get(question.id) ?? '';
            announce(
              marked
                ? `Question ${number} is no longer marked to come back to`
                : `Question ${number} is marked to come back to`,
            );
          }}
        >
          {marked ? 'You will come back to this; take the mark off' : 'Come back to this'}
        </button>
      )}
    </>
  );
}

/** The question an element belongs to. */
function questionAt(target: EventTarget): string | null {
  const section = target instanceof Element ? target.closest('[id^="question-"]') : null;
  return section?.id.replace('question-', '') ?? null;
}

interface StepButtonsProps {
  place: number;
  of: number;
  noBack: boolean;
  /** Whether there is something to try first. */
  trying: boolean;
  back: () => void;
  next: () => void;
}

/** The way on where questions come one by one. */
function StepButtons({ place, of, noBack, trying, back, next }: StepButtonsProps) {
  const last = place === of - 1;
  return (
    <div className={styles.steps}>
      {noBack && (
        <p className={styles.soft}>
          {last ? 'This is the last question.' : 'Once you go on, you can’t come back to this question.'}
        </p>
      )}
      <div className={styles.row}>
        <Button variant={trying ? 'default' : 'filled'} size="md" onClick={next}>
          {last ? 'Finish and check before handing in' : noBack ? 'Finish this and go on' : 'Next'}
        </Button>
        {!noBack && place > 0 && (
          <Button size="md" onClick={back}>
            Previous
          </Button>
        )}
      </div>
    </div>
  );
}

/** Said in the tab that an attempt is no longer in. */
function Elsewhere({
  held,
  status,
  takeOver,
  done,
}: {
  held: HeldAttempt;
  status: AttemptStatus;
  takeOver: () => Promise<void>;
  done: () => void;
}) {
  const waiting = held.unsent.length + held.apart.length;
  return (
    <section className={styles.narrow} aria-labelledby="elsewhere">
      <ViewHeading id="elsewhere" text="Your paper is open in another tab" />
      <p>
        You opened it there later, so this tab has stopped.{' '}
        {waiting > 0
          ? `${counted(waiting, 'answer')} that you typed here ${waiting === 1 ? 'is' : 'are'} still on this device; the page hands them over.`
          : 'Everything you typed here has arrived.'}
      </p>
      {status.choices.length > 0 && (
        <p className={styles.waits}>
          {counted(status.choices.length, 'question')} {status.choices.length === 1 ? 'has' : 'have'} a newer
          answer from there. What you typed here is kept too; you can choose between the two in the other tab.
        </p>
      )}
      <Button variant="filled" size="md" onClick={() => void takeOver()}>
        Continue here instead
      </Button>
      <Button size="md" onClick={done}>
        Go to your papers
      </Button>
    </section>
  );
}
