/** The letter a reader knows an option by: A, B, … Z, then AA. */
export function optionLetter(index: number): string {
  return index < 26
    ? String.fromCharCode(65 + index)
    : optionLetter(Math.floor(index / 26) - 1) + optionLetter(index % 26);
}
