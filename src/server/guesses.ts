import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

/** Wrong codes that one address may send before nothing it sends is looked at, and for how long that lasts. */
const mostWrong = 60;
const withinS = 10 * 60;
/** From this wrong code on each is answered later than the one before. */
const slowFrom = 8;
const slowestMs = 2_000;

/** Guessing is slowed and then stopped. Right codes count for nothing, so a class behind one address comes in. */
export class Guesses {
  private readonly limiter: RateLimiterMemory;
  private readonly stopped = new Map<string, number>();

  /** @param most wrong codes within ten minutes */
  constructor(private readonly most = mostWrong) {
    this.limiter = new RateLimiterMemory({ points: most, duration: withinS, blockDuration: withinS });
  }

  /** How long the address is stopped for, ms; 0 when it is not. */
  async stoppedFor(from: string): Promise<number> {
    const found = await this.limiter.get(from);
    return found && found.consumedPoints > this.most ? found.msBeforeNext : 0;
  }

  /** Counts a wrong code; returns after as long as it costs. */
  async wrong(from: string, now: number): Promise<void> {
    let count: number;
    try {
      count = (await this.limiter.consume(from)).consumedPoints;
    } catch (stopped) {
      if (!(stopped instanceof RateLimiterRes)) throw stopped;
      this.stopped.set(from, now + stopped.msBeforeNext);
      return;
    }
    const lateMs = count < slowFrom ? 0 : Math.min(slowestMs, 100 * 2 ** (count - slowFrom));
    await new Promise((resolve) => setTimeout(resolve, lateMs));
  }

  /** The addresses that are stopped at the moment, for the teacher. */
  list(now: number): { from: string; until: number }[] {
    for (const [from, until] of this.stopped) if (until <= now) this.stopped.delete(from);
    return [...this.stopped].map(([from, until]) => ({ from, until }));
  }

  /** Lets an address try again: the teacher knows who it is. */
  async forgive(from: string): Promise<void> {
    this.stopped.delete(from);
    await this.limiter.delete(from);
  }
}
