import { historyOf, type HandMark, type ShownRevision } from '../model/mark';

/** A change that several marks had in common, with how many. */
export interface GroupRevision extends ShownRevision {
  count: number;
}

/** How the marks of equal answers came to be, the latest change first; what was done to several at once is one. */
export function groupHistory(marks: readonly HandMark[]): GroupRevision[] {
  const byText = new Map<string, GroupRevision>();
  for (const revision of marks.flatMap(historyOf)) {
    const text = JSON.stringify(revision);
    byText.set(text, { ...revision, count: (byText.get(text)?.count ?? 0) + 1 });
  }
  return [...byText.values()].sort((a, b) => b.at.localeCompare(a.at));
}
