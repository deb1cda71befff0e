import { proxy, wrap } from 'comlink';
import type { Progress } from '@/core/formats/backup';
import type { Difference, Side, TakeOverFault, Topic } from '@/core/formats/backup/twoDesks';
import type { HolderAnswer } from '@/sync/takeOver';
import type { TakeOverWorker } from './takeOver.worker';
import { deskWorker } from './deskWorker';

/** A desk on the server, as it was found; or why it can't be taken over. */
export type DeskFound =
  | {
      differences: Difference[];
      /** Whether all there is has come from the computer that holds it. */
      answer: HolderAnswer;
      /** How many students were forgotten on one of both and go from the other's, too. */
      forgotten: number;
      /** Whether it is the desk of this browser, as it was before. */
      same: boolean;
      /** The computer that holds it; '' where none does. */
      from: string;
      /** Up to when it has what was done there. */
      sentAt: string;
      /** Students, groups, papers, sittings and attempts. */
      counts: number[];
    }
  | { fault: TakeOverFault };

export type TakeOverOutcome = null | { fault: TakeOverFault };

/** A desk that is being fetched; what was found is held until it is taken or left. */
export interface OpenTakeOver {
  found: Promise<DeskFound>;
  take: (choices: [Topic, Side][], progress: Progress) => Promise<TakeOverOutcome>;
  close: () => void;
}

const begun = () => deskWorker('takeOver');

let ready: Worker | null = null;

/** Has the worker loaded: a desk may be taken over soon. */
export function prepareTakeOver(): void {
  // Where pages are tested without a browser there are none.
  if (typeof Worker !== 'undefined') ready ??= begun();
}

export function openTakeOver(deskId: string, progress: Progress): OpenTakeOver {
  const worker = ready ?? begun();
  ready = null;
  const remote = wrap<TakeOverWorker>(worker);
  return {
    found: remote.find(deskId, proxy(progress)),
    take: (choices, told) => remote.take(choices, proxy(told)),
    close: () => worker.terminate(),
  };
}
