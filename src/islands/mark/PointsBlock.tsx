import { Button } from '@mantine/core';
import { memo } from 'react';
import { range, unique } from 'remeda';
import { roundPoints } from '@/core/basics/points';
import { kindOf, type Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/optionLetter';
import { differsFromScheme, schemePoints } from '@/core/kinds/schemePoints';
import { groupLines, groupNote } from '@/core/marking/groupMark';
import type { LikeMark } from '@/core/marking/piles/like';
import { allMarksOf, marksOf, type SameAnswers } from '@/core/marking/sameAnswers';
import { basePoints } from '@/core/marking/markChanges';
import { wholeScheme } from '@/core/marking/scheme';
import { pointStepOf } from '@/core/marking/typedPoints';
import { unadjusted, type Adjustment } from '@/core/model/mark';
import { counted, points } from '@/words/format';
import { KeptTextarea } from '@/ui/KeptTextarea';
import { KeyHint } from '@/ui/KeyHint';
import { useSteady } from '@/ui/useSteady';
import { PointsField } from '@/ui/PointsField';
import { MarginBlock } from '@/ui/TwoColumns';
import type { SittingData } from '@/desk/useSitting';
import { AcceptWording } from './AcceptWording';
import { AdjustBlock } from './AdjustBlock';
import { MarkHistory } from './MarkHistory';
import { SchemeChecks } from './SchemeChecks';
import type { MarkActs } from './useMarkActs';
import styles from './mark.module.css';

export interface PointsBlockProps {
  sitting: SittingData;
  number: string;
  question: Question;
  current: SameAnswers;
  acts: MarkActs;
  /** What the current answers would get if they got what others like them have; null: nothing is put forward. */
  like: LikeMark | null;
  takeLike: () => void;
}

/** Points for the current answers: by the scheme, by number, by what others like them have; and what goes with them. */
export function PointsBlock({ sitting, number, question, current, acts, like, takeLike }: PointsBlockProps) {
  const { give, switchLine } = acts;
  const marks = marksOf(current);
  const met = groupLines(marks);
  const all = allMarksOf(current);
  const scheme = wholeScheme(question);
  const some = scheme.lines.flatMap(({ id }) => {
    const having = marks.filter(({ lines }) => lines.includes(id)).length;
    return having > 0 && having < current.answers.length ? [id] : [];
  });
  const switchOn = useSteady((lineId: string) => switchLine(current, lineId));
  const giveCurrent = useSteady((worth: number | null) => give(current, worth));
  const adjust = useSteady((adjustment: Adjustment | null) => acts.adjust(current, adjustment));
  const concerned = acts.together(current).flatMap(({ answers }) => answers);
  const [adjustment] = concerned.flatMap(({ mark }) => mark?.adjustment ?? []);
  const byHand = kindOf(question).scoredBy === 'hand';
  const overridden = current.answers.some((answer) => answer.award.state === 'overridden');
  const together = acts.countOf(current);
  const [first] = marks;
  const differs =
    first?.points !== null &&
    first !== undefined &&
    differsFromScheme(scheme, met, unadjusted(first), question.points);
  return (
    <MarginBlock
      title={
        together > current.answers.length
          ? `For all ${together} answers of this pile`
          : current.answers.length > 1
            ? `For these ${current.answers.length} identical answers`
            : 'For this answer'
      }
    >
      <SchemeChecks question={question} met={met} some={some} switchLine={switchOn} keys />
      <div className={styles.steps} role="group" aria-label="Points">
        <PointSteps max={question.points} given={current.points} give={giveCurrent} />
        <PointsField
          // What stood there before is this answer's own: a refused number brings no other answer's points.
          key={current.id}
          label="Points for the current answers"
          w={58}
          value={current.points}
          max={question.points}
          step={pointStepOf(question)}
          onPoints={giveCurrent}
        />
        <span className={styles.soft}>of {points(question.points)}</span>
      </div>
      {differs && (
        <p className={styles.soft}>
          The scheme lines give {points(schemePoints(scheme, met, question.points))}; the points given differ.
        </p>
      )}
      {like && (
        <div className={styles.forward} role="group" aria-label="Put forward">
          <p>{likeWords(like, question)}</p>
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
      {/* What it would do is told over everyone. */}
      {!byHand && !sitting.reading && (
        <AcceptWording sitting={sitting} question={question} number={number} current={current} />
      )}
      <AdjustBlock
        about={`${current.id} ${JSON.stringify(marks.find(({ adjustment }) => adjustment)?.adjustment)}`}
        kept={adjustment}
        bases={unique(concerned.map(({ award, mark }) => basePoints(award, mark)))}
        question={question}
        adjust={adjust}
      />
      <KeptTextarea
        about={current.id}
        size="xs"
        aria-label="Private note, no student sees it"
        placeholder="Private note, for markers only"
        value={groupNote(marks)}
        onKeep={(text) => acts.note(current, text)}
      />
      <MarkHistory marks={all} scheme={scheme.lines} />
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

/** A button for each number of points, where they are few. */
const PointSteps = memo(function PointSteps({
  max,
  given,
  give,
}: {
  max: number;
  given: number | null;
  give: (worth: number) => void;
}) {
  if (max > 6 || !Number.isInteger(max)) return null;
  return range(0, max + 1).map((worth) => (
    <Button
      key={worth}
      size="compact-md"
      aria-pressed={given === worth}
      variant={given === worth ? 'light' : 'default'}
      aria-label={`Give ${worth}`}
      onClick={() => give(worth)}
    >
      {worth}
    </Button>
  ));
});

/** Why something is put forward, and what. */
function likeWords(like: LikeMark, question: Question): string {
  const letters = wholeScheme(question).lines.flatMap((line, index) =>
    like.lines.includes(line.id) ? optionLetter(index) : [],
  );
  const worth = `${points(like.points)} of ${points(question.points)}${letters.length > 0 ? ` (${letters.join(' ')})` : ''}`;
  const have = like.times === 1 ? 'has' : 'have';
  switch (like.from) {
    case 'parts':
      return `All its parts are in ${counted(like.times, 'answer')} you marked: by them it has ${worth}.`;
    case 'earlier':
      return `In “${like.sitting ?? ''}” ${counted(like.times, 'identical answer')} ${have} ${worth}.`;
    case 'similar':
      return `${counted(like.times, 'similar answer')} ${have} ${worth}: “${shortened(like.text)}”`;
    default:
      return `${counted(like.times, 'identical answer')} ${have} ${worth}.`;
  }
}

const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 60).trimEnd()}…` : text);
