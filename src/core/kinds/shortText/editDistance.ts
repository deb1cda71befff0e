/**
 * How many single-letter changes turn one text into the other: letters put in, left out, changed, or swapped with
 * their neighbour (optimal string alignment: a swapped pair is not changed again). Letters are Unicode code points.
 *
 * Source: measures.md, "typing distance"; Levenshtein 1966, with Damerau's swaps as in Boytsov 2011.
 */
export function editDistance(a: string, b: string): number {
  const [left, right] = [[...a], [...b]];
  // Three rows of the table: two back for swaps, one back, and the row being filled.
  let twoBack: number[] = [];
  let before = right.map((_, index) => index);
  before.push(right.length);
  for (let i = 1; i <= left.length; i++) {
    const row = [i];
    for (let j = 1; j <= right.length; j++) {
      const same = left[i - 1] === right[j - 1] ? 0 : 1;
      let least = Math.min((before[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (before[j - 1] ?? 0) + same);
      const swapped = i > 1 && j > 1 && left[i - 1] === right[j - 2] && left[i - 2] === right[j - 1];
      if (swapped) least = Math.min(least, (twoBack[j - 2] ?? 0) + 1);
      row.push(least);
    }
    twoBack = before;
    before = row;
  }
  return before[right.length] ?? 0;
}

/**
 * Whether a text is so near another that it may be a slip of the keys: one change from four letters on, two from
 * eight on. Another digit is another number and no slip. Common practice, no source.
 */
export function nearlySame(text: string, other: string): boolean {
  if (digitsOf(text) !== digitsOf(other)) return false;
  const letters = Math.max([...text].length, [...other].length);
  const allowed = letters >= 8 ? 2 : letters >= 4 ? 1 : 0;
  if (Math.abs(text.length - other.length) > allowed * 2) return false;
  return allowed > 0 && editDistance(text, other) <= allowed;
}

function digitsOf(text: string): string {
  return text.replace(/\P{N}/gu, '');
}
