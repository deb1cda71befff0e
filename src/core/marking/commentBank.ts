import { forgiveAll, forgiven } from '../kinds/forgiving';
import type { BankComment } from '../model/bankComment';
import type { HandMark } from '../model/mark';

/** A comment for reuse. */
export interface OfferedComment {
  text: string;
  code: string;
  points: number | null;
  /** How many answers to this question have it, and to others. */
  uses: number;
  usesElsewhere: number;
  /** The row of the bank, where it is in it and not only typed. */
  kept: BankComment | null;
}

/**
 * The comments that can be used again at a question: those of the bank, and what was typed at it or at others. Those of
 * this question come first, the most used before.
 *
 * @param marks of this question and others, in any order
 */
export function offeredComments(
  questionId: string,
  marks: readonly Pick<HandMark, 'questionId' | 'comment'>[],
  bank: readonly BankComment[],
): OfferedComment[] {
  const byText = new Map<string, OfferedComment>();
  const entryOf = (text: string) => {
    const known = byText.get(text);
    if (known) return known;
    const made: OfferedComment = { text, code: '', points: null, uses: 0, usesElsewhere: 0, kept: null };
    byText.set(text, made);
    return made;
  };
  for (const mark of marks) {
    const text = mark.comment.trim();
    if (text === '') continue;
    const entry = entryOf(text);
    if (mark.questionId === questionId) entry.uses++;
    else entry.usesElsewhere++;
  }
  // What is for this question alone goes before what is for all.
  const ofHere = bank.filter((row) => row.questionId === null || row.questionId === questionId);
  for (const row of ofHere.sort((a, b) => Number(a.questionId !== null) - Number(b.questionId !== null))) {
    if (row.removed) byText.delete(row.text.trim());
    else Object.assign(entryOf(row.text.trim()), { code: row.code, points: row.points, kept: row });
  }
  const isOfHere = ({ uses, kept }: OfferedComment) => Number(uses > 0 || kept?.questionId === questionId);
  return [...byText.values()].sort(
    (a, b) =>
      isOfHere(b) - isOfHere(a) ||
      b.uses - a.uses ||
      b.usesElsewhere - a.usesElsewhere ||
      (a.text < b.text ? -1 : 1),
  );
}

const folded = (text: string) => forgiven(text, { ...forgiveAll, spaces: false });

/** The fewest letters that look a comment up. */
export const fewestLetters = 2;

/**
 * The comments that what is typed may be the beginning of: by its code, or by words that begin with each of its words. None
 * for fewer than two letters, nor where it is one already.
 *
 * @param own what the answers have that it is typed for, and how many they are: what is kept while it is typed is none yet
 */
export function foundComments(
  typed: string,
  offered: readonly OfferedComment[],
  own?: { text: string; answers: number },
): OfferedComment[] {
  const wanted = folded(typed.trim());
  if (wanted.length < fewestLetters) return [];
  const others = offered.filter(
    ({ text, uses, usesElsewhere, kept }) =>
      text !== own?.text.trim() || uses > own.answers || usesElsewhere > 0 || kept !== null,
  );
  if (others.some(({ text }) => text === typed.trim())) return [];
  const words = wanted.split(/\s+/);
  const matches = others.filter(({ text, code }) => {
    if (code !== '' && folded(code) === wanted) return true;
    const has = folded(text).split(/[^\p{L}\p{N}]+/u);
    return words.every((word) => has.some((each) => each.startsWith(word)));
  });
  const byCode = ({ code }: OfferedComment) => Number(code !== '' && folded(code) === wanted);
  return matches.sort((a, b) => byCode(b) - byCode(a));
}
