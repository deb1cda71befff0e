import { useEffect, useMemo } from 'react';
import { sum } from 'remeda';
import type { HandOverRequest, Noticed as NoticedEvent } from '@/carriers/Carrier';

type Kind = NoticedEvent['kind'];

/**
 * What this side notices while a student works: that the page was left and come back to, and for how long each question
 * was in front of the student. Counted by the device's steady clock, so that moving its clock changes nothing.
 */
export function useNoticed(): Noticed {
  const noticed = useMemo(makeNoticed, []);
  useEffect(() => {
    const seen = () => noticed.notice(document.visibilityState === 'hidden' ? 'left' : 'returned');
    const gone = () => noticed.notice('left');
    // Before the hand-over that the same event sets off: listeners run in the order in which they were added.
    document.addEventListener('visibilitychange', seen, { capture: true });
    window.addEventListener('pagehide', gone, { capture: true });
    return () => {
      document.removeEventListener('visibilitychange', seen, { capture: true });
      window.removeEventListener('pagehide', gone, { capture: true });
    };
  }, [noticed]);
  return noticed;
}

/** A tab that lies for hours with the desk away does not pile up more than this. */
const mostNoticed = 400;

/** Time at questions goes along with what else there is to tell; alone, when it is so much. */
const timeToTellMs = 60_000;

export type Noticed = ReturnType<typeof makeNoticed>;

function makeNoticed() {
  let events: { kind: Kind; steady: number }[] = [];
  let timeOnMs: Record<string, number> = {};
  let current: string | null = null;
  let since = performance.now();
  let away = false;

  const count = () => {
    const now = performance.now();
    if (current !== null && !away) timeOnMs[current] = (timeOnMs[current] ?? 0) + now - since;
    since = now;
  };
  return {
    notice(kind: Kind) {
      if (away === (kind === 'left')) return;
      count();
      away = kind === 'left';
      if (events.length < mostNoticed) events.push({ kind, steady: performance.now() });
    },
    /** The question that is in front of the student from now on. */
    lookingAt(questionId: string | null) {
      if (questionId === current) return;
      count();
      current = questionId;
    },
    /** Whether there is something to tell: of time alone, once it is a minute. */
    hasNews(): boolean {
      count();
      return events.length > 0 || sum(Object.values(timeOnMs)) >= timeToTellMs;
    },
    /** What has not been told yet; to be put back where it could not be. */
    collect(): { request: Pick<HandOverRequest, 'noticed' | 'timeOnMs'>; putBack: () => void } {
      count();
      const [told, time] = [events, timeOnMs];
      events = [];
      timeOnMs = {};
      const now = performance.now();
      const request: Pick<HandOverRequest, 'noticed' | 'timeOnMs'> = {};
      if (told.length > 0)
        request.noticed = told.map(({ kind, steady }) => ({ kind, agoMs: Math.max(0, now - steady) }));
      if (Object.keys(time).length > 0) request.timeOnMs = time;
      const putBack = () => {
        events = [...told, ...events].slice(0, mostNoticed);
        for (const [id, ms] of Object.entries(time)) timeOnMs[id] = (timeOnMs[id] ?? 0) + ms;
      };
      return { request, putBack };
    },
  };
}
