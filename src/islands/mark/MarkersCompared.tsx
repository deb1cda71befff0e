import { Button, NativeSelect } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  agreementOf,
  differingAnswers,
  markedTwice,
  markersMet,
  settledValues,
  type DifferingAnswers,
  type MarkedTwice,
  type MarkersMet,
  type SettleRule,
} from '@/core/analysis/compareMarkers';
import type { AnswersGiven } from '@/core/model/share';
import { isFew, kappaStep, type Agreement, type KappaStep } from '@/core/analysis/agreement';
import { kindOf, type Response } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/optionLetter';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { answersGiven } from '@/core/marking/shares/deal';
import { schemeOf } from '@/core/marking/scheme';
import { ownMarker, settledMarker, type HandMark, type MarkValues } from '@/core/model/mark';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { settleMarks } from '@/store/sharedMarks';
import { isoNow } from '@/ui/clock';
import { counted, percent, points } from '@/words/format';
import { viewOf } from '../kinds';
import type { Shares } from './useShares';
import styles from './markers.module.css';

interface ComparedProps {
  sitting: SittingData;
  shares: Shares;
  /** Gives the answers that are open to somebody else. */
  giveToThird: (answers: AnswersGiven[]) => void;
}

/** So many rows are shown at once. */
const mostShown = 30;

/** Where two markers marked the same answers: how far they agree, and the pairs that differ, to be settled. */
export function MarkersCompared({ sitting, shares, giveToThird }: ComparedProps) {
  const { marks, nameOf } = shares;
  const met = useMemo(
    () => markersMet(marks, [ownMarker, ...shares.shares.map(({ id }) => id)]),
    [marks, shares.shares],
  );
  const [chosen, setChosen] = useState('');
  const keyOf = ({ first, second }: MarkersMet) => `${first} ${second}`;
  const pair = met.find((each) => keyOf(each) === chosen) ?? met[0];
  return (
    <section aria-label="Where markers differ" className={styles.differ}>
      <h2 className={styles.heading}>Where markers differ</h2>
      {!pair && (
        <p className={styles.soft}>
          No two markers have marked the same answers yet. Give some scripts to both, or mark some of a
          colleague’s share yourself.
        </p>
      )}
      {met.length > 1 && pair && (
        <NativeSelect
          size="sm"
          className={styles.pair ?? ''}
          label="Markers"
          value={keyOf(pair)}
          data={met.map((each) => ({
            value: keyOf(each),
            label: `${nameOf(each.first)} and ${nameOf(each.second)}: ${counted(each.answers, 'answer')}`,
          }))}
          onChange={(event) => setChosen(event.currentTarget.value)}
        />
      )}
      {pair && (
        <Pair
          key={keyOf(pair)}
          sitting={sitting}
          marks={marks}
          pair={pair}
          nameOf={nameOf}
          giveToThird={giveToThird}
        />
      )}
    </section>
  );
}

interface PairProps {
  sitting: SittingData;
  marks: readonly HandMark[];
  pair: MarkersMet;
  nameOf: (id: string) => string;
  giveToThird: (answers: AnswersGiven[]) => void;
}

const placeOf = ({ attemptId, questionId }: Pick<HandMark, 'attemptId' | 'questionId'>): string =>
  `${attemptId} ${questionId}`;

