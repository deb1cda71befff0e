import { Button, NativeSelect } from '@mantine/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { kindOf, type Question } from '@/core/kinds';
import { drift, type Drift } from '@/core/analysis/drift';
import { evenedMark, type GivenPoints } from '@/core/marking/markChanges';
import { farApart, unequalAnswers, type UnequalAnswers } from '@/core/marking/unequal';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { ownMarker } from '@/core/model/mark';
import { actWhenRoom } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { markAnswers, type MarkStep } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted, percent, points } from '@/words/format';
import { hasNearAnswers, usePiles } from './usePiles';
import { useQuestionNumbers } from './useQuestionNumbers';
import styles from './fairness.module.css';

// The chart library is large; the lists do not wait for it.
const DriftChart = lazy(() => import('@/ui/DriftChart'));

/** Whether answers that say the same have the same points, and whether points drifted while they were given. */
export function FairnessPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="mark">
      {(sitting) => <Fairness sitting={sitting} />}
    </SittingPage>
  );
}

function Fairness({ sitting }: { sitting: SittingData }) {
  const byHand = sitting.questions.filter((question) => kindOf(question).scoredBy === 'hand');
  const numbers = useQuestionNumbers(sitting);
  const [asked, setAsked] = useState(byHand[0]?.id ?? '');
  const question = byHand.find(({ id }) => id === asked) ?? byHand[0];
  const unequal = useMemo(
    () => unequalAnswers(sitting.questions, sitting.seats),
    [sitting.questions, sitting.seats],
  );
  const { waiting } = sitting.progress;
  const back = <a href={`/sittings/${sitting.sitting.id}/mark`}>Back to marking</a>;
  if (!question)
    return (
      <EmptyState title="No question here is marked by hand" action={back}>
        Equal answers to a question with a key have the same points.
      </EmptyState>
    );
  return (
    <TwoColumns
      marginLabel="About these checks"
      margin={
        <MarginBlock title="Before you hand back">
          <p>
            {unequal.length === 0
              ? `Answers that say the same have the same points${waiting > 0 ? ', as far as they are marked' : ''}.`
              : `${counted(unequal.length, 'answer')} put the same way ${unequal.length === 1 ? 'has' : 'have'} unequal points.`}
          </p>
          <p>{back}</p>
        </MarginBlock>
      }
    >
      <h2 className={styles.heading}>Equal answers, unequal points</h2>
      {unequal.length === 0 ? (
        <p className={styles.soft}>
          {waiting > 0
            ? `None so far; ${counted(waiting, 'answer')} still ${waiting === 1 ? 'waits' : 'wait'}.`
            : 'None: whoever said the same got the same.'}
        </p>
      ) : (
        <ul className={styles.list}>
          {unequal.map((each) => (
            <UnequalRow
              key={`${each.question.id} ${each.group.id}`}
              sitting={sitting}
              unequal={each}
              number={numbers.get(each.question.id) ?? each.number}
            />
          ))}
        </ul>
      )}
      <NativeSelect
        size="sm"
        className={styles.question}
        label="Question"
        value={question.id}
        data={byHand.map(({ id }) => ({ value: id, label: `Question ${numbers.get(id)}` }))}
        onChange={(event) => setAsked(event.currentTarget.value)}
      />
      <Near key={`near ${question.id}`} sitting={sitting} question={question} />
      <Order sitting={sitting} question={question} />
    </TwoColumns>
  );
}

interface UnequalRowProps {
  sitting: SittingData;
  unequal: UnequalAnswers;
  number: string;
}

function UnequalRow({ sitting, unequal, number }: UnequalRowProps) {
  const { question, group, given } = unequal;
  const even = (to: GivenPoints) => {
    const awards = new Map(group.answers.map(({ attemptId, award }) => [attemptId, award]));
    const place = { sittingId: sitting.sitting.id, questionId: question.id, attemptIds: [...awards.keys()] };
    const step: MarkStep = (before) => {
      const award = awards.get(before.attemptId);
      return award ? evenedMark(award, before, to) : {};
    };
    const said = `Question ${number}: ${points(to.points)} for all ${counted(awards.size, 'identical answer')}`;
    void actWhenRoom(() => markAnswers(place, step, said, isoNow(), undefined, 'the same for equal answers'));
  };
  return (
    <li>
      <p>
        <strong>{number}</strong>&ensp;
        <a href={`/sittings/${sitting.sitting.id}/mark?question=${question.id}`}>
          {group.blank ? 'not answered' : group.text}
        </a>
      </p>
      <div className={styles.given}>
        {given.map((each) => (
          <Button key={each.points} size="compact-sm" onClick={() => even(each)}>
            {counted(each.answers, 'answer')} {each.answers === 1 ? 'has' : 'have'} {points(each.points)}:
            give all {group.answers.length} that
          </Button>
        ))}
      </div>
    </li>
  );
}

/** Similar answers whose points lie far apart. */
function Near({ sitting, question }: { sitting: SittingData; question: Question }) {
  const { entries, looking } = usePiles(sitting.sitting.id, question, sameAnswers(question, sitting.seats), {
    seed: null,
    look: true,
  });
  const far = useMemo(() => farApart(question, entries), [question, entries]);
  if (!hasNearAnswers(question)) return null;
  return (
    <section aria-label="Similar answers, far apart">
      <h2 className={styles.heading}>Similar answers, far apart</h2>
      {far.length === 0 ? (
        <p className={styles.soft} role="status">
          {looking?.stop
            ? 'Looking for similar answers…'
            : `No similar answers are more than ${points(question.points / 4)} apart.`}
        </p>
      ) : (
        <ul className={styles.list}>
          {far.map(({ pileId, members }) => (
            <li key={pileId}>
              {members.map(({ group, points: worth }) => (
                <p key={group.id}>
                  <strong>{points(worth)}</strong>&ensp;{group.text}
                </p>
              ))}
              <a href={`/sittings/${sitting.sitting.id}/mark?question=${question.id}`}>Look at them</a>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** Points against the order of marking. */
function Order({ sitting, question }: { sitting: SittingData; question: Question }) {
  const { seats } = sitting;
  const found = useMemo(() => {
    const marks = sameAnswers(question, seats).flatMap(({ answers }) =>
      answers.flatMap(({ mark }) => mark ?? []),
    );
    return drift(
      marks.filter(({ markerId }) => markerId === ownMarker),
      question.points,
    );
  }, [question, seats]);
  const words = driftWords(found);
  return (
    <section aria-label="Points in the order of marking">
      <h2 className={styles.heading}>Points in the order of marking</h2>
      <p role="status">{words}</p>
      {found.thirds && (
        <Suspense fallback={<div style={{ height: 240 }} />}>
          <DriftChart turns={found.turns} label={`Points in the order of marking. ${words}`} />
        </Suspense>
      )}
      {found.thirds && (
        <p className={styles.soft}>
          Each dot is a mark you gave, equal answers marked at once are one; the line is the mean of the last
          ten.
        </p>
      )}
    </section>
  );
}

/** What the order of marking shows, in words. */
function driftWords({ turns, thirds, telling }: Drift): string {
  if (turns.length === 0) return 'You have marked none of it yet.';
  if (!thirds) return `You have marked ${turns.length}: too few to see a drift.`;
  const means = `The first third got ${percent(thirds.first)} of the points, the last third ${percent(thirds.last)}`;
  if (!telling) return `${means}: no more of a difference than chance makes.`;
  return `${means}: more than chance makes. ${thirds.more < 0 ? 'You may have become stricter' : 'You may have become more generous'}, or the answers came in that order; look at some of the first again.`;
}
