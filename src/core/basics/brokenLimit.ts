import { z } from 'zod';

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
  if (!(error instanceof z.ZodError)) return null;
  for (const issue of error.issues) {
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
