import { diffWordsWithSpace } from 'diff';

/** A stretch of a text: as in the other, put in, or left out of it. */
export interface Stretch {
  text: string;
  is: 'same' | 'putIn' | 'leftOut';
}

/** How a text differs from another, word by word (Myers 1986, by jsdiff). Case alone is no difference. */
export const differences = (from: string, to: string): Stretch[] =>
  diffWordsWithSpace(from, to, { ignoreCase: true }).map(({ value, added, removed }) => ({
    text: value,
    is: added ? 'putIn' : removed ? 'leftOut' : 'same',
  }));
