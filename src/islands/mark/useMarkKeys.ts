import type { Question } from '@/core/kinds';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import { say } from '@/desk/act';
import { adjustId } from './AdjustBlock';
import { refusedWords } from './markWords';
import { isPointKey, useKeyedPoints } from './useKeyedPoints';
import type { MarkActs } from './useMarkActs';
import type { useMarkPosition } from './useMarkPosition';
import type { useOnScreen } from './useOnScreen';
import type { usePileActs } from './usePileActs';
import { hasNearAnswers } from './usePiles';

interface MarkKeysProps {
  question: Question;
  acts: MarkActs;
  pileActs: ReturnType<typeof usePileActs>;
  screen: ReturnType<typeof useOnScreen>;
  /** The rows that are there to go through. */
  shown: readonly AnswerEntry[];
  current: SameAnswers | undefined;
  at: ReturnType<typeof useMarkPosition>['at'];
  /** What function keys turn on and off. */
  switches: ReadonlyMap<string, () => void>;
  /** Whether points go on to the next answer by themselves. */
  goesOn: boolean;
  begin: (id: string) => void;
  goTo: (id: string, to?: 'auto' | 'start') => void;
  goOn: (from: SameAnswers) => void;
  takeOnScreen: () => void;
  worked: () => void;
}

/** What the keys do in Mark. @returns whether a key was one of them */
export function useMarkKeys(props: MarkKeysProps) {
  const { question, acts, pileActs, current, at, switches, begin, worked } = props;
  const keyed = useKeyedPoints();
  const typePoint = (here: SameAnswers, key: string, pressedAt: number) => {
    const { typed, on, moves } = keyed.type(key, here.id, question, props.goesOn, pressedAt);
    const { refused, points: worth } = typed;
    if (refused) say(refusedWords(refused.why, refused.typed, question), true);
    else if (worth !== null) acts.give(acts.asActed().find(({ id }) => id === on) ?? here, worth);
    if (moves) props.goOn(here);
  };
  return (key: string, shift: boolean, pressedAt: number): boolean => {
    const turn = switches.get(key);
    if (turn) {
      turn();
      return true;
    }
    const here = acts.asActed().find((group) => group.id === at.current) ?? current;
    if (!here) return false;
    begin(here.id);
    worked();
    if (hasNearAnswers(question) && !here.onPaper && pileActs.onKey(key, shift)) return true;
    if (isPointKey(key)) {
      typePoint(here, key, pressedAt);
      return true;
    }
    keyed.forget();
    return moved(props, key) || changed(props, here, key, shift);
  };
}

/** Keys that go from answer to answer. */
function moved({ at, shown, screen, goTo }: MarkKeysProps, key: string): boolean {
  const step = (by: number) => {
    const next = shown[shown.findIndex(({ group }) => group.id === at.current) + by];
    if (next) goTo(next.group.id);
  };

  const page = (by: 1 | -1) => {
    const ids = screen.rows.current();
    const edge = by === 1 ? ids.at(-1) : ids[0];
    const index = shown.findIndex(({ group }) => group.id === edge);
    const next = shown[Math.max(0, by === 1 ? index + 1 : index - ids.length)];
    if (next) goTo(next.group.id, 'start');
  };

  if (key === 'ArrowDown') step(1);
  else if (key === 'ArrowUp') step(-1);
  else if (key === 'PageDown') page(1);
  else if (key === 'PageUp') page(-1);
  else return false;
  return true;
}

/** Keys that do something to the answer one is at. */
function changed(props: MarkKeysProps, here: SameAnswers, key: string, shift: boolean): boolean {
  const { question, acts, goesOn, goOn, takeOnScreen } = props;
  const enter = (group: SameAnswers) => {
    if (group.blank && group.waiting > 0) acts.give(group, 0);
    goOn(group);
  };
  const line = schemeOf(question)[key.toUpperCase().charCodeAt(0) - 65];
  if (/^[a-z]$/i.test(key) && line) {
    acts.switchLine(here, line.id);
    if (shift) goOn(here);
  } else if (key === '*') {
    acts.give(here, question.points);
    if (goesOn) goOn(here);
  } else if (key === '+' || key === '-') {
    // The sign itself goes into the field.
    document.getElementById(adjustId)?.focus();
    return false;
  } else if (key === '=') {
    if (acts.takeLike([here.id]) && goesOn) goOn(here);
  } else if (key === 'Enter') enter(here);
  else if (key === ' ' && shift) takeOnScreen();
  else if (key === ' ') acts.setAside(here);
  else if (key === 'Backspace' || key === 'Delete') acts.give(here, null);
  else return false;
  return true;
}
