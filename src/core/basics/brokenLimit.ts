import type { z } from 'zod';

/** A limit of a schema that was not kept. */
export interface BrokenLimit {
  of: 'text' | 'number' | 'list';
  is: 'most' | 'least';
  /** Characters of a text, entries of a list, or the number itself. */
  limit: number;
  /** The limit itself is refused, too. */
  beyond?: true;
}

const kinds: Record<string, BrokenLimit['of']> = {
  string: 'text',
  number: 'number',
  int: 'number',
  array: 'list',
};

/** The first limit that a schema refused something for; null where it is no such error. */
export const brokenLimit = (error: unknown): BrokenLimit | null =>
  error instanceof Error && 'issues' in error ? limitIn(error.issues) : null;

/** Known by their shape: the student's page has no schemas, and would fetch all of Zod to ask whether an error is theirs. */
function limitIn(issues: unknown): BrokenLimit | null {
  if (!Array.isArray(issues)) return null;
  for (const issue of issues as z.core.$ZodIssue[]) {
    const limit = limitOf(issue);
    if (limit) return limit;
  }
  return null;
}

function limitOf(issue: z.core.$ZodIssue): BrokenLimit | null {
  // What may be of several shapes is refused by each of them.
  if (issue.code === 'invalid_union') return limitIn(issue.errors.flat());
  if (issue.code !== 'too_big' && issue.code !== 'too_small') return null;
  const of = kinds[issue.origin];
  if (!of) return null;
  const beyond = issue.inclusive === false && { beyond: true as const };
  return issue.code === 'too_big'
    ? { of, is: 'most', limit: Number(issue.maximum), ...beyond }
    : { of, is: 'least', limit: Number(issue.minimum), ...beyond };
}
