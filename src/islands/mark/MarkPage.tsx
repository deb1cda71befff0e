import { Fragment, memo, useDeferredValue, useState } from 'react';
import { kindOf, type Question } from '@/core/kinds';
import type { PointsTable } from '@/core/scoring/pointsTable';
import type { Shortcut } from '@/desk/Help';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { useInHand } from '@/offline/useInHand';
import { EmptyState } from '@/ui/EmptyState';
import { MarkQuestion } from './MarkQuestion';
import { useMarkingHabits } from './useMarkingHabits';
import { useQuestionNumbers } from './useQuestionNumbers';
import { usePauseReminder } from './usePauseReminder';
import styles from './mark.module.css';

const shortcuts: Shortcut[] = [
  { keys: '0–9 . ,', does: 'give points to the current answers' },
  { keys: '/', does: 'add a half to them' },
  { keys: '*', does: 'give full points' },
  { keys: 'A–Z', does: 'switch a scheme line or pick a level' },
  { keys: 'Shift A–Z', does: 'the same, and go to the next one waiting' },
  { keys: 'F8', does: 'show only what waits, or all' },
  { keys: '+', does: 'give or take points with a reason, also above the maximum' },
  { keys: 'F4', does: 'let points go on to the next answer, or not' },
  { keys: 'Enter', does: 'go to the next one waiting' },
  { keys: '↑  ↓', does: 'go to the previous or next answer' },
  { keys: 'Tab', does: 'write a comment; Enter there goes back to the answers' },
  { keys: 'Space', does: 'set aside for a second look, or bring back' },
  { keys: 'Backspace', does: 'clear the points' },
  { keys: '=', does: 'give what others like it have, where that is put forward' },
  { keys: 'Shift Space', does: 'give all answers on the screen what is put forward' },
  { keys: 'Page ↑  Page ↓', does: 'go to the answers before or after those on the screen' },
  { keys: 'Shift Enter', does: 'mark the pile as one, or one by one again' },
  { keys: 'Shift Delete', does: 'take this answer out of its pile' },
  { keys: 'Shift ↓', does: 'split the pile here' },
  { keys: 'Shift ↑', does: 'join with the answer above' },
  { keys: 'F2', does: 'name the pile' },
  { keys: 'F7', does: 'show the whole page of an answer on paper, or the answer alone' },
  { keys: 'F9', does: 'mark the work itself: words of a text, a drawing, a photo or a page' },
];

/** Marking by question: one question, everyone's answers, equal ones together. */
export function MarkPage({ sittingId }: { sittingId: string }) {
  useInHand();
  return (
    <SittingPage sittingId={sittingId} current="mark" shortcuts={shortcuts} soFar>
      {(sitting) => <Mark sitting={sitting} />}
    </SittingPage>
  );
}

/** What was stored is drawn when no key wants to be: points that were just given show before (`useActed`). */
function Mark({ sitting }: { sitting: SittingData }) {
  return <Marking sitting={useDeferredValue(sitting)} />;
}

const Marking = memo(function Marking({ sitting }: { sitting: SittingData }) {
  const waits = (id: string) => {
    const { waiting, notRead } = sitting.table.countsOf(id);
    return waiting + notRead > 0;
  };
  const numbers = useQuestionNumbers(sitting);
  // Held here: the next question begins with them at once.
  const marking = useMarkingHabits();
  const worked = usePauseReminder(marking.habits.pauseAfter);
  const [asked, setAsked] = useState(() => new URLSearchParams(window.location.search).get('question'));
  const first =
    sitting.questions.find(({ id }) => waits(id)) ??
    sitting.questions.find((each) => kindOf(each).scoredBy === 'hand') ??
    sitting.questions[0];
  // The question stays the same while it is marked, also once nothing waits in it any more.
  const [current, setCurrent] = useState(first?.id);
  const question = sitting.questions.find((each) => each.id === (asked ?? current)) ?? first;
  const choose = (id: string) => {
    setAsked(null);
    setCurrent(id);
    window.history.replaceState(null, '', `?question=${id}`);
  };
  if (sitting.progress.in === 0 && sitting.reading) return null;
  if (sitting.progress.in === 0)
    return (
      <EmptyState
        title="Nothing handed in yet"
        action={<a href={`/sittings/${sitting.sitting.id}/run`}>Watch students work</a>}
      >
        Answers appear here once a student has handed in or been collected. Questions with a key are scored
        automatically.
      </EmptyState>
    );
  if (!question) return <EmptyState title="This paper has no questions" />;
  const nextQuestion = sitting.questions.find((each) => each.id !== question.id && waits(each.id));
  return (
    <>
      <QuestionChoice
        questions={sitting.questions}
        numbers={numbers}
        currentId={question.id}
        table={sitting.reading ? null : sitting.table}
        choose={choose}
      />
      <MarkQuestion
        key={question.id}
        sitting={sitting}
        marking={marking}
        worked={worked}
        question={question}
        number={numbers.get(question.id) ?? ''}
        nextQuestion={
          nextQuestion
            ? { number: numbers.get(nextQuestion.id) ?? '', go: () => choose(nextQuestion.id) }
            : null
        }
      />
    </>
  );
});

interface QuestionChoiceProps {
  questions: Question[];
  numbers: ReadonlyMap<string, string>;
  currentId: string;
  /** Null while it is not known of all. */
  table: PointsTable | null;
  choose: (id: string) => void;
}

const notKnown = { waiting: 0, notRead: 0, forward: 0 };

/** All questions in a row, with how many answers of each wait. */
function QuestionChoice({ questions, numbers, currentId, table, choose }: QuestionChoiceProps) {
  return (
    <nav aria-label="Questions" className={styles.questions}>
      {questions.map((question) => {
        const { waiting: left, notRead, forward: near } = table?.countsOf(question.id) ?? notKnown;
        const byHand = kindOf(question).scoredBy === 'hand';
        const said = [
          ...(left > 0 ? [`${left} wait`] : []),
          ...(notRead > 0 ? [`${notRead} not read yet`] : []),
          ...(near > 0 ? [`${near} put forward`] : []),
        ];
        return (
          <button
            key={question.id}
            type="button"
            aria-current={question.id === currentId ? 'true' : undefined}
            aria-label={[
              `Question ${numbers.get(question.id)}`,
              ...(table && left + notRead === 0 ? [...said, byHand ? 'all marked' : 'scored by key'] : said),
            ].join(', ')}
            className={byHand ? styles.handQuestion : styles.keyQuestion}
            onClick={() => choose(question.id)}
          >
            {numbers.get(question.id)}
            {said.map((words) => (
              <Fragment key={words}>
                {' '}
                <span className={styles.left}>{words}</span>
              </Fragment>
            ))}
          </button>
        );
      })}
    </nav>
  );
}
