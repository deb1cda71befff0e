import { languageCodes, listsOf, plain } from './languages';

/**
 * The language that answers are in, by the little words they use.
 *
 * @param otherwise where they tell nothing
 * @returns its code by BCP 47
 */
export function languageOf(answers: readonly string[], otherwise: string): string {
  const words = answers.flatMap((text) => plain(text).match(/\p{L}+/gu) ?? []);
  const hits = languageCodes.map((code) => {
    const { function: little } = listsOf(code);
    return { code, hits: words.filter((word) => little.has(word)).length };
  });
  const best = hits.reduce((a, b) => (b.hits > a.hits ? b : a));
  return best.hits > 0 ? best.code : otherwise;
}
