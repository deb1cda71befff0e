import { useCallback, useEffect, useRef, useState } from 'react';
import type { AttemptStatus, Carrier } from '@/carriers/Carrier';
import type { Response } from '@/core/kinds';
import type { Answers } from '@/core/model/sitting';
import type { HeldAttempt } from '@/store/sitTables';
import { handOverFiles } from './studentFiles';
import { forgetHeld, keepHeld } from './heldAttempts';

/** How long after the last key answers are handed over, and how often a sign of life is given. */
const handOverMs = 400;
const signOfLifeMs = 4_000;

/** Where what was typed is: handed over, on its way, or on this device only. */
export type Keeping = { state: 'kept'; at: number } | { state: 'keeping' } | { state: 'onDevice' };

/**
 * An attempt under way. Every change is kept in the student's database first, then handed over through the
 * carrier; what could not be handed over is tried again with the next sign of life.
 */
export function useAttempt(carrier: Carrier, initial: HeldAttempt) {
  const [held, setHeld] = useState(initial);
  const [status, setStatus] = useState<AttemptStatus | null>(null);
  const [refused, setRefused] = useState<string[]>([]);
  const [keeping, setKeeping] = useState<Keeping>({ state: 'keeping' });
  // By how much the clock that rules is ahead of this device's.
  const [aheadMs, setAheadMs] = useState(0);
  const latest = useRef(initial);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);

  const take = useCallback((next: AttemptStatus | null) => {
    if (!next) return;
    setStatus(next);
    setAheadMs(next.now - Date.now());
    if (next.state !== 'working') void forgetHeld(next.attemptId);
  }, []);

  const handOver = useCallback(async () => {
    const { joinCode, attemptId, answers, unsent, comeBack } = latest.current;
    const sent: Answers = {};
    for (const id of unsent) {
      const answer = answers[id];
      if (answer) sent[id] = answer;
    }
    try {
      const files = await handOverFiles(carrier, joinCode, attemptId);
      // Only those that an answer still names: one that was taken out again needs no word.
      const named = JSON.stringify(answers);
      const names = files.filter(({ id }) => named.includes(id)).map(({ name }) => name);
      setRefused((before) => (before.join() === names.join() ? before : names));
      take(await carrier.handOver(joinCode, attemptId, { answers: sent, comeBack }));
      const left = latest.current.unsent.filter((id) => latest.current.answers[id]?.at !== sent[id]?.at);
      latest.current = { ...latest.current, unsent: left };
      setKeeping(left.length === 0 ? { state: 'kept', at: Date.now() } : { state: 'keeping' });
    } catch {
      setKeeping({ state: 'onDevice' });
    }
  }, [carrier, take]);

  const change = useCallback(
    (next: HeldAttempt) => {
      latest.current = next;
      setHeld(next);
      setKeeping({ state: 'keeping' });
      void keepHeld(next);
      if (timer.current) clearTimeout(timer.current);
      timer.current = setTimeout(() => void handOver(), handOverMs);
    },
    [handOver],
  );

  useEffect(() => {
    void handOver();
    const life = setInterval(() => void handOver(), signOfLifeMs);
    const leaving = () => void handOver();
    document.addEventListener('visibilitychange', leaving);
    window.addEventListener('pagehide', leaving);
    return () => {
      clearInterval(life);
      if (timer.current) clearTimeout(timer.current);
      document.removeEventListener('visibilitychange', leaving);
      window.removeEventListener('pagehide', leaving);
    };
  }, [handOver]);

  const respond = useCallback(
    (questionId: string, response: Response) => {
      const current = latest.current;
      const at = new Date().toISOString();
      change({
        ...current,
        answers: { ...current.answers, [questionId]: { response, at } },
        unsent: [...new Set([...current.unsent, questionId])],
      });
    },
    [change],
  );

  const toggleComeBack = useCallback(
    (questionId: string) => {
      const current = latest.current;
      const marked = current.comeBack.includes(questionId);
      const comeBack = marked
        ? current.comeBack.filter((id) => id !== questionId)
        : [...current.comeBack, questionId];
      change({ ...current, comeBack });
    },
    [change],
  );

  const handIn = useCallback(async (): Promise<boolean> => {
    if (timer.current) clearTimeout(timer.current);
    await handOver();
    if (latest.current.unsent.length > 0) return false;
    try {
      take(await carrier.handIn(latest.current.joinCode, latest.current.attemptId));
      return true;
    } catch {
      setKeeping({ state: 'onDevice' });
      return false;
    }
  }, [carrier, handOver, take]);

  return { held, status, keeping, refused, aheadMs, respond, toggleComeBack, handIn };
}
