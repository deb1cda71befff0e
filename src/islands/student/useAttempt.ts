import { useCallback, useEffect, useRef, useState } from 'react';
import type { AttemptStatus, Carrier, HandOverRequest } from '@/carriers/Carrier';
import type { Response } from '@/core/kinds';
import type { Answer } from '@/core/model/sitting';
import type { PracticeAct } from '@/core/attempts/practice';
import type { HeldAttempt } from '@/store/sitTables';
import { acknowledged, outgoing, typed } from '@/core/exchange/held';
import { handOverFiles } from './studentFiles';
import { forgetHeld, hasUnsent, holdAttempt, keepHeld, memory, tabId } from './heldAttempts';
import { useNoticed } from './useNoticed';

/** How long after the last key answers are handed over, and how often a sign of life is given. */
const handOverMs = 400;
const signOfLifeMs = 4_000;

const marksOf = ({ comeBack, passed }: HeldAttempt) => JSON.stringify([comeBack, passed ?? []]);

/** How often this tab has handed something over. */
let sequence = 0;

/** Where what was typed is: handed over, on its way, on this device only, or, where that has no room, on this page only. */
export type SaveState =
  { state: 'kept'; at: number } | { state: 'keeping' } | { state: 'onDevice' } | { state: 'onPage' };

/** The clock that rules, as it was read last, by this device's steady clock: moving the device's clock changes nothing. */
interface Reading {
  now: number;
  steady: number;
}

/**
 * An attempt under way. Every change is kept in the student's database first, then handed over through the
 * carrier; what could not be handed over is tried again with the next sign of life.
 *
 * @param opened whether the other side knows that it goes on here; where nobody answered it is told as soon as it does
 */
