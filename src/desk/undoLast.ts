import { setTab, undo } from '@/store/command';
import { nanoid } from 'nanoid';
import { isoNow } from '../ui/clock';
import { act, say } from './act';

const tabKey = 'gribbet-tab';
const wordKey = 'gribbet-word';

const here = () => window.location.pathname + window.location.search;

/** Tells the commands in which tab they are given, and says what an undo on another page came here to say. */
export function beginTab(): void {
  let id = sessionStorage.getItem(tabKey);
  // A tab that was opened from another one has a copy of its storage, but not its name.
  if (id === null || window.name !== id) {
    id = nanoid(10);
    sessionStorage.setItem(tabKey, id);
    window.name = id;
  }
  setTab({ id, where: here });
  const word = sessionStorage.getItem(wordKey);
  sessionStorage.removeItem(wordKey);
  if (word !== null) say(word);
}

/** This tab and its page, for commands that are given in a worker. */
export function thisTab(): { id: string; where: string } | null {
  const id = sessionStorage.getItem(tabKey);
  return id === null ? null : { id, where: here() };
}

/** Takes back the last thing done, and says so. */
export async function undoLast(seq?: number): Promise<void> {
  const done = await act(undo(isoNow(), seq));
  if (!done) return;
  const words = {
    undone: `Undone: ${done.said}`,
    nothing: 'Nothing to undo',
    changedSince: `Can’t undo, changed since: ${done.said}. Undo again to undo what came before it.`,
  };
  const word = words[done.outcome];
  if (done.outcome === 'undone' && done.where !== null && done.where !== here()) sayThere(done.where, word);
  else say(word, done.outcome === 'changedSince');
}

/** Goes to the page where something was done, and says there what became of it. */
function sayThere(where: string, word: string): void {
  sessionStorage.setItem(wordKey, word);
  window.location.assign(where);
}
