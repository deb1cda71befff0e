import { useCallback, useEffect, useState } from 'react';
import { firstOpenStep, stepsOf } from '@/core/attempts/steps';
import type { HeldAttempt } from '@/store/sitTables';

/**
 * What of a paper is in front of the student, and the ways on: all of it, one question with its working at a time, or the last
 * look at all.
 *
 * @param initial as the attempt was when it was opened: it goes on where it was left
 * @param packet as it is now: taken over from another tab, it is another one
 * @param lookingAt told which question is in front, where they come one by one
 */
export function useSteps(
  initial: HeldAttempt,
  packet: HeldAttempt['packet'],
  lookingAt: (questionId: string | null) => void,
) {
  const { questions, oneByOne, noBack } = packet;
  const steps = stepsOf(questions);
  const [looking, setLooking] = useState(false);
  const [place, setPlace] = useState(() => firstOpenStep(steps, noBack ? (initial.passed ?? []) : []));

  // Where this paper was left: at the question, not at its beginning.
  useEffect(() => {
    const { leftAt: left, packet: begun } = initial;
    if (!left || begun.noBack || !begun.questions.some(({ id }) => id === left)) return;
    const at = stepsOf(begun.questions).findIndex((each) => each.some(({ id }) => id === left));
    if (begun.oneByOne && at >= 0) setPlace(at);
    requestAnimationFrame(() => goToQuestion(left));
  }, [initial]);

  const step = oneByOne ? (steps[place] ?? []) : questions;
  const shown = oneByOne && !looking ? (step[0]?.id ?? null) : null;
  useEffect(() => {
    if (oneByOne) lookingAt(shown);
  }, [oneByOne, shown, lookingAt]);

  const goTo = (id: string) => {
    setLooking(false);
    const at = steps.findIndex((each) => each.some((one) => one.id === id));
    if (oneByOne) setPlace(Math.max(0, at));
    requestAnimationFrame(() => goToQuestion(id));
  };
  return {
    step,
    place,
    count: steps.length,
    looking,
    goTo,
    back: () => goTo(steps[place - 1]?.[0]?.id ?? ''),
    next: () => {
      const following = steps[place + 1]?.[0];
      if (following) goTo(following.id);
      else setLooking(true);
    },
    look: useCallback(() => setLooking(true), []),
    goOn: useCallback(() => setLooking(false), []),
  };
}

/** Puts a question's first line below the bar, and the focus at its start. */
function goToQuestion(id: string): void {
  const section = document.getElementById(`question-${id}`);
  section?.querySelector<HTMLElement>('h2, h3')?.focus({ preventScroll: true });
  section?.scrollIntoView({ block: 'start' });
}
