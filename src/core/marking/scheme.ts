import { kindOf, type Question } from '../kinds';
import type { SchemeGroup, SchemeLine } from '../kinds/schemeLine';

/** The scheme lines a question is marked by; none for a kind without a scheme. */
export function schemeOf(question: Question): SchemeLine[] {
  return (
    kindOf(question)
      .scheme?.(question)
      .filter((line) => line.text.trim() !== '') ?? []
  );
}

/** The groups of the scheme that have lines. */
export function schemeGroupsOf(question: Question): SchemeGroup[] {
  const used = new Set(schemeOf(question).map(({ groupId }) => groupId));
  return (kindOf(question).schemeGroups?.(question) ?? []).filter(({ id }) => used.has(id));
}

/** Lines and groups together. */
export const wholeScheme = (question: Question): { lines: SchemeLine[]; groups: SchemeGroup[] } => ({
  lines: schemeOf(question),
  groups: schemeGroupsOf(question),
});
