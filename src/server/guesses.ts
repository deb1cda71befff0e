import ipaddr from 'ipaddr.js';
import { setTimeout as sleep } from 'node:timers/promises';
import { RateLimiterRes, type RateLimiterAbstract } from 'rate-limiter-flexible';
import { keyText } from '@/core/exchange/mailbox';
import type { ExchangeStore } from './exchangeStore';
import type { Metrics } from './metrics';
import { NamedLocks } from './namedLocks';
import { Refused } from './respond';

const withinS = 10 * 60;
/** From this wrong one on each is answered later than the one before. */
const slowFrom = 100;
const slowestMs = 2_000;

/** So many wrong ones from everywhere within an hour are an attack: then each is stopped after a few. */
const mostInAll = 3_000;
const mostWhileAttacked = 10;

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

/** Who is stopped at the moment: an address or network, or a student, as guesses are counted. */
export interface StoppedGuesser {
  from: string;
  until: number;
}

/**
 * Guessing of one thing is slowed and then stopped, for whom it is counted against. Right guesses count for nothing, and
 * the same wrong one again tells a guesser nothing and is not counted again.
 */
export class Guesses {
  private readonly limiter: RateLimiterAbstract;
  private readonly all: RateLimiterAbstract;
  private readonly locks = new NamedLocks();
  /** What was guessed wrong by whom, with until when that is remembered. */
  private readonly guessed = new Map<string, Map<string, number>>();

  /**
   * @param store where they are counted, over all servers that share it
   * @param what is guessed: a name of its own
   * @param most wrong ones within ten minutes
   * @param inAll how many from everywhere within an hour are taken for an attack
   */
  constructor(
    private readonly store: Pick<ExchangeStore, 'limiter' | 'list' | 'commit'>,
    private readonly what: string,
    private readonly most: number,
    inAll = mostInAll,
    /** Told of each wrong one that counts. */
    private readonly counts: () => void = () => undefined,
  ) {
    this.limiter = store.limiter(what, most, withinS);
    this.all = store.limiter(`${what} from everywhere`, inAll, 60 * 60);
  }

  /**
   * Looks at a guess. One after the other for each `apart`, so that guesses sent all at once count as many; a wrong one is
   * counted, and costs time.
   *
   * @param from whom it is counted against
   * @param guess what was guessed; a wrong one is counted once
   * @throws {Refused} with how long it lasts, where guessing is stopped
   */
  async look<T>(
    from: string,
    now: number,
    guess: string,
    look: () => Promise<T | null>,
    apart = from,
  ): Promise<T | null> {
    const { found, lateMs } = await this.locks.locked(apart, async () => {
      await this.check(from);
      const found = await look();
      return { found, lateMs: found === null ? await this.counted(from, now, guess) : 0 };
    });
    if (lateMs > 0) await sleep(lateMs);
    return found;
  }

  /** @throws {Refused} where guessing is stopped */
  async check(from: string): Promise<void> {
    const waitMs = await this.stoppedFor(from);
    if (waitMs > 0)
      throw new Refused('tooManyGuesses', '', { 'retry-after': String(Math.ceil(waitMs / 1000)) });
  }

  /** How long it is stopped for, ms; 0 when it is not. */
  private async stoppedFor(from: string): Promise<number> {
    const found = await this.limiter.get(from);
    if (!found || found.consumedPoints <= Math.min(this.most, mostWhileAttacked)) return 0;
    const attacked = ((await this.all.get('all'))?.remainingPoints ?? 1) <= 0;
    const most = attacked ? Math.min(this.most, mostWhileAttacked) : this.most;
    return found.consumedPoints > most ? found.msBeforeNext : 0;
  }

  /** Counts a wrong guess; how much later it is answered, ms. */
  async counted(from: string, now: number, guess: string): Promise<number> {
    const known = this.guessed.get(from) ?? new Map<string, number>();
    for (const [each, until] of known) if (until <= now) known.delete(each);
    const again = known.has(guess);
    known.set(guess, now + withinS * 1000);
    this.guessed.set(from, known);
    if (again) return 0;
    this.counts();
    await this.all.consume('all').catch(() => undefined);
    try {
      const { consumedPoints: count } = await this.limiter.consume(from);
      if ((await this.stoppedFor(from)) > 0) await this.stop(from, now + withinS * 1000);
      return count < slowFrom ? 0 : Math.min(slowestMs, 100 * 2 ** (count - slowFrom));
    } catch (stopped) {
      if (!(stopped instanceof RateLimiterRes)) throw stopped;
      await this.stop(from, now + stopped.msBeforeNext);
      return 0;
    }
  }

  /** Who is stopped at the moment, for the teacher. */
  async list(now: number): Promise<StoppedGuesser[]> {
    for (const [from, known] of this.guessed)
      if ([...known.values()].every((until) => until <= now)) this.guessed.delete(from);
    const rows = await this.store.list(`stopped/${keyText([this.what])}/`);
    const ended = rows.filter(({ value }) => (value as StoppedGuesser).until <= now);
    await this.store.commit(ended.map(({ key }) => ({ key, value: null })));
    return rows.map(({ value }) => value as StoppedGuesser).filter(({ until }) => until > now);
  }

  /** Lets an address or a student try again: the teacher knows who it is. */
  async forgive(from: string): Promise<void> {
    this.guessed.delete(from);
    await this.limiter.delete(from);
    await this.store.commit([{ key: this.keyOf(from), value: null }]);
  }

  private stop(from: string, until: number): Promise<void> {
    return this.store.commit([{ key: this.keyOf(from), value: { from, until } satisfies StoppedGuesser }]);
  }

  private keyOf = (from: string) => `stopped/${keyText([this.what, from])}`;
}

/** What can be guessed, each counted by itself. */
export interface AllGuesses {
  /** Join codes, against the address or network they come from. */
  codes: Guesses;
  /** Join codes that are one letter from a student's, against that student's code: slips of the keys, as a rule. */
  near: Guesses;
  /** Access codes, against the student who types them. */
  access: Guesses;
  /** Access codes of guests, against the address or network. */
  guests: Guesses;
  /** The teacher's secret, against the address or network. */
  secret: Guesses;
}

/** How many wrong ones stop it: `docs/security.md` says what a guesser can hope for under them. */
const usualBounds: Readonly<Record<keyof AllGuesses, number>> = {
  codes: 200,
  near: 10,
  access: 20,
  guests: 60,
  secret: 10,
};

export function newGuesses(
  store: ExchangeStore,
  { wrongGuesses }: Pick<Metrics, 'wrongGuesses'>,
  bounds = usualBounds,
): AllGuesses {
  const guessesOf = (what: keyof AllGuesses) =>
    new Guesses(store, what, bounds[what], mostInAll, () => wrongGuesses.inc({ what }));
  return {
    codes: guessesOf('codes'),
    near: guessesOf('near'),
    access: guessesOf('access'),
    guests: guessesOf('guests'),
    secret: guessesOf('secret'),
  };
}
