import { ownAttempt, toldTo } from './attemptOf';
import type { AttemptStatus } from './messages';
import type { ExchangeRepository } from './repository';

/** A sign of life: how the attempt stands, and nothing of it changes. Whoever watches is told by the place. */
export async function present(
  place: ExchangeRepository,
  joinCode: string,
  attemptId: string,
  tabId: string,
  now: number,
): Promise<AttemptStatus | null> {
  const known = await ownAttempt(place, joinCode, attemptId, now);
  return known && toldTo(place, known.attempt, known.terms, now, tabId);
}

/** When students were heard of last, by attempt, ms since 1970: in memory, for as long as anybody asks. */
export class Presence {
  private readonly seenAt = new Map<string, number>();

  /** @param at an earlier time than what is known changes nothing */
  saw(attemptId: string, at: number): void {
    if (at <= (this.seenAt.get(attemptId) ?? -Infinity)) return;
    this.seenAt.delete(attemptId);
    this.seenAt.set(attemptId, at);
    if (this.seenAt.size > mostSeen) this.seenAt.delete(this.seenAt.keys().next().value ?? '');
  }

  /** Undefined where nothing was heard since this began. */
  at(attemptId: string): number | undefined {
    return this.seenAt.get(attemptId);
  }

  /** Who was heard of after a moment, with when. */
  since(after: number): [attemptId: string, at: number][] {
    return [...this.seenAt].filter(([, at]) => at > after);
  }
}

/** Of more attempts than that the ones heard of longest ago are forgotten. */
const mostSeen = 20_000;
