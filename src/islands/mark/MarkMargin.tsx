import { Button, NativeSelect, Switch } from '@mantine/core';
import { memo } from 'react';
import { sumBy } from 'remeda';
import { Rich } from '@/ui/Rich';
import { kindOf, type Question } from '@/core/kinds';
import type { RepairRule } from '@/core/kinds/repaired';
import type { OfferedComment } from '@/core/marking/commentBank';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { LikeMark } from '@/core/marking/piles/like';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { SittingData } from '@/desk/useSitting';
import type { MarkingHabits } from '@/store/markingHabits';
import { counted } from '@/words/format';
import { KeyHint } from '@/ui/KeyHint';
import { MarginBlock } from '@/ui/TwoColumns';
import { AlsoConcerned } from './AlsoConcerned';
import { NearnessSlider, PileBlock, type PileActs } from './PileBlock';
import { OptionComment } from './OptionComment';
import { PointsBlock } from './PointsBlock';
import type { MarkActs } from './useMarkActs';
import type { Piles } from './usePiles';
import styles from './mark.module.css';

interface MarkMarginProps {
  sitting: SittingData;
  question: Question;
  number: string;
  current: SameAnswers | undefined;
  groups: SameAnswers[];
  left: number;
  names: boolean;
  setNames: (shown: boolean) => void;
  acts: MarkActs;
  like: LikeMark | null;
  takeLike: () => void;
  /** How many rows on the screen something is put forward for. */
  forwardOnScreen: number;
  takeOnScreen: () => void;
  /** The pile of the current answers; null where there are none for such questions. */
  piles: { piles: Piles; entry: AnswerEntry; acts: PileActs } | null;
  habits: MarkingHabits;
  onlyWaiting: boolean;
  setOnlyWaiting: (only: boolean) => void;
  keepHabits: (change: Partial<MarkingHabits>) => Promise<void>;
  openBank: () => void;
  entries: readonly AnswerEntry[];
  offered: () => readonly OfferedComment[];
}

/** What a marker looks at beside the answers: the question, what is accepted, the scheme, and what is left. */
export function MarkMargin(props: MarkMarginProps) {
  const { question, number, current, groups, left, acts, piles } = props;
  const kind = kindOf(question);
  const byHand = kind.scoredBy === 'hand';
  const keyText = kind.keyText(question);
  return (
    <>
      <MarginBlock
        title={`Question ${number}, ${counted(question.points, 'point')}`}
        aside={<strong>{left > 0 ? `${left} left` : byHand ? 'all marked' : 'scored by key'}</strong>}
      >
        <div className={styles.stem}>
          <Rich text={question.stem} />
        </div>
        {question.repaired?.rule && (
          <p className={styles.soft}>
            {repairedWords[question.repaired.rule.kind]} Points given here change nothing until the{' '}
            <a
              href={`/sittings/${props.sitting.sitting.id}/repair?${new URLSearchParams({ question: question.id }).toString()}`}
            >
              repair
            </a>{' '}
            is withdrawn.
          </p>
        )}
      </MarginBlock>
      {current && (
        <PointsBlock
          sitting={props.sitting}
          number={number}
          question={question}
          current={current}
          acts={acts}
          like={props.like}
          takeLike={props.takeLike}
        />
      )}
      {current && (
        <AlsoConcerned entries={props.entries} current={current} offered={props.offered} acts={acts} />
      )}
      {props.forwardOnScreen > 1 && (
        <MarginBlock title="Put forward on the screen">
          <Button size="compact-sm" onClick={props.takeOnScreen}>
            Take all {props.forwardOnScreen}&ensp;
            <KeyHint keys="Shift Space" />
          </Button>
        </MarginBlock>
      )}
      {piles && <PileBlock entry={piles.entry} acts={piles.acts} />}
      {(keyText || question.note) && (
        <MarginBlock title={byHand ? 'Model answer' : 'Accepted by the key'}>
          <p className="keepLines">{keyText}</p>
          {question.note && <p className={`keepLines ${styles.soft}`}>Note: {question.note}</p>}
        </MarginBlock>
      )}
      {!byHand && !props.sitting.reading && (
        <OptionComment
          sittingId={props.sitting.sitting.id}
          question={question}
          number={number}
          groups={groups}
        />
      )}
      <AnswersBlock {...props} />
    </>
  );
}

