import type { AttemptStatus, Carrier, HandOverRequest } from '@/carriers/Carrier';
import type { PracticeAct } from '@/core/attempts/practice';
import { acknowledged, outgoing, typed } from '@/core/exchange/held';
import type { Response } from '@/core/kinds';
import type { Answer } from '@/core/model/sitting';
import type { HeldAttempt } from '@/store/sitTables';
import { forgetHeld, hasUnsent, holdAttempt, keepHeld, memory, tabId } from './heldAttempts';
import { handOverFiles } from './studentFiles';
import type { Noticed } from './useNoticed';

/** How long after the last key answers are handed over, and how often a sign of life is given. */
const handOverMs = 400;
const signOfLifeMs = 4_000;

/** Where what was typed is: handed over, on its way, on this device only, or, where that has no room, on this page only. */
export type SaveState =
  { state: 'saved'; at: number } | { state: 'saving' } | { state: 'onDevice' } | { state: 'onPage' };

/** What a page shows of an attempt under way: another object whenever something of it changed. */
export interface SessionView {
  held: HeldAttempt;
  /** How the other side said last that it stands; null: it has not answered yet. */
  status: AttemptStatus | null;
  saveState: SaveState;
  /** Files that were too large to send, by name. */
  refused: string[];
}

/** How often this tab has handed something over. */
let sequence = 0;

const marksOf = ({ comeBack, passed }: HeldAttempt) => JSON.stringify([comeBack, passed ?? []]);

/**
 * An attempt under way on this page. Every change is kept in the student's database first, then handed over through the
 * carrier; what could not be handed over is tried again with the next sign of life.
 */
export class AttemptSession {
  private view: SessionView;
  private readonly listeners = new Set<() => void>();
  /** Whether this device had room for what is held. */
  private stored = true;
  /** The clock that rules, as it was read last, by this device's steady clock: moving the device's clock changes nothing. */
  private reading: { now: number; steady: number } | null = null;
  /** The marks to come back and the questions done with, as they were told last. */
  private told = '';
  private timer: ReturnType<typeof setTimeout> | null = null;
  private held: HeldAttempt;

  /** @param claimed whether the other side knows that it goes on here; where nobody answered it is told as soon as it does */
  constructor(
    private readonly carrier: Carrier,
    initial: HeldAttempt,
    private readonly noticed: Noticed,
    private claimed: boolean,
  ) {
    this.held = initial;
    this.view = { held: initial, status: null, saveState: { state: 'saving' }, refused: [] };
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  getView = (): SessionView => this.view;

  private show(part: Partial<SessionView>): void {
    this.view = { ...this.view, ...part };
    for (const listener of this.listeners) listener();
  }

  /** Begins to hand over by itself; the returned function ends that. */
  begin = (): (() => void) => {
    void this.handOver();
    const life = setInterval(() => void this.signOfLife(), signOfLifeMs);
    const leaving = () => void this.handOver();
    document.addEventListener('visibilitychange', leaving);
    window.addEventListener('pagehide', leaving);
    return () => {
      clearInterval(life);
      if (this.timer) clearTimeout(this.timer);
      document.removeEventListener('visibilitychange', leaving);
      window.removeEventListener('pagehide', leaving);
    };
  };

  private take(status: AttemptStatus | null): void {
    if (!status) return;
    this.show({ status });
    this.reading = { now: status.now, steady: performance.now() };
    this.held = { ...this.held, clock: { deadline: status.deadline, aheadMs: status.now - Date.now() } };
    if (status.state !== 'working' && !hasUnsent(this.held)) void forgetHeld(status.attemptId);
  }

  private async store(): Promise<void> {
    const kept = await keepHeld(this.held);
    this.stored = kept !== null;
    // What another page of this device had in hand goes from here as well.
    if (kept && kept.apart.length > this.held.apart.length) this.held = { ...this.held, apart: kept.apart };
  }

  /** Nobody answered. */
  private away(): void {
    this.show({ saveState: { state: this.stored ? 'onDevice' : 'onPage' } });
  }

  /** Goes on in this tab with what another one had. */
  private async claim(): Promise<void> {
    const { joinCode, sittingId, who } = this.held;
    const reply = await this.carrier.start(joinCode, sittingId, '', tabId);
    this.claimed = true;
    if (reply.outcome !== 'started') return;
    const greeting = who ?? { joinCode, familyName: '', givenName: '', groups: [] };
    this.held = await holdAttempt(greeting, reply.packet);
    this.show({ held: this.held });
    this.take(reply.status);
  }

  /** @returns whether something came apart meanwhile, which has to be handed over as well */
  private async handOver(): Promise<boolean> {
    if (!this.claimed)
      try {
        await this.claim();
      } catch {
        this.away();
        return false;
      }
    const { joinCode, attemptId, comeBack, passed } = this.held;
    const sent = outgoing(this.held);
    const seen = this.noticed.collect();
    sequence += 1;
    const marks = marksOf(this.held);
    const request: HandOverRequest = { answers: sent, comeBack, tabId, sequence, ...seen.request };
    if (passed && passed.length > 0) request.passed = passed;
    try {
      await this.sendFiles();
      const reply = await this.carrier.handOver(joinCode, attemptId, request);
      // Not known there, or no longer: nothing was taken, and what is here stays.
      if (!reply) throw new Error('The attempt is not known');
      this.told = marks;
      this.held = acknowledged(this.held, sent, reply.became, reply.choices, memory);
      this.show({ held: this.held });
      this.take(reply);
      const over = reply.state !== 'working';
      if (hasUnsent(this.held) || (!over && !reply.elsewhere)) await this.store();
      this.show({
        saveState: hasUnsent(this.held) ? { state: 'saving' } : { state: 'saved', at: Date.now() },
      });
      return Object.keys(reply.became).length > 0 && this.held.apart.length > 0;
    } catch {
      seen.putBack();
      // What could not be stored is tried again: there may be room by now.
      if (!this.stored) await this.store();
      this.away();
      return false;
    }
  }

  private async sendFiles(): Promise<void> {
    const { joinCode, attemptId, answers } = this.held;
    const files = await handOverFiles(this.carrier, joinCode, attemptId);
    // Only those that an answer still names: one that was taken out again needs no word.
    const named = JSON.stringify(answers);
    const refused = files.filter(({ id }) => named.includes(id)).map(({ name }) => name);
    if (this.view.refused.join() !== refused.join()) this.show({ refused });
  }

  /** Hands over what there is; where there is nothing, says that the student is here, and hears how the attempt stands. */
  private async signOfLife(): Promise<void> {
    const { joinCode, attemptId } = this.held;
    const nothing =
      this.claimed && !hasUnsent(this.held) && !this.noticed.hasNews() && marksOf(this.held) === this.told;
    if (!nothing) return void (await this.handOver());
    try {
      const reply = await this.carrier.present(joinCode, attemptId, tabId);
      if (!reply) throw new Error('The attempt is not known');
      // An answer from another device of the same student may count by now.
      this.held = acknowledged(this.held, {}, {}, reply.choices, memory);
      this.show({ held: this.held });
      this.take(reply);
      this.show({ saveState: { state: 'saved', at: Date.now() } });
    } catch {
      this.away();
    }
  }

  private change(held: HeldAttempt): void {
    this.held = held;
    this.show({ held, saveState: { state: 'saving' } });
    void this.store();
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.handOver(), handOverMs);
  }