export function useAttempt(carrier: Carrier, initial: HeldAttempt, opened = true) {
  const [held, setHeld] = useState(initial);
  const [status, setStatus] = useState<AttemptStatus | null>(null);
  const [refused, setRefused] = useState<string[]>([]);
  const [keeping, setKeeping] = useState<SaveState>({ state: 'keeping' });
  /** Whether this device had room for what is held. */
  const stored = useRef(true);
  const reading = useRef<Reading | null>(null);
  const latest = useRef(initial);
  const claimed = useRef(opened);
  /** The marks to come back and the questions done with, as they were told last. */
  const told = useRef('');
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);

  const take = useCallback((next: AttemptStatus | null) => {
    if (!next) return;
    setStatus(next);
    reading.current = { now: next.now, steady: performance.now() };
    latest.current = {
      ...latest.current,
      clock: { deadline: next.deadline, aheadMs: next.now - Date.now() },
    };
    if (next.state !== 'working' && !hasUnsent(latest.current)) void forgetHeld(next.attemptId);
  }, []);

  const store = useCallback(async () => {
    const kept = await keepHeld(latest.current);
    stored.current = kept !== null;
    // What another page of this device had in hand goes from here as well.
    if (kept && kept.apart.length > latest.current.apart.length)
      latest.current = { ...latest.current, apart: kept.apart };
  }, []);
  const away = useCallback(() => setKeeping({ state: stored.current ? 'onDevice' : 'onPage' }), []);

  const noticed = useNoticed();
  /** Goes on in this tab with what another one had. */
  const claim = useCallback(async () => {
    const { joinCode, sittingId, who } = latest.current;
    const reply = await carrier.start(joinCode, sittingId, '', tabId);
    claimed.current = true;
    if (reply.outcome !== 'started') return;
    const greeting = who ?? { joinCode, familyName: '', givenName: '', groups: [] };
    latest.current = await holdAttempt(greeting, reply.packet);
    setHeld(latest.current);
    take(reply.status);
  }, [carrier, take]);

  const handOver = useCallback(async () => {
    if (!claimed.current)
      try {
        await claim();
      } catch {
        away();
        return false;
      }
    const { joinCode, attemptId, answers, comeBack, passed } = latest.current;
    const sent = outgoing(latest.current);
    const seen = noticed.collect();
    sequence += 1;
    const marks = marksOf(latest.current);
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
      told.current = marks;
      latest.current = acknowledged(latest.current, sent, reply.became, reply.choices, memory);
      setHeld(latest.current);
      take(reply);
      const over = reply.state !== 'working';
      if (hasUnsent(latest.current) || (!over && !reply.elsewhere)) await store();
      setKeeping(hasUnsent(latest.current) ? { state: 'keeping' } : { state: 'kept', at: Date.now() });
      return Object.keys(reply.became).length > 0 && latest.current.apart.length > 0;
    } catch {
      seen.putBack();
      // What could not be stored is tried again: there may be room by now.
      if (!stored.current) await store();
      away();
      return false;
    }
  }, [carrier, take, claim, noticed, store, away]);

  /** Hands over what there is; where there is nothing, says that the student is here, and hears how the attempt stands. */
  const signOfLife = useCallback(async () => {
    const { joinCode, attemptId } = latest.current;
    const nothing =
      claimed.current &&
      !hasUnsent(latest.current) &&
      !noticed.hasNews() &&
      marksOf(latest.current) === told.current;
    if (!nothing) return handOver();
    try {
      const reply = await carrier.present(joinCode, attemptId, tabId);
      if (!reply) throw new Error('The attempt is not known');
      // An answer from another device of the same student may count by now.
      latest.current = acknowledged(latest.current, {}, {}, reply.choices, memory);
      setHeld(latest.current);
      take(reply);
      setKeeping({ state: 'kept', at: Date.now() });
    } catch {
      away();
    }
    return false;
  }, [carrier, take, noticed, handOver, away]);

  const change = useCallback(
    (next: HeldAttempt) => {
      latest.current = next;
      setHeld(next);
      setKeeping({ state: 'keeping' });
      void store();
      if (timer.current) clearTimeout(timer.current);
      timer.current = setTimeout(() => void handOver(), handOverMs);
    },
    [handOver, store],
  );

  useEffect(() => {
    void handOver();
    const life = setInterval(() => void signOfLife(), signOfLifeMs);
    const leaving = () => void handOver();
    document.addEventListener('visibilitychange', leaving);
    window.addEventListener('pagehide', leaving);
    return () => {
      clearInterval(life);
      if (timer.current) clearTimeout(timer.current);
      document.removeEventListener('visibilitychange', leaving);
      window.removeEventListener('pagehide', leaving);
    };
  }, [handOver, signOfLife]);

  /** What the clock that rules says now, ms since 1970. */
  const rulingNow = useCallback(() => {
    const last = reading.current;
    return last
      ? last.now + performance.now() - last.steady
      : Date.now() + (latest.current.clock?.aheadMs ?? 0);
  }, []);

  const respond = useCallback(
    (questionId: string, response: Response, inView: readonly Answer[] = []) => {
      const at = new Date(rulingNow()).toISOString();
      change(typed(latest.current, questionId, response, at, memory, inView));
    },
    [change, rulingNow],
  );

  /** Which question is in front of the student: kept on this device. */
  const leftAt = useCallback(
    (questionId: string) => {
      if (latest.current.leftAt === questionId) return;
      latest.current = { ...latest.current, leftAt: questionId };
      void store();
    },
    [store],
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
        void store();
        take(reply.status);
        return true;
      } catch {
        away();
        return false;
      }
    },
    [carrier, take, away, store],
  );

  const takeOver = useCallback(async () => {
    try {
      await claim();
    } catch {
      away();
    }
  }, [claim, away]);

  const handIn = useCallback(async (): Promise<boolean> => {
    if (timer.current) clearTimeout(timer.current);
    while (await handOver());
    if (hasUnsent(latest.current)) return false;
    try {
      take(await carrier.handIn(latest.current.joinCode, latest.current.attemptId));
      return true;
    } catch {
      away();
      return false;
    }
  }, [carrier, handOver, take, away]);

  /** When time is up, ms since 1970 by that clock: as was said last, before this page was opened, too. */
  const deadline = status ? status.deadline : (held.clock?.deadline ?? null);
  return {
    held,
    deadline,
    status,
    keeping,
    refused,
    rulingNow,
    respond,
    toggleComeBack,
    leftAt,
    pass,
    practise,
    takeOver,
    handIn,
    lookingAt: noticed.lookingAt,
  };
}
