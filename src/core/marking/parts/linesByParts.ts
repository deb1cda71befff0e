/** A marked answer: its sentences, and the scheme lines it met. */
export interface PartsWithLines {
  parts: readonly string[];
  lines: readonly string[];
}

/**
 * What marked answers tell of the scheme lines that others with the same sentences meet, if a line is met by a sentence and
 * not by how sentences stand together. A sentence that was in an answer without a line does not meet it; where an answer has
 * a line, one of its other sentences does.
 *
 * @param lineIds the lines of the scheme
 * @returns for the sentences of an answer the lines it meets; null where the marked ones leave that open for any line
 */
export function linesByParts(
  marked: readonly PartsWithLines[],
  lineIds: readonly string[],
): (parts: readonly string[]) => string[] | null {
  const judged = new Set(marked.flatMap(({ parts }) => parts));
  const ofLine = lineIds.map((id) => {
    const without = new Set(marked.flatMap(({ parts, lines }) => (lines.includes(id) ? [] : parts)));
    // The sentences of which one must be what meets the line, for each answer that has it.
    const causes = marked
      .filter(({ lines }) => lines.includes(id))
      .map(({ parts }) => parts.filter((part) => !without.has(part)));
    return { id, without, causes };
  });
  // An answer has a line that none of its sentences can meet: they do not stand for themselves here.
  if (ofLine.some(({ causes }) => causes.some((cause) => cause.length === 0))) return () => null;
  return (parts) => {
    if (parts.length === 0 || parts.some((part) => !judged.has(part))) return null;
    const has = new Set(parts);
    const met: string[] = [];
    for (const { id, without, causes } of ofLine) {
      if (causes.some((cause) => cause.every((part) => has.has(part)))) met.push(id);
      else if (!parts.every((part) => without.has(part))) return null;
    }
    return met;
  };
}
