import type { z } from 'zod';

/** A limit of a schema that was not kept. */
export interface BrokenLimit {
  of: 'text' | 'number' | 'list';
  is: 'most' | 'least';
  /** Characters of a text, entries of a list, or the number itself. */
  limit: number;
}

const kinds: Record<string, BrokenLimit['of']> = {
  string: 'text',
  number: 'number',
  int: 'number',
  array: 'list',
};

/** The first limit that a schema refused something for; null where it is no such error. */
export function brokenLimit(error: unknown): BrokenLimit | null {
  for (const issue of issuesOf(error)) {
    const [is, limit] =
      issue.code === 'too_big'
        ? (['most', issue.maximum] as const)
        : issue.code === 'too_small'
          ? (['least', issue.minimum] as const)
          : [];
    const of = 'origin' in issue ? kinds[String(issue.origin)] : undefined;
    if (is && of) return { of, is, limit: Number(limit) };
  }
  return null;
}

/** Known by its shape: the student's page has no schemas, and would fetch all of Zod to ask whether it is one of theirs. */
function issuesOf(error: unknown): z.core.$ZodIssue[] {
  const issues: unknown = error instanceof Error && 'issues' in error ? error.issues : null;
  return Array.isArray(issues) ? (issues as z.core.$ZodIssue[]) : [];
}
