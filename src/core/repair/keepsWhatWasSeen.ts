import { kindOf, type Question } from '../kinds';

/**
 * Whether a changed question still has everything that students saw of it and may have chosen: options, items, gaps. Without one of
 * them an answer would say nothing any more.
 */
export function keepsWhatWasSeen(before: Question, changed: Question): boolean {
  const left = seenIds(changed);
  return [...seenIds(before)].every((id) => left.has(id));
}

/** The ids of all that a student is shown of a question. */
function seenIds(question: Question): ReadonlySet<string> {
  const ids = new Set<string>();
  const look = (value: unknown): void => {
    if (Array.isArray(value)) for (const each of value) look(each);
    else if (typeof value === 'object' && value !== null)
      for (const [name, each] of Object.entries(value)) {
        if (name === 'id' && typeof each === 'string') ids.add(each);
        else look(each);
      }
  };
  look(kindOf(question).forStudent(question, 'seen'));
  return ids;
}
