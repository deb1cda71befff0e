import { useCallback, useEffect, useRef, useState } from 'react';
import type { AttemptStatus, Carrier, HandOverRequest } from '@/carriers/Carrier';
import type { Response } from '@/core/kinds';
import type { Answers } from '@/core/model/sitting';
import type { PracticeAct } from '@/core/running/practice';
import type { HeldAttempt } from '@/store/sitTables';
import { handOverFiles } from './studentFiles';
import { forgetHeld, holdAttempt, keepHeld, tabId } from './heldAttempts';
import { useNoticed } from './useNoticed';

/** How long after the last key answers are handed over, and how often a sign of life is given. */
const handOverMs = 400;
const signOfLifeMs = 4_000;

/** How often this tab has handed something over. */
let sequence = 0;

/** Where what was typed is: handed over, on its way, or on this device only. */
export type Keeping = { state: 'kept'; at: number } | { state: 'keeping' } | { state: 'onDevice' };

/** The clock that rules, as it was read last, by this device's steady clock: moving the device's clock changes nothing. */
interface Reading {
  now: number;
  steady: number;
}

/**
 * An attempt under way. Every change is kept in the student's database first, then handed over through the
 * carrier; what could not be handed over is tried again with the next sign of life.
 */
export function useAttempt(carrier: Carrier, initial: HeldAttempt) {
  const [held, setHeld] = useState(initial);
  const [status, setStatus] = useState<AttemptStatus | null>(null);
  const [refused, setRefused] = useState<string[]>([]);
  const [keeping, setKeeping] = useState<Keeping>({ state: 'keeping' });
  const reading = useRef<Reading | null>(null);
  const latest = useRef(initial);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);

  const take = useCallback((next: AttemptStatus | null) => {
    if (!next) return;
    setStatus(next);
    reading.current = { now: next.now, steady: performance.now() };
    if (next.state !== 'working') void forgetHeld(next.attemptId);
  }, []);

  const noticed = useNoticed();
  const handOver = useCallback(async () => {
    const { joinCode, attemptId, answers, unsent, comeBack, passed } = latest.current;
    const sent: Answers = {};
    for (const id of unsent) {
      const answer = answers[id];
      if (answer) sent[id] = answer;
    }
    const seen = noticed.collect();
    sequence += 1;
    const request: HandOverRequest = {
      answers: sent,
      comeBack,
      tabId,
      sequence,
      ...seen.request,
    };
    if (passed && passed.length > 0) request.passed = passed;
    try {
      const files = await handOverFiles(carrier, joinCode, attemptId);
      // Only those that an answer still names: one that was taken out again needs no word.
      const named = JSON.stringify(answers);
      const names = files.filter(({ id }) => named.includes(id)).map(({ name }) => name);
      setRefused((before) => (before.join() === names.join() ? before : names));
      const reply = await carrier.handOver(joinCode, attemptId, request);
      // Not known there, or no longer: nothing was taken, and what is here stays.
      if (!reply) throw new Error('The attempt is not known');
      take(reply);
      // The very answer that was sent: what was typed in the same millisecond after it is another one.
      const left = latest.current.unsent.filter((id) => latest.current.answers[id] !== sent[id]);
      latest.current = { ...latest.current, unsent: left };
      if (reply.state === 'working' && !reply.elsewhere) void keepHeld(latest.current);
      setKeeping(left.length === 0 ? { state: 'kept', at: Date.now() } : { state: 'keeping' });
    } catch {
      seen.putBack();
      setKeeping({ state: 'onDevice' });
    }
  }, [carrier, take, noticed]);

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

  /** Done with these questions: where there is no way back, they cannot be changed from now on. */
  const pass = useCallback(
    (questionIds: readonly string[]) => {
      const current = latest.current;
      change({ ...current, passed: [...new Set([...(current.passed ?? []), ...questionIds])] });
    },
    [change],
  );

  /** One act of practice; false when the desk did not answer. */
  const practise = useCallback(
    async (questionId: string, doing: PracticeAct): Promise<boolean> => {
      const { joinCode, attemptId } = latest.current;
      try {
        const reply = await carrier.practise(joinCode, attemptId, questionId, doing);
        const { packet } = latest.current;
        if (!reply || !packet.practice) return true;
        const views = { ...packet.practice.views, [questionId]: reply.view };
        latest.current = {
          ...latest.current,
          packet: { ...packet, practice: { ...packet.practice, views } },
        };
        setHeld(latest.current);
        void keepHeld(latest.current);
        take(reply.status);
        return true;
      } catch {
        setKeeping({ state: 'onDevice' });
        return false;
      }
    },
    [carrier, take],
  );

  /** Goes on in this tab with what another one had. */
  const takeOver = useCallback(async () => {
    const { joinCode, sittingId } = latest.current;
    try {
      const reply = await carrier.start(joinCode, sittingId, '', tabId);
      if (reply.outcome !== 'started') return;
      latest.current = await holdAttempt(joinCode, reply.packet);
      setHeld(latest.current);
      take(reply.status);
    } catch {
      setKeeping({ state: 'onDevice' });
    }
  }, [carrier, take]);

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

  /** What the clock that rules says now, ms since 1970. */
  const rulingNow = useCallback(() => {
    const last = reading.current;
    return last ? last.now + performance.now() - last.steady : Date.now();
  }, []);

  return {
    held,
    status,
    keeping,
    refused,
    rulingNow,
    respond,
    toggleComeBack,
    pass,
    practise,
    takeOver,
    handIn,
    lookingAt: noticed.lookingAt,
  };
}
