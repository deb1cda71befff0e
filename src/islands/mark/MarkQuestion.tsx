import { useEffect, useMemo, useRef, useState } from 'react';
import type { Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/optionLetter';
import { groupComment } from '@/core/marking/groupMark';
import { leftToMark, nextToMark } from '@/core/marking/nextToMark';
import { likeOf } from '@/core/marking/piles/like';
import { sameAnswers, type SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import { withLineSwitched } from '@/core/marking/switchLine';
import {
  nothingTyped,
  pointStep,
  typePoints,
  type PointsFault,
  type TypedPoints,
} from '@/core/marking/typedPoints';
import { markAnswers, type MarkStep } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { actWhenRoom, say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { counted, points } from '@/words/format';
import { TwoColumns } from '@/ui/TwoColumns';
import { AnswerList } from './AnswerList';
import { MarkMargin } from './MarkMargin';
import { usePileActs } from './usePileActs';
import { hasNearAnswers, usePiles } from './usePiles';

interface MarkQuestionProps {
  sitting: SittingData;
  question: Question;
  number: string;
  /** The next question with answers that wait; null when there is none. */
  nextQuestion: { number: string; go: () => void } | null;
}

/** Digits further apart than this are not one number. */
const typingPauseMs = 1_500;

/** One question being marked: its answers, and its scheme in the margin. */
export function MarkQuestion({ sitting, question, number, nextQuestion }: MarkQuestionProps) {
  const piles = usePiles(sitting.sitting.id, question, sameAnswers(question, sitting.seats));
  const { entries } = piles;
  const groups = useMemo(() => entries.map(({ group }) => group), [entries]);
  const [currentId, setCurrentId] = useState(() => (nextToMark(groups, null) ?? groups[0])?.id ?? null);
  const [names, setNames] = useState(false);
  const typed = useRef<TypedPoints>(nothingTyped);
  const typedAt = useRef(0);
  // Until the marker has done something, the first that waits is where marking begins: piles come a moment after the answers.
  const [begun, setBegun] = useState(false);
  const startId = begun ? currentId : ((nextToMark(groups, null) ?? groups[0])?.id ?? null);
  const current = groups.find((group) => group.id === startId) ?? groups[0];

  // Held keys come faster than drawing: they act on where the marker is, not on what was last drawn.
  const at = useRef(current?.id ?? null);
  const hasBegun = useRef(false);
  useEffect(() => {
    // Not by what was drawn last: a key may have come since.
    if (!hasBegun.current) at.current = current?.id ?? null;
  }, [current]);

  // So do the answers that were given points, and are not drawn with them yet.
  const acted = useRef(new Map<string, Partial<SameAnswers>>());
  useEffect(() => acted.current.clear(), [sitting.marks]);
  const asActed = () =>
    acted.current.size === 0
      ? groups
      : groups.map((group) => {
          const by = acted.current.get(group.id);
          return by ? { ...group, ...by } : group;
        });

  /** From now on the marker is where the marker went. */
  const begin = (id: string) => {
    if (!hasBegun.current) setCurrentId(id);
    hasBegun.current = true;
    setBegun(true);
  };
  const goTo = (id: string) => {
    typed.current = nothingTyped;
    at.current = id;
    hasBegun.current = true;
    setBegun(true);
    setCurrentId(id);
  };
  /** What is marked together with these: themselves, or all of a pile that is marked as one. */
  const together = (group: SameAnswers): SameAnswers[] => {
    const pile = entries.find((entry) => entry.group.id === group.id)?.pile;
    return pile?.agreed ? pile.members : [group];
  };
  const countOf = (group: SameAnswers) =>
    together(group).reduce((sum, { answers }) => sum + answers.length, 0);
  const actedOn = (group: SameAnswers, by: (each: SameAnswers) => Partial<SameAnswers>) => {
    for (const each of together(group)) acted.current.set(each.id, by(each));
  };
  const keep = (group: SameAnswers, step: MarkStep, said: string, joins?: string) => {
    const attemptIds = together(group).flatMap(({ answers }) => answers.map(({ attemptId }) => attemptId));
    const place = { sittingId: sitting.sitting.id, questionId: question.id, attemptIds };
    const now = isoNow();
    void actWhenRoom(() => markAnswers(place, step, `Question ${number}: ${said}`, now, joins));
  };
  const give = (group: SameAnswers, worth: number | null) => {
    begin(group.id);
    actedOn(group, ({ answers }) =>
      worth === null
        ? { waiting: answers.length, points: null }
        : { waiting: 0, points: worth, aside: false, nearMiss: null },
    );
    const count = counted(countOf(group), 'answer');
    if (worth === null) keep(group, { points: null, lines: [] }, `points of ${count} cleared`);
    else
      keep(
        group,
        { points: worth, aside: false },
        `${points(worth)} of ${points(question.points)} for ${count}`,
        `points-${question.id}-${group.id}`,
      );
  };
  /** Gives the answers that wait what others like them have. */
  const takeLike = (id: string | null) => {
    const found = entries.find(({ group }) => group.id === id);
    const like = found && likeOf(found);
    if (!found || !like || acted.current.get(found.group.id)?.waiting === 0) return;
    const { attemptIds, lines, points: worth } = like;
    acted.current.set(found.group.id, { waiting: 0, aside: false });
    const place = { sittingId: sitting.sitting.id, questionId: question.id, attemptIds };
    const said = `Question ${number}: ${points(worth)} of ${points(question.points)} for ${counted(attemptIds.length, 'answer')}, like ${like.equal ? 'identical' : 'similar'} ones`;
    // A mark that was given since stays.
    const step: MarkStep = (before) => (before.points === null ? { points: worth, lines, aside: false } : {});
    void actWhenRoom(() => markAnswers(place, step, said, isoNow()));
  };
  const typePoint = (group: SameAnswers, key: string) => {
    // After a pause a new number begins.
    const now = performance.now();
    const goesOn = now - typedAt.current < typingPauseMs;
    typedAt.current = now;
    typed.current = typePoints(goesOn ? typed.current : nothingTyped, key, question.points);
    const { refused } = typed.current;
    if (refused) say(refusedWords(refused.why, refused.typed, question.points), true);
    else if (typed.current.points !== null) give(group, typed.current.points);
  };
  const switchLine = (group: SameAnswers, lineId: string) => {
    typed.current = nothingTyped;
    actedOn(group, () => ({ waiting: 0, aside: false, nearMiss: null }));
    const letter = optionLetter(schemeOf(question).findIndex((line) => line.id === lineId));
    const said = `line ${letter} switched for ${counted(countOf(group), 'answer')}`;
    keep(group, (_before, all) => withLineSwitched(question, all, lineId), said);
  };
  const setAside = (group: SameAnswers) => {
    actedOn(group, () => ({ aside: !group.aside }));
    keep(
      group,
      (_before, all) => ({ aside: !all.some((mark) => mark.aside) }),
      group.aside ? 'no longer set aside' : 'set aside',
    );
  };
  const goOn = (group: SameAnswers) => {
    if (group.blank && group.waiting > 0) give(group, 0);
    const next = nextToMark(asActed(), group.id);
    if (next) goTo(next.id);
    else nextQuestion?.go();
  };
  const step = (by: number) => {
    const next = groups[groups.findIndex((group) => group.id === at.current) + by];
    if (next) goTo(next.id);
  };

  /** The answers that have been on the screen: a pile is marked as one only once all of it has. */
  const seen = useRef(new Set<string>());
  const acts = usePileActs({ sitting, question, piles, at, seen, goTo });
  const entry = entries.find(({ group }) => group.id === current?.id);

  const onKey = (key: string, shift: boolean): boolean => {
    const here = asActed().find((group) => group.id === at.current) ?? current;
    if (!here) return false;
    begin(here.id);
    if (hasNearAnswers(question) && acts.onKey(key, shift)) return true;
    const line = schemeOf(question)[key.toUpperCase().charCodeAt(0) - 65];
    if (/^[\p{Nd}.,٫．，]$/u.test(key)) typePoint(here, key);
    else if (/^[a-z]$/i.test(key) && line) switchLine(here, line.id);
    else if (key === '=') takeLike(here.id);
    else if (key === 'Enter') goOn(here);
    else if (key === 'ArrowDown') step(1);
    else if (key === 'ArrowUp') step(-1);
    else if (key === ' ') setAside(here);
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
          like={entry ? likeOf(entry) : null}
          takeLike={() => takeLike(current?.id ?? null)}
          markedTogether={current ? countOf(current) : 0}
          piles={hasNearAnswers(question) && entry ? { piles, entry, acts } : null}
        />
      }
    >
      <AnswerList
        question={question}
        entries={entries}
        current={current}
        names={names ? sitting.seats : null}
        seen={(ids) => ids.forEach((id) => seen.current.add(id))}
        enterDoes={current ? enterWords(current, groups, nextQuestion?.number ?? null) : ''}
        goTo={goTo}
        onKey={onKey}
        comment={(group, comment) =>
          keep(
            group,
            // A comment that a single student has stays that student's.
            (before, all) => (before.comment === groupComment(all) ? { comment } : {}),
            'comment',
            `comment-${question.id}-${group.id}`,
          )
        }
      />
    </TwoColumns>
  );
}

/** Why points were not given, in words. */
export function refusedWords(why: PointsFault['why'], typed: string, max: number): string {
  return why === 'aboveMaximum'
    ? `${typed} was not taken: at most ${points(max)} ${max === 1 ? 'point' : 'points'} can be given here`
    : `${typed} was not taken: points are given in steps of ${points(pointStep)}`;
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
      ? `goes to the next one, ${left} left`
      : next.nearMiss && !next.aside
        ? 'goes to one put forward'
        : 'goes to one set aside'
    : nextQuestion === null
      ? 'stays here: nothing else is waiting'
      : `goes to question ${nextQuestion}`;
  return blank ? `gives ${counted(current.answers.length, 'blank answer')} 0 points and ${going}` : going;
}