function Pair({ sitting, marks, pair, nameOf, giveToThird }: PairProps) {
  const twice = useMemo(() => markedTwice(marks, pair.first, pair.second), [marks, pair]);
  const answered = useAnswered(sitting, twice);
  const apart = useMemo(
    () => differingAnswers(twice, (each) => answered.get(placeOf(each)) ?? { id: placeOf(each), text: '' }),
    [twice, answered],
  );
  const settled = useMemo(
    () =>
      new Map(
        marks.flatMap((mark) => (mark.markerId === settledMarker ? [[placeOf(mark), mark] as const] : [])),
      ),
    [marks],
  );
  const settledOf = ({ pairs }: DifferingAnswers) => {
    const all = pairs.map((each) => settled.get(placeOf(each)));
    return all.every((mark) => mark !== undefined) ? all[0] : undefined;
  };
  const all = apart.flatMap(({ pairs }) => pairs);
  const open = all.filter((each) => !settled.has(placeOf(each)));
  const names = { first: nameOf(pair.first), second: nameOf(pair.second) };
  const inSentence = (rule: 'first' | 'second') => (names[rule] === 'You' ? 'you' : names[rule]);
  const whose = (rule: SettleRule) =>
    rule === 'mean'
      ? `mean of ${inSentence('first')} and ${inSentence('second')}`
      : `as ${inSentence(rule)} gave`;
  const settle = (pairs: readonly MarkedTwice[], rule: SettleRule) =>
    void act(settleMarks(sitting.sitting.id, pairs, rule, whose(rule), isoNow()));
  const third = () => giveToThird(answersGiven(open));
  const figures = agreementOf(twice);
  return (
    <>
      {figures && <Figures figures={figures} {...names} />}
      {all.length === 0 && <p>They gave the same points to all of them.</p>}
      {all.length > 0 && (
        <p role="status">
          {counted(all.length, 'answer')} {all.length === 1 ? 'differs' : 'differ'}
          {open.length < all.length && `; ${all.length - open.length} settled, ${open.length} open`}.
        </p>
      )}
      {open.length > 1 && (
        <div className={styles.rule} role="group" aria-label={`Settle the ${open.length} that are open`}>
          <span>For the {open.length} open:</span>
          <Button size="compact-sm" onClick={() => settle(open, 'mean')}>
            Take the mean
          </Button>
          {(['first', 'second'] as const).map((rule) => (
            <Button key={rule} size="compact-sm" onClick={() => settle(open, rule)}>
              Take what {inSentence(rule)} gave
            </Button>
          ))}
          <Button size="compact-sm" onClick={third}>
            Give them to a third marker
          </Button>
        </div>
      )}
      <ol className={styles.pairs}>
        {apart.slice(0, mostShown).map((each) => (
          <Differing
            key={each.pairs.map(placeOf).join()}
            sitting={sitting}
            answers={each}
            response={(each.pairs[0] && answered.get(placeOf(each.pairs[0]))?.response) ?? null}
            names={names}
            settled={settledOf(each)}
            settle={(rule) => settle(each.pairs, rule)}
          />
        ))}
      </ol>
      {apart.length > mostShown && (
        <p className={styles.soft}>
          The {mostShown} furthest apart are shown; {apart.length - mostShown} more lie closer together.
        </p>
      )}
    </>
  );
}

/** What was answered, by attempt and question: what equal answers have in common, and how it was put. */
function useAnswered(sitting: SittingData, pairs: readonly MarkedTwice[]) {
  const { questions, seats } = sitting;
  return useMemo(() => {
    const asked = new Set(pairs.map(({ questionId }) => questionId));
    return new Map(
      questions
        .filter(({ id }) => asked.has(id))
        .flatMap((question) =>
          sameAnswers(question, seats).flatMap(({ id, answers }) =>
            answers.map(
              ({ attemptId, text, response }) =>
                [placeOf({ attemptId, questionId: question.id }), { id, text, response }] as const,
            ),
          ),
        ),
    );
  }, [questions, seats, pairs]);
}

function Figures({ figures, first, second }: { figures: Agreement; first: string; second: string }) {
  const { answers, exact, withinHalf, meanDifference, kappa, icc } = figures;
  const more = meanDifference > 0 ? first : second;
  const who = more === 'You' ? 'you give' : `${more} gives`;
  const by = Math.abs(Math.round(meanDifference * 100) / 100);
  return (
    <>
      <p>
        Of {counted(answers, 'answer')} that both marked, {percent(exact)} have the same points and{' '}
        {percent(withinHalf)} lie within half a point.{' '}
        {by === 0 ? 'On average they give the same.' : `On average ${who} ${points(by)} more.`}
      </p>
      <dl className={styles.figures}>
        <dt>Kappa, quadratic weights</dt>
        <dd>{kappa === null ? 'not defined: the points do not vary' : kappa.toFixed(2).replace('-', '−')}</dd>
        <dt>Intraclass correlation</dt>
        <dd>
          {icc === null ? 'not defined: too few answers, or no spread' : icc.toFixed(2).replace('-', '−')}
        </dd>
        <dt>What that means</dt>
        <dd>{agreementWords(figures)}</dd>
      </dl>
    </>
  );
}