  /** What the clock that rules says now, ms since 1970. */
  rulingNow = (): number =>
    this.reading
      ? this.reading.now + performance.now() - this.reading.steady
      : Date.now() + (this.held.clock?.aheadMs ?? 0);

  respond = (questionId: string, response: Response, inView: readonly Answer[] = []): void => {
    const at = new Date(this.rulingNow()).toISOString();
    this.change(typed(this.held, questionId, response, at, memory, inView));
  };

  /** Which question is in front of the student: kept on this device. */
  leftAt = (questionId: string): void => {
    if (this.held.leftAt === questionId) return;
    this.held = { ...this.held, leftAt: questionId };
    void this.store();
  };

  toggleComeBack = (questionId: string): void => {
    const { comeBack } = this.held;
    const marked = comeBack.includes(questionId);
    this.change({
      ...this.held,
      comeBack: marked ? comeBack.filter((id) => id !== questionId) : [...comeBack, questionId],
    });
  };

  /** Done with these questions: where there is no way back, they cannot be changed from now on. */
  pass = (questionIds: readonly string[]): void =>
    this.change({ ...this.held, passed: [...new Set([...(this.held.passed ?? []), ...questionIds])] });

  /** One act of practice; false when the desk did not answer. */
  practise = async (questionId: string, doing: PracticeAct): Promise<boolean> => {
    const { joinCode, attemptId } = this.held;
    try {
      const reply = await this.carrier.practise(joinCode, attemptId, questionId, doing);
      const { packet } = this.held;
      if (!reply || !packet.practice) return true;
      const views = { ...packet.practice.views, [questionId]: reply.view };
      this.held = { ...this.held, packet: { ...packet, practice: { ...packet.practice, views } } };
      this.show({ held: this.held });
      void this.store();
      this.take(reply.status);
      return true;
    } catch {
      this.away();
      return false;
    }
  };

  takeOver = async (): Promise<void> => {
    try {
      await this.claim();
    } catch {
      this.away();
    }
  };

  handIn = async (): Promise<boolean> => {
    if (this.timer) clearTimeout(this.timer);
    while (await this.handOver());
    if (hasUnsent(this.held)) return false;
    try {
      this.take(await this.carrier.handIn(this.held.joinCode, this.held.attemptId));
      return true;
    } catch {
      this.away();
      return false;
    }
  };
}
