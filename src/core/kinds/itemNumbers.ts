/** How each item is numbered on the paper: "3", and "3 w" for its working. By id. */
export function numbersOf(
  items: readonly { id: string; workingOf?: string | undefined }[],
): Map<string, string> {
  const numbers = new Map<string, string>();
  let last = 0;
  for (const { id, workingOf } of items)
    numbers.set(id, workingOf === undefined ? String(++last) : `${numbers.get(workingOf) ?? last} w`);
  return numbers;
}
