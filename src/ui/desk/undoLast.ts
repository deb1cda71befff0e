import { undo } from '@/store/command';
import { isoNow } from '../clock';
import { act, say } from './act';

/** Takes back the last thing done, and says so. */
export async function undoLast(seq?: number): Promise<void> {
  const done = await act(undo(isoNow(), seq));
  if (!done) return;
  const words = {
    undone: `Taken back: ${done.said}`,
    nothing: 'There is nothing to take back',
    changedSince: `Not taken back, for it has changed since: ${done.said}`,
  };
  say(words[done.outcome], done.outcome === 'changedSince');
}