const stepWords: Record<KappaStep, string> = {
  almostPerfect: 'almost perfect agreement',
  substantial: 'substantial agreement',
  moderate: 'moderate agreement: talk about the scheme',
  little: 'little agreement: look at the scheme together before you go on',
};

/** What the figures come to, in words. */
function agreementWords(figures: Agreement): string {
  const step = kappaStep(figures);
  if (step === null) return 'nothing can be said of chance here';
  return isFew(figures) ? `${stepWords[step]}. With so few answers that may be chance` : stepWords[step];
}

interface DifferingProps {
  sitting: SittingData;
  answers: DifferingAnswers;
  /** What was answered. */
  response: Response | null;
  names: { first: string; second: string };
  settled: HandMark | undefined;
  settle: (rule: SettleRule) => void;
}

/** Equal answers with what each of the two gave: each value is a button that takes it. */
function Differing({ sitting, answers: { text, pairs }, response, names, settled, settle }: DifferingProps) {
  const [pair] = pairs;
  if (!pair) return null;
  const question = sitting.questions.find(({ id }) => id === pair.questionId);
  const number = numbersOf(sitting.questions).get(pair.questionId) ?? '';
  const view = question && viewOf(question);
  const drawn = view?.drawn ?? false;
  const lettersOf = ({ lines }: MarkValues) =>
    question
      ? schemeOf(question)
          .flatMap((line, at) => (lines.includes(line.id) ? optionLetter(at) : []))
          .join(' ')
      : '';
  const mean = settledValues(pair, 'mean');
  const gave = (values: MarkValues) =>
    [points(values.points ?? 0), lettersOf(values)].filter(Boolean).join('  ');
  const said = (['first', 'second'] as const).flatMap((rule) => {
    const { comment, note } = pair[rule];
    return [comment && `${names[rule]}: “${comment}”`, note && `${names[rule]}, note: “${note}”`].filter(
      Boolean,
    );
  });
  const about = `question ${number}, ${text ? `“${text.slice(0, 60)}”` : 'not answered'}`;
  const pressed = (values: MarkValues) => settled !== undefined && settled.points === values.points;
  return (
    <li>
      <p className="keepLines">
        <strong>{number}</strong>&ensp;
        {pairs.length > 1 && <span className={styles.soft}>×{pairs.length}&ensp;</span>}
        {text ? !drawn && text : <span className={styles.soft}>not answered</span>}
      </p>
      {question && view && drawn && response && (
        <view.Show question={kindOf(question).forStudent(question, pair.attemptId)} response={response} />
      )}
      {said.map((words) => (
        <p key={words} className={styles.soft}>
          {words}
        </p>
      ))}
      <div className={styles.acts} role="group" aria-label={`Settle ${about}`}>
        {(
          [
            ['first', names.first, pair.first],
            ['second', names.second, pair.second],
            ['mean', 'Mean', mean],
          ] as const
        ).map(([rule, name, values]) => (
          <Button
            key={rule}
            size="compact-sm"
            aria-pressed={pressed(values)}
            variant={pressed(values) ? 'light' : 'default'}
            onClick={() => settle(rule)}
          >
            {name}:&ensp;<strong>{gave(values)}</strong>
          </Button>
        ))}
        <span className={styles.soft}>
          of {points(question?.points ?? 0)}
          {settled && `, settled at ${points(settled.points ?? 0)}`}
        </span>
      </div>
    </li>
  );
}
