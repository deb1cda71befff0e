import { z } from 'zod';

/** What does not matter when two texts are compared. */
export const Forgive = z.object({
  case: z.boolean(),
  spaces: z.boolean(),
  accents: z.boolean(),
  punctuation: z.boolean().optional(),
});
export type Forgive = z.infer<typeof Forgive>;

export const forgiveAll: Forgive = { case: true, spaces: true, accents: true };

/**
 * A text with what is forgiven taken out, so that equal texts are the same answer. Always: compatibility forms
 * are folded (NFKC, Unicode Standard Annex 15) and the ends are trimmed. Case by Unicode's lower, upper, then lower
 * mapping, so that "Straße" and "STRASSE" meet. Spaces: all white space goes, so that "alto stratus" is
 * "altostratus". Accents: combining marks go (é → e). Punctuation: what Unicode counts as such goes (P).
 */
export function forgiven(text: string, forgive: Forgive): string {
  let result = text.trim();
  // Most answers are plain ASCII, which has no compatibility forms and no combining marks: the slow part is skipped.
  if (!ascii.test(result)) {
    result = result.normalize('NFKC').trim();
    if (forgive.accents)
      result = result
        .normalize('NFD')
        .replace(/\p{M}+/gu, '')
        .normalize('NFC');
    // Down first: the capital ẞ has no other capital, and only the small ß becomes SS.
    if (forgive.case) result = result.toLowerCase().toUpperCase();
  }
  if (forgive.case) result = result.toLowerCase();
  if (forgive.punctuation) result = result.replace(/\p{P}+/gu, '').trim();
  if (forgive.spaces) result = result.replace(/\s+/gu, '');
  return result;
}

// eslint-disable-next-line no-control-regex -- the whole of ASCII is meant
const ascii = /^[\x00-\x7f]*$/;
