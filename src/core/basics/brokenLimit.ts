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
export const brokenLimit = (error: unknown): BrokenLimit | null =>
  error instanceof Error && 'issues' in error ? limitIn(error.issues) : null;

/** Known by their shape: the student's page has no schemas, and would fetch all of Zod to ask whether an error is theirs. */
function limitIn(issues: unknown): BrokenLimit | null {
  if (!Array.isArray(issues)) return null;
  for (const issue of issues as z.core.$ZodIssue[]) {
    const limit =
      issue.code === 'too_big'
        ? limitOf(issue.origin, 'most', issue.maximum)
        : issue.code === 'too_small'
          ? limitOf(issue.origin, 'least', issue.minimum)
          : // What may be of several shapes is refused by each of them.
            issue.code === 'invalid_union'
            ? limitIn(issue.errors.flat())
            : null;
    if (limit) return limit;
  }
  return null;
}

function limitOf(origin: string, is: BrokenLimit['is'], limit: number | bigint): BrokenLimit | null {
  const of = kinds[origin];
  return of ? { of, is, limit: Number(limit) } : null;
}
