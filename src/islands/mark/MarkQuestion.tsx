import { useCallback, useMemo, useState } from 'react';
import type { Question } from '@/core/kinds';
import { leftToMark, nextToMark } from '@/core/marking/nextToMark';
import { wantingEntries } from '@/core/marking/piles/arrange';
import { putForward } from '@/core/marking/putForward';
import { sameAnswers, type SameAnswers } from '@/core/marking/sameAnswers';
import { ownMarker } from '@/core/model/mark';
import type { SittingData } from '@/desk/useSitting';
import { TwoColumns } from '@/ui/TwoColumns';
import { AnswerList } from './AnswerList';
import { CommentBank } from './CommentBank';
import { MarkMargin } from './MarkMargin';
import { enterWords } from './markWords';
import { useCommentBank } from './useCommentBank';
import { useEarlierMarks } from './useEarlierMarks';
import { useMarkActs } from './useMarkActs';
import { useMarkKeys } from './useMarkKeys';
import { useMarkPosition } from './useMarkPosition';
import { useOnScreen } from './useOnScreen';
import type { useMarkingHabits } from './useMarkingHabits';
import { usePileActs } from './usePileActs';
import { hasNearAnswers, useAnswerParts, usePiles } from './usePiles';

interface MarkQuestionProps {
  sitting: SittingData;
  question: Question;
  number: string;
  /** The next question with answers that wait; null when there is none. */
  nextQuestion: { number: string; go: () => void } | null;
  /** How the marker likes to mark. */
  marking: ReturnType<typeof useMarkingHabits>;
  /** Told of each act of marking. */
  worked: () => void;
  /** Who marks. */
  markerId?: string;
}

/** One question being marked: its answers, and its scheme in the margin. */
export function MarkQuestion({
  sitting,
  question,
  number,
  nextQuestion,
  marking: { habits, keepHabits },
  worked,
  markerId = ownMarker,
}: MarkQuestionProps) {
  const sittingId = sitting.sitting.id;
  const [onlyWaiting, setOnlyWaiting] = useState(false);
  const { seats } = sitting;
  const same = useMemo(() => sameAnswers(question, seats), [question, seats]);
  const piles = usePiles(sittingId, question, same, {
    seed: habits.order === 'shuffled' ? sittingId : null,
    look: sitting.reading === null,
  });
  const { entries } = piles;
  const groups = useMemo(() => entries.map(({ group }) => group), [entries]);
  const { current, at, align, begin, goTo: goToRow } = useMarkPosition(groups);
  const [names, setNames] = useState(false);
  const [marksText, setMarksText] = useState(false);
  const [wholePage, setWholePage] = useState(false);
  const [bankOpen, setBankOpen] = useState(false);
  const openBank = useCallback(() => setBankOpen(true), []);
  const closeBank = useCallback(() => setBankOpen(false), []);
  const goTo = (id: string, to: 'auto' | 'start' = 'auto') => {
    setMarksText(false);
    goToRow(id, to);
  };

  const earlier = useEarlierMarks(sittingId, question);
  const parts = useAnswerParts(question, piles.words);
  const likes = useMemo(
    () => putForward(question, entries, earlier, parts),
    [question, entries, earlier, parts],
  );
  const acts = useMarkActs({
    ...{ sittingId, markerId, question, number, entries, likes, begin },
    drawnMarks: sitting.marks,
  });
  const offered = useCommentBank(sittingId, question.id, sitting.marks);
  /** What is put forward, and what will be once these are drawn with their points: what lies in a pile with them and says the same. */
  const forwardAfter = (group: SameAnswers): Set<string> => {
    const pile = entries.find((each) => each.group.id === group.id)?.pile?.members ?? [];
    const own = parts.get(group.id)?.join('\n');
    const same = pile.filter(({ id }) => own !== undefined && parts.get(id)?.join('\n') === own);
    return new Set([...likes.keys(), ...same.map(({ id }) => id)]);
  };
  const goOn = (group: SameAnswers) => {
    const next = nextToMark(acts.asActed(), group.id, forwardAfter(group));
    // Where points go on by themselves, the eye stays where it is and the answers come to it.
    if (next) goTo(next.id, habits.goesOn ? 'start' : 'auto');
    else nextQuestion?.go();
  };
  const left = useMemo(() => leftToMark(groups), [groups]);
  const shown = useMemo(
    () => (onlyWaiting ? wantingEntries(entries, current?.id ?? null) : entries),
    [onlyWaiting, entries, current?.id],
  );
  const screen = useOnScreen(groups, likes);
  const pileActs = usePileActs({ sitting, question, piles, at, seen: screen.seen, goTo });
  const entry = entries.find(({ group }) => group.id === current?.id);
  const takeOnScreen = () => {
    const ids = screen.forwardIds();
    const last = groups.find(({ id }) => id === ids.at(-1));
    acts.takeLike(ids);
    if (last && habits.goesOn) goOn(last);
  };
  const togglePage = () => setWholePage(!wholePage);
  const switches = new Map<string, () => void>([
    ['F4', () => void keepHabits({ goesOn: !habits.goesOn })],
    ['F7', togglePage],
    ['F8', () => setOnlyWaiting(!onlyWaiting)],
    ['F9', () => setMarksText(!marksText)],
  ]);
  const onKey = useMarkKeys({
    ...{ question, acts, pileActs, screen, shown, current, at, switches, goesOn: habits.goesOn },
    ...{ begin, goTo, goOn, takeOnScreen, worked },
  });

  return (
    <TwoColumns
      marginLabel="Question and scheme"
      margin={
        <MarkMargin
          sitting={sitting}
          question={question}
          number={number}
          current={current}
          left={left}
          groups={groups}
          names={names}
          setNames={setNames}
          acts={acts}
          like={likes.get(current?.id ?? '') ?? null}
          takeLike={() => acts.takeLike(current ? [current.id] : [])}
          forwardOnScreen={screen.forward}
          takeOnScreen={takeOnScreen}
          piles={
            hasNearAnswers(question) && entry && !entry.group.onPaper && !sitting.reading
              ? { piles, entry, acts: pileActs }
              : null
          }
          habits={habits}
          openBank={openBank}
          entries={entries}
          offered={offered}
          onlyWaiting={onlyWaiting}
          setOnlyWaiting={setOnlyWaiting}
          keepHabits={keepHabits}
        />
      }
    >
      <CommentBank
        questionId={question.id}
        number={number}
        opened={bankOpen}
        close={closeBank}
        offered={offered}
      />
      <AnswerList
        question={question}
        entries={shown}
        current={current}
        together={current ? acts.countOf(current) : 0}
        align={align}
        likes={likes}
        acted={acts.acted}
        work={{ open: marksText, setOpen: setMarksText, change: acts.markText }}
        page={{ whole: wholePage, toggle: togglePage }}
        names={names ? sitting.seats : null}
        seen={screen.lookedAt}
        looking={screen.rows}
        enterDoes={current ? enterWords(current, groups, left, likes, nextQuestion?.number ?? null) : ''}
        goTo={goTo}
        onKey={onKey}
        comment={acts.comment}
        offered={offered}
        chosen={acts.takeCommentPoints}
      />
    </TwoColumns>
  );
}
