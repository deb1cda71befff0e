import ipaddr from 'ipaddr.js';
import { setTimeout as sleep } from 'node:timers/promises';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { NamedLocks } from './namedLocks';
import { Refused } from './respond';

/** Wrong codes that one address may send before nothing it sends is looked at, and for how long that lasts. */
const mostWrong = 60;
const withinS = 10 * 60;
/** From this wrong code on each is answered later than the one before. */
const slowFrom = 8;
const slowestMs = 2_000;

/**
 * Where a device asks from, as guesses are counted: an address of version 4, or the network of one of version 6 (its
 * first 64 bits, RFC 4291 section 2.5.4), as a device may give itself any number of addresses in it.
 *
 * @param address as the socket or the proxy says it
 */
export function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const ip = ipaddr.process(address); // one of version 4 written as of version 6 is of version 4
  if (ip instanceof ipaddr.IPv4 || ip.range() === 'loopback') return ip.toString();
  return `${new ipaddr.IPv6([...ip.parts.slice(0, 4), 0, 0, 0, 0]).toString()}/64`;
}

/** Guessing is slowed and then stopped. Right codes count for nothing, so a class behind one address comes in. */
export class Guesses {
  private readonly limiter: RateLimiterMemory;
  private readonly stopped = new Map<string, number>();
  private readonly locks = new NamedLocks();

  /** @param most wrong codes within ten minutes */
  constructor(private readonly most = mostWrong) {
    this.limiter = new RateLimiterMemory({ points: most, duration: withinS, blockDuration: withinS });
  }

  /**
   * Looks at a code that came from somewhere. One after the other, so that guesses sent all at once count as many; a wrong
   * one is counted, and costs time.
   *
   * @param look what the code leads to; null where it is wrong
   * @param apart who waits for one another: those of one address, or fewer where looking takes long
   * @throws {Refused} too many wrong ones came from there
   */
  async look<T>(from: string, now: number, look: () => Promise<T | null>, apart = from): Promise<T | null> {
    const { found, lateMs } = await this.locks.locked(apart, async () => {
      const waitMs = await this.stoppedFor(from);
      if (waitMs > 0)
        throw new Refused('tooManyGuesses', '', { 'retry-after': String(Math.ceil(waitMs / 1000)) });
      const found = await look();
      return { found, lateMs: found === null ? await this.counted(from, now) : 0 };
    });
    if (lateMs > 0) await sleep(lateMs);
    return found;
  }

  /** How long the address is stopped for, ms; 0 when it is not. */
  private async stoppedFor(from: string): Promise<number> {
    const found = await this.limiter.get(from);
    return found && found.consumedPoints > this.most ? found.msBeforeNext : 0;
  }

  /** Counts a wrong code; how much later it is answered, ms. */
  private async counted(from: string, now: number): Promise<number> {
    try {
      const { consumedPoints: count } = await this.limiter.consume(from);
      return count < slowFrom ? 0 : Math.min(slowestMs, 100 * 2 ** (count - slowFrom));
    } catch (stopped) {
      if (!(stopped instanceof RateLimiterRes)) throw stopped;
      this.forgetEnded(now);
      this.stopped.set(from, now + stopped.msBeforeNext);
      return 0;
    }
  }

  /** The addresses that are stopped at the moment, for the teacher. */
  list(now: number): { from: string; until: number }[] {
    this.forgetEnded(now);
    return [...this.stopped].map(([from, until]) => ({ from, until }));
  }

  /** Lets an address try again: the teacher knows who it is. */
  async forgive(from: string): Promise<void> {
    this.stopped.delete(from);
    await this.limiter.delete(from);
  }

  private forgetEnded(now: number): void {
    for (const [from, until] of this.stopped) if (until <= now) this.stopped.delete(from);
  }
}
