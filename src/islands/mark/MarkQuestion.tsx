import { useRef, useState } from 'react';
import type { Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/options';
import { leftToMark, nextToMark } from '@/core/marking/nextToMark';
import { sameAnswers, type SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import { withLineSwitched } from '@/core/marking/switchLine';
import { nothingTyped, typePoints, type TypedPoints } from '@/core/marking/typedPoints';
import { markAnswers, type MarkStep } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/ui/desk/act';
import type { SittingData } from '@/ui/desk/useSitting';
import { counted, points } from '@/ui/format';
import { TwoColumns } from '@/ui/TwoColumns';
import { AnswerList } from './AnswerList';
import { MarkMargin } from './MarkMargin';

interface MarkQuestionProps {
  sitting: SittingData;
  question: Question;
  number: string;
  /** The next question with answers that wait; null when there is none. */
  nextQuestion: { number: string; go: () => void } | null;
}

/** One question being marked: its answers, and its scheme in the margin. */
export function MarkQuestion({ sitting, question, number, nextQuestion }: MarkQuestionProps) {
  const groups = sameAnswers(question, sitting.seats);
  const [currentId, setCurrentId] = useState(() => (nextToMark(groups, null) ?? groups[0])?.id ?? null);
  const [names, setNames] = useState(false);
  const typed = useRef<TypedPoints>(nothingTyped);
  const current = groups.find((group) => group.id === currentId) ?? groups[0];

  // Held keys come faster than drawing: they act on where the marker is, not on what was last drawn.
  const at = useRef(current?.id ?? null);

  const goTo = (id: string) => {
    typed.current = nothingTyped;
    at.current = id;
    setCurrentId(id);
  };
  const keep = (group: SameAnswers, step: MarkStep, said: string, joins?: string) => {
    const attemptIds = group.answers.map((answer) => answer.attemptId);
    const place = { sittingId: sitting.sitting.id, questionId: question.id, attemptIds };
    void act(markAnswers(place, step, `Question ${number}: ${said}`, isoNow(), joins));
  };
  const give = (group: SameAnswers, worth: number | null) => {
    const count = counted(group.answers.length, 'answer');
    if (worth === null) keep(group, { points: null, lines: [] }, `points of ${count} taken off`);
    else
      keep(
        group,
        { points: worth, aside: false },
        `${points(worth)} of ${points(question.points)} for ${count}`,
        `points-${question.id}-${group.id}`,
      );
  };
  const typePoint = (group: SameAnswers, key: string) => {
    typed.current = typePoints(typed.current, key, question.points);
    if (typed.current.refused) say(`More than ${points(question.points)} points cannot be given here`, true);
    else if (typed.current.points !== null) give(group, typed.current.points);
  };
  const switchLine = (group: SameAnswers, lineId: string) => {
    typed.current = nothingTyped;
    const letter = optionLetter(schemeOf(question).findIndex((line) => line.id === lineId));
    const said = `line ${letter} switched for ${counted(group.answers.length, 'answer')}`;
    keep(group, (before) => withLineSwitched(question, before, lineId), said);
  };
  const goOn = (group: SameAnswers) => {
    if (group.blank && group.waiting > 0) give(group, 0);
    const next = nextToMark(groups, group.id);
    if (next) goTo(next.id);
    else nextQuestion?.go();
  };
  const step = (by: number) => {
    const next = groups[groups.findIndex((group) => group.id === at.current) + by];
    if (next) goTo(next.id);
  };

  const onKey = (key: string): boolean => {
    const here = groups.find((group) => group.id === at.current) ?? current;
    if (!here) return false;
    const line = schemeOf(question)[key.toUpperCase().charCodeAt(0) - 65];
    if (/^[0-9.,]$/.test(key)) typePoint(here, key);
    else if (/^[a-z]$/i.test(key) && line) switchLine(here, line.id);
    else if (key === 'Enter') goOn(here);
    else if (key === 'ArrowDown') step(1);
    else if (key === 'ArrowUp') step(-1);
    else if (key === ' ')
      keep(here, (before) => ({ aside: !before.aside }), here.aside ? 'taken up again' : 'put aside');
    else if (key === 'Backspace' || key === 'Delete') {
      typed.current = nothingTyped;
      give(here, null);
    } else return false;
    return true;
  };

  return (
    <TwoColumns
      marginLabel="Question and scheme"
      margin={
        <MarkMargin
          question={question}
          number={number}
          current={current}
          left={leftToMark(groups)}
          groups={groups}
          names={names}
          setNames={setNames}
          give={give}
          switchLine={switchLine}
        />
      }
    >
      <AnswerList
        question={question}
        groups={groups}
        current={current}
        names={names ? sitting.seats : null}
        enterDoes={current ? enterWords(current, groups, nextQuestion?.number ?? null) : ''}
        goTo={goTo}
        onKey={onKey}
        comment={(group, comment) =>
          keep(group, { comment }, 'comment', `comment-${question.id}-${group.id}`)
        }
      />
    </TwoColumns>
  );
}

/** The scheme lines a group of equal answers met, when all of them have the same. */
export function linesMet(group: SameAnswers): string[] {
  return group.answers[0]?.mark?.lines ?? [];
}

/** What Enter will do, in words. */
function enterWords(
  current: SameAnswers,
  groups: readonly SameAnswers[],
  nextQuestion: string | null,
): string {
  const left = groups.filter((group) => group.waiting > 0 && group.id !== current.id).length;
  const blank = current.blank && current.waiting > 0;
  const next = nextToMark(groups, current.id);
  const going = next
    ? next.waiting > 0
      ? `goes on to the next, ${left} left`
      : next.nearMiss && !next.aside
        ? 'goes to one put forward as nearly right'
        : 'goes to one put aside'
    : nextQuestion === null
      ? 'stays: nothing else waits'
      : `goes on to question ${nextQuestion}`;
  return blank ? `gives ${counted(current.answers.length, 'blank answer')} 0 points and ${going}` : going;
}
