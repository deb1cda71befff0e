import { editDistance } from '../../kinds/shortText/editDistance';
import { listsOf, type LanguageLists } from './languages';
import type { Reading } from './reading';

/** How often each word is used in the answers to a question: rare ones carry more. */
export class Usage {
  private readonly answers = new Map<string, number>();
  private readonly lists: LanguageLists;
  private readonly alike = new Map<string, boolean>();

  constructor(readings: readonly Reading[], language: string) {
    this.lists = listsOf(language);
    this.count = readings.length;
    for (const { words } of readings)
      for (const word of new Set(words)) this.answers.set(word, (this.answers.get(word) ?? 0) + 1);
  }
  private readonly count: number;

  /** What a word carries, 0 to 1: inverse document frequency (Spärck Jones 1972), on the scale of a word used once. */
  weight(word: string): number {
    const most = Math.log(1 + this.count);
    return most === 0 ? 1 : Math.log(1 + this.count / (this.answers.get(word) ?? 1)) / most;
  }

  /** What a word carries that only one of two answers has: also a common one may be what a point is given for. */
  extra(word: string): number {
    return Math.max(leastExtra, this.weight(word));
  }

  /** Whether two words are one: equal, with another ending, or with a slip of the keys. */
  same(a: string, b: string): boolean {
    if (a === b) return true;
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const known = this.alike.get(key);
    if (known !== undefined) return known;
    const found = this.sameButEnding(a, b) || this.slip(a, b);
    this.alike.set(key, found);
    return found;
  }

  private sameButEnding(a: string, b: string): boolean {
    let shared = 0;
    while (shared < a.length && a[shared] === b[shared]) shared++;
    if (shared < 3) return false;
    // An ending may take a letter of the stem along: "drain", "draining"; "tilt", "tilting"; "carry", "carried".
    for (let stem = shared; stem >= Math.max(3, shared - 1); stem--)
      if (this.lists.endings.has(a.slice(stem)) && this.lists.endings.has(b.slice(stem))) return true;
    return false;
  }

  /** A slip is the rarer of the two: where both are used again and again, they are two words. */
  private slip(a: string, b: string): boolean {
    return this.nearlySpelt(a, b) || this.nearlySpelt(this.stem(a), b) || this.nearlySpelt(a, this.stem(b));
  }

  private stem(word: string): string {
    for (let at = Math.max(5, word.length - 4); at < word.length; at++)
      if (this.lists.endings.has(word.slice(at))) return word.slice(0, at);
    return word;
  }

  private nearlySpelt(a: string, b: string): boolean {
    const letters = Math.min(a.length, b.length);
    if (letters < 4 || a[0] !== b[0] || Math.abs(a.length - b.length) > 2) return false;
    const [few, many] = [this.answers.get(a) ?? 0, this.answers.get(b) ?? 0].sort((x, y) => x - y);
    if ((few ?? 0) > 2 || (letters < 6 && (many ?? 0) < 2)) return false;
    return editDistance(a, b) <= (letters >= 9 ? 2 : 1);
  }
}

/**
 * How near two answers are, 0 to 1. Answers that deny, number or point otherwise are not near at all; nor are those whose words
 * stand the other way around a word that cannot be turned. Else it takes both: the share of what their words carry that they have
 * in common, up to slips and endings, and the cosine of their letter trigrams.
 */
export function nearness(a: Reading, b: Reading, usage: Usage): number {
  if (a.guard !== b.guard) return 0;
  const shared = sharedWords(a.words, b.words, usage);
  if (shared === 0 || turnedAround(a, b, usage)) return 0;
  return 0.8 * shared + 0.2 * cosine(a.trigrams, b.trigrams);
}

/** What a word carries at least that stands in one of two answers alone; and how much of that there may be. */
const leastExtra = 0.7;
const mostExtra = 2.2;

/**
 * The share of what the words of both carry that is in both; 0 where one says more than a few words that the other does not, however
 * long both are. Without any words, what guards them has to do: 1.
 */
export function sharedWords(a: readonly string[], b: readonly string[], usage: Usage): number {
  if (a.length === 0 && b.length === 0) return 1;
  const left = [...b];
  let both = 0;
  let alone = 0;
  for (const word of a) {
    let at = left.indexOf(word);
    if (at < 0) at = left.findIndex((other) => usage.same(word, other));
    if (at < 0) alone += usage.extra(word);
    else {
      const [other = word] = left.splice(at, 1);
      // The commoner of the two spellings says what the word carries.
      both += Math.min(usage.weight(word), usage.weight(other));
    }
  }
  for (const word of left) alone += usage.extra(word);
  return alone > mostExtra ? 0 : both / (both + alone);
}

/** Whether something that stands before a word that cannot be turned stands after it in the other, or two words have changed places. */
function turnedAround(a: Reading, b: Reading, usage: Usage): boolean {
  const holds = (side: readonly string[], word: string) => side.some((other) => usage.same(word, other));
  for (const [by, one] of a.sides) {
    const other = b.sides.get(by);
    if (!other) continue;
    const crossed = (from: readonly string[], same: readonly string[], across: readonly string[]) =>
      from.some((word) => !holds(same, word) && holds(across, word));
    if (crossed(one.before, other.before, other.after) || crossed(one.after, other.after, other.before))
      return true;
  }
  return twoSwapped(a.order, b.order, usage);
}

/** "The moon turns round the earth", "the earth turns round the moon": the same words, two of them in each other's place. */
function twoSwapped(a: readonly string[], b: readonly string[], usage: Usage): boolean {
  if (a.length !== b.length) return false;
  const other = a.flatMap((word, at) => (usage.same(word, b[at] ?? '') ? [] : [at]));
  const [first, second] = other;
  if (other.length !== 2 || first === undefined || second === undefined) return false;
  return usage.same(a[first] ?? '', b[second] ?? '') && usage.same(a[second] ?? '', b[first] ?? '');
}

function cosine(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): number {
  let dot = 0;
  let [squaresA, squaresB] = [0, 0];
  for (const [three, times] of a) {
    dot += times * (b.get(three) ?? 0);
    squaresA += times * times;
  }
  for (const times of b.values()) squaresB += times * times;
  return squaresA === 0 || squaresB === 0 ? Number(a.size === b.size) : dot / Math.sqrt(squaresA * squaresB);
}
