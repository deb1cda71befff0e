import { nearlySame } from './editDistance';
import { forgiven, type Forgive } from '../forgiving';
import type { AcceptedAnswer } from './schema';

/** Accepted answers made ready for holding texts against them. */
interface Ready {
  forgive: Forgive;
  /** Those a text must be, by their forgiven text; of equal ones the most generous. */
  is: Map<string, AcceptedAnswer>;
  /** Those whose words a text must all contain. */
  contains: { accepted: AcceptedAnswer; words: string[] }[];
  /** What forgiven texts nearly are, as far as it was asked: students make the same slips. */
  near: Map<string, AcceptedAnswer | undefined>;
}

/** The accepted answer that a text meets, the most generous of several; undefined when it meets none. */
export function metAnswer(
  accepted: readonly AcceptedAnswer[],
  forgive: Forgive,
  text: string,
): AcceptedAnswer | undefined {
  const ready = readyOf(accepted, forgive);
  let met = ready.is.get(forgiven(text, forgive));
  if (ready.contains.length === 0) return met;
  const spaced = ` ${words(text, forgive).join(' ')} `;
  for (const each of ready.contains)
    if (each.words.every((word) => spaced.includes(` ${word} `)) && (!met || met.share < each.accepted.share))
      met = each.accepted;
  return met;
}

/** The accepted answer that a text nearly is, a slip of the keys away; the most generous of several. */
export function nearAnswer(
  accepted: readonly AcceptedAnswer[],
  forgive: Forgive,
  text: string,
): AcceptedAnswer | undefined {
  const wanted = forgiven(text, forgive);
  const ready = readyOf(accepted, forgive);
  if (ready.near.has(wanted)) return ready.near.get(wanted);
  let near: AcceptedAnswer | undefined;
  for (const [key, each] of ready.is)
    if (nearlySame(wanted, key) && (!near || near.share < each.share)) near = each;
  ready.near.set(wanted, near);
  return near;
}

/** What a text must contain, as the teacher wrote it: divided by commas, or by spaces where there is no comma. */
export function phrasesOf(text: string): string[] {
  return text
    .split(text.includes(',') ? ',' : /\s+/u)
    .map((phrase) => phrase.trim())
    .filter(Boolean);
}

// Questions are never changed in place, so what they accept is worked out once for all their answers.
const readied = new WeakMap<readonly AcceptedAnswer[], Ready>();

function readyOf(accepted: readonly AcceptedAnswer[], forgive: Forgive): Ready {
  const known = readied.get(accepted);
  if (known && known.forgive === forgive) return known;
  const ready: Ready = { forgive, is: new Map(), contains: [], near: new Map() };
  for (const each of accepted) {
    if (each.match === 'containsAll') {
      const phrases = phrasesOf(each.text).map((phrase) => words(phrase, forgive).join(' '));
      if (phrases.length > 0) ready.contains.push({ accepted: each, words: phrases.filter(Boolean) });
      continue;
    }
    const text = forgiven(each.text, forgive);
    const before = ready.is.get(text);
    if (text && (!before || before.share < each.share)) ready.is.set(text, each);
  }
  readied.set(accepted, ready);
  return ready;
}

/** The words of a text, each forgiven, without what stands between them. */
function words(text: string, forgive: Forgive): string[] {
  return text
    .normalize('NFKC')
    .split(/[^\p{L}\p{N}\p{M}]+/u)
    .map((word) => forgiven(word, forgive))
    .filter(Boolean);
}

/**
 * Accepted answers with a text that is to give a share of the points, all of them unless said; as they are where it gives as much
 * already, or is blank.
 */
export function withAccepted(
  accepted: readonly AcceptedAnswer[],
  forgive: Forgive,
  text: string,
  newId: () => string,
  share = 1,
): AcceptedAnswer[] {
  if (text.trim() === '' || (metAnswer(accepted, forgive, text)?.share ?? 0) >= share) return [...accepted];
  const written = accepted.filter((each) => each.text.trim() !== '');
  const added = { id: newId(), text: text.trim(), share, comment: '' };
  // What gives all comes first: the first of them is shown as the right answer.
  return share === 1 ? [added, ...written] : [...written, added];
}