const repairedWords: Record<RepairRule['kind'], string> = {
  everyone: 'Everyone has the points of this question.',
  answered: 'Everyone who answered has the points of this question.',
  dropped: 'This question doesn’t count.',
};

/** How the answers are gone through. */
function AnswersBlock(props: MarkMarginProps) {
  const { groups, piles, sitting } = props;
  const answers = sumBy(groups, (group) => group.answers.length);
  return (
    <MarginBlock title="These answers">
      <p className={styles.soft}>
        {counted(answers, 'answer')}, {counted(groups.length, 'different one')}. Identical ones are marked
        together.
      </p>
      {piles && <NearnessSlider piles={piles.piles} />}
      <HabitsFields
        habits={props.habits}
        keepHabits={props.keepHabits}
        onlyWaiting={props.onlyWaiting}
        setOnlyWaiting={props.setOnlyWaiting}
        names={props.names}
        setNames={props.setNames}
        openBank={props.openBank}
        placeHref={`/sittings/${sitting.sitting.id}`}
        ofShare={sitting.sitting.share === true}
      />
    </MarginBlock>
  );
}

type HabitsFieldsProps = Pick<
  MarkMarginProps,
  'habits' | 'keepHabits' | 'onlyWaiting' | 'setOnlyWaiting' | 'names' | 'setNames' | 'openBank'
> & { placeHref: string; ofShare: boolean };

/** What is chosen for a while, and the ways on; drawn anew only where one of these changes. */
const HabitsFields = memo(function HabitsFields({
  habits,
  keepHabits,
  onlyWaiting,
  setOnlyWaiting,
  names,
  setNames,
  openBank,
  placeHref,
  ofShare,
}: HabitsFieldsProps) {
  return (
    <>
      <Switch
        label={
          <>
            Points go on to the next answer <KeyHint keys="F4" />
          </>
        }
        checked={habits.goesOn}
        onChange={(event) => void keepHabits({ goesOn: event.currentTarget.checked })}
      />
      <Switch
        label={
          <>
            Only what still wants you <KeyHint keys="F8" />
          </>
        }
        checked={onlyWaiting}
        onChange={(event) => setOnlyWaiting(event.currentTarget.checked)}
      />
      <NativeSelect
        size="xs"
        label="Order"
        value={habits.order}
        data={[
          { value: 'short', label: 'Large piles and short answers first' },
          { value: 'shuffled', label: 'Shuffled, the same for all markers' },
        ]}
        onChange={(event) =>
          void keepHabits({ order: event.currentTarget.value === 'shuffled' ? 'shuffled' : 'short' })
        }
      />
      <NativeSelect
        size="xs"
        label="Remind me of a pause"
        value={habits.pauseAfter ?? ''}
        data={[
          ...[30, 45, 60, 90].map((minutes) => ({
            value: String(minutes),
            label: `after ${counted(minutes, 'minute')}`,
          })),
          { value: '', label: 'never' },
        ]}
        onChange={(event) => {
          const minutes = event.currentTarget.value;
          void keepHabits({ pauseAfter: minutes === '' ? null : Number(minutes) });
        }}
      />
      <Button size="compact-sm" onClick={openBank}>
        Comment bank
      </Button>
      <p>
        <a href={`${placeHref}/fairness`}>Check that marking is fair</a>
      </p>
      {!ofShare && (
        <p>
          <a href={`${placeHref}/markers`}>Other markers, and marking again</a>
        </p>
      )}
      <Switch
        label="Show names"
        checked={names}
        onChange={(event) => setNames(event.currentTarget.checked)}
      />
    </>
  );
});
