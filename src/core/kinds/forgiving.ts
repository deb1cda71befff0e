/** What does not matter when two texts are compared. */
export interface Forgive {
  case: boolean;
  spaces: boolean;
  accents: boolean;
}

export const forgiveAll: Forgive = { case: true, spaces: true, accents: true };

/**
 * A text with what is forgiven taken out, so that equal texts are the same answer. Always: compatibility forms
 * are folded (NFKC, Unicode Standard Annex 15) and the ends are trimmed. Case by Unicode's upper then lower
 * mapping, so that "Straße" and "STRASSE" meet. Spaces: all white space goes, so that "alto stratus" is
 * "altostratus". Accents: combining marks go (é → e).
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
    if (forgive.case) result = result.toUpperCase();
  }
  if (forgive.case) result = result.toLowerCase();
  if (forgive.spaces) result = result.replace(/\s+/gu, '');
  return result;
}

// eslint-disable-next-line no-control-regex -- the whole of ASCII is meant
const ascii = /^[\x00-\x7f]*$/;
