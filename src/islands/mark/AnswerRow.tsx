import { memo, useSyncExternalStore, type ReactNode } from 'react';
import type { Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/optionLetter';
import { fullName } from '@/core/model/names';
import { groupComment, groupLines } from '@/core/marking/groupMark';
import { differences } from '@/core/marking/near/differences';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { LikeMark } from '@/core/marking/piles/like';
import { marksOf, type SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import type { Seat } from '@/core/seats/seats';
import { awardGlyph } from '@/ui/awardGlyph';
import type { WorkMark } from '@/core/model/workMark';
import { FillGlyph } from '@/ui/FillGlyph';
import MarkedText from '@/ui/plain/MarkedText';
import { points } from '@/words/format';
import { viewOf } from '../kinds';
import { Answer } from './Answer';
import { OnPaper } from './OnPaperAnswer';
import { pileWords } from './PileBlock';
import type { ActedAnswers } from './useActed';
import styles from './mark.module.css';

interface AnswerRowProps {
  question: Question;
  entry: AnswerEntry;
  index: number;
  current: boolean;
  names: Seat[] | null;
  /** True while the page itself moves the focus: that is no choice of the marker's. */
  focusing: { readonly current: boolean };
  choose: (id: string) => void;
  /** What is put forward for those that wait, in words. */
  forward: string | null;
  /** Whether that is by its parts. */
  byParts: boolean;
  /** Answers that were given points which are not drawn yet. */
  acted: ActedAnswers;
  /** What stands below the answers that the marker is at. */
  children: ReactNode;
}

/** The comment that all of equal answers have. */
export const commentOfAll = (group: SameAnswers): string =>
  groupComment(group.answers.map(({ mark }) => mark ?? { at: '', comment: '' }));

/** What a marker marked in the wording of equal answers. */
export const workOn = (group: SameAnswers): readonly WorkMark[] =>
  group.answers.find(({ mark, text }) => mark?.work && text === group.text)?.mark?.work ?? nothing;
const nothing: readonly WorkMark[] = [];

/**
 * Equal answers as one row: how many, what they say, and what they have. It is drawn anew only where one of these changes, not
 * whenever another answer is marked or gone to.
 */
export const AnswerRow = memo(function AnswerRow({
  question,
  entry,
  index,
  current,
  names,
  focusing,
  choose,
  forward,
  byParts,
  acted,
  children,
}: AnswerRowProps) {
  const { group, pile, heads, fits } = entry;
  const kept = commentOfAll(group);
  const own = group.answers.flatMap(({ mark }) =>
    mark && mark.comment && mark.comment !== kept ? [mark] : [],
  );
  return (
    <div
      className={`${current ? styles.currentRow : styles.row} ${pile ? (pile.agreed ? styles.piled : styles.putForward) : fits ? styles.putForward : ''}`}
    >
      {pile && heads && (
        <p className={styles.pileHead}>
          {pile.name && <strong>{pile.name}: </strong>}
          {pileWords(pile)}
        </p>
      )}
      {fits && (
        <p className={styles.pileHead}>fits the pile above{fits.name && ` (${fits.name})`}, not in it</p>
      )}
      <div
        className={styles.answer}
        data-row={index}
        role="button"
        tabIndex={current ? 0 : -1}
        aria-current={current ? 'true' : undefined}
        onClick={() => choose(group.id)}
        onFocus={() => !current && !focusing.current && choose(group.id)}
        onKeyDown={() => undefined}
      >
        <span className={styles.count}>{group.answers.length > 1 ? `×${group.answers.length}` : ''}</span>
        <span className={group.blank ? styles.blank : 'keepLines'}>
          <AnswerText question={question} entry={entry} current={current} marked={workOn(group)} />
          {names && <span className={styles.names}>{namesOf(group, names)}</span>}
          {!current && kept && <span className={styles.comment}>{kept}</span>}
          {own.map((mark) => (
            <span key={mark.attemptId} className={styles.comment}>
              Mark one separately: {mark.comment}
            </span>
          ))}
        </span>
        <span className={styles.state}>
          {(pile ?? fits) && (
            <span className="visuallyHidden">
              {pile ? `Pile of ${pileWords(pile)}. ` : 'Fits the pile above. '}
            </span>
          )}
          <PointsState question={question} group={group} forward={forward} byParts={byParts} acted={acted} />
        </span>
      </div>
      {children}
    </div>
  );
});

type PointsStateProps = Pick<AnswerRowProps, 'question' | 'forward' | 'byParts' | 'acted'> & {
  group: SameAnswers;
};

/** What equal answers have. Points that were given show at once, whatever else has to be worked out before the rest is drawn. */
function PointsState({ question, group, forward, byParts, acted }: PointsStateProps) {
  const given = useSyncExternalStore(acted.subscribe, () => acted.pointsOf(group));
  const [first] = group.answers;
  if (typeof given === 'number')
    return (
      <>
        {first && (
          <FillGlyph
            {...awardGlyph({ ...first.award, points: given, nearMiss: null })}
            waiting={false}
            size={16}
            label=""
          />
        )}
        {ofMax(given, question)}
      </>
    );
  return (
    <>
      {first && <FillGlyph {...awardGlyph(first.award)} waiting={group.waiting > 0} size={16} label="" />}
      {pointsSoFar(group, question)}
      {forward !== null && (
        <>
          <span className="visuallyHidden">. Put forward{byParts && ' by its parts'}: </span>
          {`  ${byParts ? '' : 'like '}${forward}?`}
        </>
      )}
    </>
  );
}

interface AnswerTextProps {
  question: Question;
  entry: AnswerEntry;
  current: boolean;
  /** What a marker marked in it. */
  marked: readonly WorkMark[];
}

/** What equal answers say, within their row; of the current one the rest is shown below. */
function AnswerText({ question, entry: { group, pile, heads }, current, marked }: AnswerTextProps) {
  const pictures = group.answers[0]?.pictures ?? [];
  if (group.onPaper) return <OnPaper group={group} current={current} />;
  if (group.blank) return `not answered${pictures.length > 0 ? ': no ink on paper' : ''}`;
  if (viewOf(question).drawn)
    return current ? (
      <span className={styles.hint}>{group.text.replaceAll('\n', ', ')}</span>
    ) : (
      <Seen said={group.text}>
        <Answer question={question} group={group} small />
      </Seen>
    );
  if (pile && !heads && !current)
    return (
      <Seen said={group.text}>
        <Differing from={pile.members[0]?.text ?? ''} to={group.text} />
      </Seen>
    );
  return marked.length > 0 ? <MarkedText text={group.text} work={marked} /> : group.text;
}

/** What is looked at, and what is said in its place: a picture, or words of which some are struck out. */
function Seen({ said, children }: { said: string; children: ReactNode }) {
  return (
    <>
      <span className="visuallyHidden">{said}</span>
      <span aria-hidden>{children}</span>
    </>
  );
}

/** A wording beside the commonest one of its pile: what differs stands out. */
function Differing({ from, to }: { from: string; to: string }) {
  return differences(from, to).map(({ text, is }, index) =>
    is === 'same' ? (
      <span key={index} className={styles.alike}>
        {text}
      </span>
    ) : is === 'putIn' ? (
      <mark key={index} className={styles.putIn}>
        {text}
      </mark>
    ) : (
      <del key={index} className={styles.leftOut}>
        {text}
      </del>
    ),
  );
}

const ofMax = (worth: number, question: Question) => `${points(worth)} / ${points(question.points)}`;

/** "2 / 3  A C": points and scheme lines, or what is missing. */
function pointsSoFar(group: SameAnswers, question: Question): string {
  const lines = groupLines(group.answers.flatMap(({ mark }) => mark ?? []));
  const letters = schemeOf(question).flatMap((line, index) =>
    lines.includes(line.id) ? optionLetter(index) : [],
  );
  const parts: string[] = [];
  if (group.uneven) parts.push(unevenWords(group, question));
  else if (group.points === null)
    parts.push(
      group.answers.some(({ award }) => award.state === 'notRead')
        ? 'not read yet'
        : group.waiting > 0
          ? 'waits'
          : 'no key yet',
    );
  else parts.push(ofMax(group.points, question));
  if (letters.length > 0) parts.push(letters.join(' '));
  if (group.answers.some((answer) => answer.award.state === 'overridden')) parts.push('overridden');
  if (group.nearMiss) parts.push(`close to “${group.nearMiss.text}”`);
  const marks = marksOf(group);
  const by = marks.find(({ adjustment }) => adjustment)?.adjustment?.points;
  if (by !== undefined) parts.push(`${by > 0 ? '+' : '−'}${points(Math.abs(by))} adjusted`);
  if (marks.some(({ note }) => note)) parts.push('note');
  if (group.aside) parts.push('aside');
  return parts.join('  ');
}

/** "2 have 1, 1 has 0 of 3, 1 waits": each value that equal answers have. */
function unevenWords(group: SameAnswers, question: Question): string {
  const counts = new Map<number | null, number>();
  for (const { award } of group.answers) counts.set(award.points, (counts.get(award.points) ?? 0) + 1);
  const given = [...counts].filter(([worth]) => worth !== null).sort(([a], [b]) => Number(b) - Number(a));
  const waiting = counts.get(null) ?? 0;
  return [
    ...given.map(([worth, count]) => `${count} ${count === 1 ? 'has' : 'have'} ${points(worth ?? 0)}`),
    ...(waiting > 0 ? [`${waiting} ${waiting === 1 ? 'waits' : 'wait'}`] : []),
  ]
    .join(', ')
    .concat(` / ${points(question.points)}`);
}

function namesOf(group: SameAnswers, seats: Seat[]): string {
  const ids = new Set(group.answers.map((answer) => answer.studentId));
  return seats
    .filter((seat) => ids.has(seat.student.id))
    .map((seat) => fullName(seat.student))
    .join(', ');
}

/** "2", "2 A C": what is put forward. */
export function givenWords({ points: worth, lines }: LikeMark, question: Question): string {
  const letters = schemeOf(question).flatMap((line, index) =>
    lines.includes(line.id) ? optionLetter(index) : [],
  );
  return [points(worth), ...letters].join(' ');
}
