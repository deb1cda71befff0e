import { useRef } from 'react';
import { keyPoints, nothingKeyed, type KeyedStep } from '@/core/marking/keyedPoints';
import type { PointRule } from '@/core/marking/typedPoints';

/** Digits further apart than this are not one number. */
const typingPauseMs = 1_500;

/** Whether a key belongs to a number of points. */
export const isPointKey = (key: string): boolean => /^[\p{Nd}.,٫．，/]$/u.test(key);

/** Points typed by single keys, with the pause after which a new number begins. */
export function useKeyedPoints() {
  const state = useRef({ keyed: nothingKeyed, at: 0 });
  /**
   * @param on the answers the marker is at
   * @param pressedAt when the key was pressed, ms: a busy page hears of it later
   */
  const type = (key: string, on: string, rule: PointRule, goesOn: boolean, pressedAt: number): KeyedStep => {
    const { keyed, at } = state.current;
    const step = keyPoints(pressedAt - at < typingPauseMs ? keyed : nothingKeyed, key, on, rule, goesOn);
    state.current = { keyed: step, at: pressedAt };
    return step;
  };
  /** Another key came: the number is over. */
  const forget = () => {
    state.current = { keyed: nothingKeyed, at: 0 };
  };
  return { type, forget };
}
