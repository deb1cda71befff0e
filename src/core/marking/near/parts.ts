import { nearPiles } from './piles';
import { Usage } from './nearness';
import { readingOf } from './reading';
import { plain } from './languages';

/** Parts have to be nearer than whole answers to be one: what is marked goes by them. */
const partThreshold = 0.9;
/** A part that stands within a sentence has at least so many words. */
const fewestWords = 3;

/** What ends a sentence, a semicolon, or a new line. A decimal point does not. */
const sentenceEnd = /(?<=[.!?;。！？])\s+|[;\n]+/;

/**
 * The parts that answers to one question are made of: their sentences, and within one what stands by itself in another answer,
 * at its beginning or end. Parts that are nearly the same have the same name.
 *
 * @param language of the paper, by its code in BCP 47
 * @returns for each answer the names of its parts, each once
 */
export function answerParts(answers: readonly string[], language: string): string[][] {
  const sentences = answers.map((text) =>
    text
      .split(sentenceEnd)
      .map((sentence) => sentence.trim().split(/\s+/).filter(Boolean))
      .filter((words) => words.length > 0),
  );
  const readings = sentences.flat().map((words) => readingOf(words.join(' '), language));
  const usage = new Usage(readings, language);
  const bare = (word: string) => plain(word).replace(/^\P{L}+|\P{L}+$/gu, '') || plain(word);
  const same = (a: string, b: string) => bare(a) === bare(b) || usage.same(bare(a), bare(b));
  // From the short to the long: what a sentence leaves beside those found before is a part as well.
  const known: string[][] = [];
  const cut = (words: readonly string[]): string[][] => {
    for (const other of known) {
      const rest = words.length - other.length;
      if (rest < 0) continue;
      if (other.every((word, at) => same(word, words[at] ?? '')))
        return rest === 0 ? [[...words]] : [[...other], ...cut(words.slice(other.length))];
      if (other.every((word, at) => same(word, words[rest + at] ?? '')))
        return [...cut(words.slice(0, rest)), [...other]];
    }
    return [[...words]];
  };
  const byLength = [...new Map(sentences.flat().map((words) => [words.join(' '), words])).values()].sort(
    (a, b) => a.length - b.length,
  );
  for (const words of byLength) {
    const fresh = cut(words).filter(
      (part) => part.length >= fewestWords && !known.some((other) => other.join(' ') === part.join(' ')),
    );
    known.push(...fresh);
    // The longest that fits is meant.
    known.sort((a, b) => b.length - a.length);
  }
  const parts = sentences.map((each) => each.flatMap(cut).map((words) => words.join(' ')));
  const different = [...new Set(parts.flat())];
  const named = new Map<string, string>();
  for (const pile of nearPiles(different, language, partThreshold))
    for (const at of pile) named.set(different[at] ?? '', different[pile[0] ?? at] ?? '');
  return parts.map((each) => [...new Set(each.map((part) => named.get(part) ?? part))]);
}
