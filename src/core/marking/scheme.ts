import { kindOf, type Question } from '../kinds';
import type { SchemeLine } from '../kinds/schemeLine';

/** The scheme lines a question is marked by; none for a kind without a scheme. */
export function schemeOf(question: Question): SchemeLine[] {
  return (
    kindOf(question)
      .scheme?.(question)
      .filter((line) => line.text.trim() !== '') ?? []
  );
}
