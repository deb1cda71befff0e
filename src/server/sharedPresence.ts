import { z } from 'zod';
import { chunk } from 'remeda';
import { Presence } from '@/core/exchange/presence';
import type { ExchangeStore } from './exchangeStore';

/** Signs of life go to the other servers together, once in so long, and so many in one message. */
const gatherMs = 500;
const inOneMessage = 100;

const Seen = z.object({ seen: z.tuple([z.string(), z.number()]).array() });
const SeenText = z
  .string()
  .transform((text, { addIssue }): unknown => {
    try {
      return JSON.parse(text);
    } catch {
      addIssue('not JSON');
      return z.NEVER;
    }
  })
  .pipe(Seen);

/** When students were heard of last, by any of the servers that share a store. */
export class SharedPresence extends Presence {
  private readonly heardHere = new Map<string, number>();
  private timer: NodeJS.Timeout | null = null;

  constructor(private readonly store: Pick<ExchangeStore, 'tell' | 'hear'>) {
    super();
    store.hear((message) => {
      // What a server of another version tells is not understood, and missed.
      const told = SeenText.safeParse(message);
      for (const [attemptId, at] of told.data?.seen ?? []) super.saw(attemptId, at);
    });
  }

  override saw(attemptId: string, at: number): void {
    super.saw(attemptId, at);
    this.heardHere.set(attemptId, at);
    this.timer ??= setTimeout(() => this.tell(), gatherMs).unref();
  }

  private tell(): void {
    this.timer = null;
    const all = [...this.heardHere];
    this.heardHere.clear();
    for (const seen of chunk(all, inOneMessage))
      this.store.tell(JSON.stringify({ seen } satisfies z.infer<typeof Seen>));
  }
}
