import { Button, Checkbox, Switch } from '@mantine/core';
import { Rich } from '@/ui/Rich';
import { kindOf, type Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/optionLetter';
import { marksOf, type SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import { roundPoints } from '@/core/basics/points';
import { counted, points } from '@/words/format';
import { KeyHint } from '@/ui/KeyHint';
import { PointsField } from '@/ui/PointsField';
import { MarginBlock } from '@/ui/TwoColumns';
import { groupLines } from '@/core/marking/groupMark';
import { pointStep } from '@/core/marking/typedPoints';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { LikeMark } from '@/core/marking/piles/like';
import { MarkHistory } from './MarkHistory';
import { NearnessSlider, PileBlock, type PileActs } from './PileBlock';
import type { Piles } from './usePiles';
import styles from './mark.module.css';

interface MarkMarginProps {
  question: Question;
  number: string;
  current: SameAnswers | undefined;
  groups: SameAnswers[];
  left: number;
  names: boolean;
  setNames: (shown: boolean) => void;
  give: (group: SameAnswers, points: number | null) => void;
  switchLine: (group: SameAnswers, lineId: string) => void;
  /** What the current answers would get if they got what others like them have; null: nothing is put forward. */
  like: LikeMark | null;
  takeLike: () => void;
  /** How many answers get what the current ones are given. */
  markedTogether: number;
  /** The pile of the current answers; null where there are none for such questions. */
  piles: { piles: Piles; entry: AnswerEntry; acts: PileActs } | null;
}

/** What a marker looks at beside the answers: the question, what is accepted, the scheme, and what is left. */
export function MarkMargin(props: MarkMarginProps) {
  const { question, number, current, groups, left, names, setNames, piles } = props;
  const kind = kindOf(question);
  const byHand = kind.scoredBy === 'hand';
  const answers = groups.reduce((sum, group) => sum + group.answers.length, 0);
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
      </MarginBlock>
      {current && <PointsBlock {...props} current={current} />}
      {piles && <PileBlock entry={piles.entry} acts={piles.acts} />}
      {(keyText || question.note) && (
        <MarginBlock title={byHand ? 'Model answer' : 'Accepted by the key'}>
          <p className="keepLines">{keyText}</p>
          {question.note && <p className={`keepLines ${styles.soft}`}>Note: {question.note}</p>}
        </MarginBlock>
      )}
      <MarginBlock title="These answers">
        <p className={styles.soft}>
          {counted(answers, 'answer')}, {counted(groups.length, 'different one')}. Identical ones are marked
          together.
        </p>
        {piles && <NearnessSlider piles={piles.piles} />}
        <Switch
          label="Show names"
          checked={names}
          onChange={(event) => setNames(event.currentTarget.checked)}
        />
      </MarginBlock>
    </>
  );
}

function PointsBlock({
  question,
  current,
  give,
  switchLine,
  markedTogether,
  like,
  takeLike,
}: MarkMarginProps & { current: SameAnswers }) {
  const scheme = schemeOf(question);
  const marks = marksOf(current);
  const met = groupLines(marks);
  const some = (lineId: string) => {
    const having = marks.filter(({ lines }) => lines.includes(lineId)).length;
    return having > 0 && having < current.answers.length;
  };
  const byHand = kindOf(question).scoredBy === 'hand';
  const overridden = current.answers.some((answer) => answer.award.state === 'overridden');
  const steps =
    question.points <= 6 && Number.isInteger(question.points)
      ? Array.from({ length: question.points + 1 }, (_, worth) => worth)
      : [];
  return (
    <MarginBlock
      title={
        markedTogether > current.answers.length
          ? `For all ${markedTogether} answers of this pile`
          : current.answers.length > 1
            ? `For these ${current.answers.length} identical answers`
            : 'For this answer'
      }
    >
      {scheme.map((line, index) => (
        <Checkbox
          key={line.id}
          size="sm"
          checked={met.includes(line.id)}
          indeterminate={some(line.id)}
          onChange={() => switchLine(current, line.id)}
          label={
            <>
              <KeyHint keys={optionLetter(index)} /> {line.text}{' '}
              <span className={styles.soft}>
                {line.points > 0 ? '+' : ''}
                {points(line.points)}
              </span>
            </>
          }
        />
      ))}
      <div className={styles.steps} role="group" aria-label="Points">
        {steps.map((worth) => (
          <Button
            key={worth}
            size="compact-md"
            aria-pressed={current.points === worth}
            variant={current.points === worth ? 'light' : 'default'}
            aria-label={`Give ${worth}`}
            onClick={() => give(current, worth)}
          >
            {worth}
          </Button>
        ))}
        <PointsField
          key={current.id}
          label="Points for the current answers"
          w={58}
          value={current.points}
          max={question.points}
          step={pointStep}
          onPoints={(worth) => give(current, worth)}
        />
        <span className={styles.soft}>of {points(question.points)}</span>
      </div>
      {like && (
        <div className={styles.forward} role="group" aria-label="Put forward">
          <p>
            {counted(like.times, like.equal ? 'identical answer' : 'similar answer')}{' '}
            {like.times === 1 ? 'has' : 'have'} {points(like.points)} of {points(question.points)}
            {like.equal ? '.' : `: “${shortened(like.text)}”`}
          </p>
          <Button size="compact-sm" onClick={takeLike}>
            {like.attemptIds.length === 1
              ? 'Give this one the same'
              : `Give these ${like.attemptIds.length} the same`}
            &ensp;
            <KeyHint keys="=" />
          </Button>
        </div>
      )}
      {current.nearMiss && (
        <div className={styles.forward} role="group" aria-label="Put forward">
          <p>
            Close to “{current.nearMiss.text}”, which gives{' '}
            {points(roundPoints(current.nearMiss.share * question.points))}. Typing error?
          </p>
          <Button
            size="compact-sm"
            onClick={() => give(current, roundPoints((current.nearMiss?.share ?? 0) * question.points))}
          >
            Give the same points
          </Button>
          <Button size="compact-sm" onClick={() => give(current, current.points)}>
            Leave as it is
          </Button>
        </div>
      )}
      <MarkHistory marks={marks} scheme={scheme} />
      {!byHand && (
        <p className={styles.soft}>
          {overridden ? 'Overridden by hand.' : 'Scored by the key; points given here override it.'}{' '}
          {overridden && (
            <Button size="compact-sm" onClick={() => give(current, null)}>
              Remove override
            </Button>
          )}
        </p>
      )}
    </MarginBlock>
  );
}

const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 60).trimEnd()}…` : text);
