import { z } from 'zod';
import { kindNames, type KindName } from './kindList';
import type { QuestionKind } from './QuestionKind';
import type { Repaired } from './repaired';
import { kinds } from './registry/kinds';

export { kindNames, type KindName };

type Kinds = typeof kinds;
/** The question, the student's question and the response of one kind. */
export type QuestionOf<K extends KindName> = z.infer<Kinds[K]['schema']>;
export type StudentQuestionOf<K extends KindName> = z.infer<Kinds[K]['studentSchema']>;
export type ResponseOf<K extends KindName> = z.infer<Kinds[K]['responseSchema']>;

// What a kind must give is checked where it is declared; here, that it stands under its own name.
const named: { [K in KindName]: { readonly kind: K } & Kinds[K] } = kinds;
const schemasOf = (which: 'schema' | 'studentSchema' | 'responseSchema') => [
  ...new Set(kindNames.map((name): z.ZodType => named[name][which])),
];
/** A schema that holds each value against the schema of the kind that it names. */
const byKind = <T>(which: 'schema' | 'studentSchema') =>
  z.discriminatedUnion('kind', schemasOf(which) as [z.ZodObject]) as unknown as z.ZodType<T, T>;

export type Question = { [K in KindName]: QuestionOf<K> }[KindName] & {
  /** Only on the questions that a sitting is scored with. */
  repaired?: Repaired;
};
export const Question = byKind<Question>('schema');

export type StudentQuestion = { [K in KindName]: StudentQuestionOf<K> }[KindName];
export const StudentQuestion = byKind<StudentQuestion>('studentSchema');

export type Response = { [K in KindName]: ResponseOf<K> }[KindName];
export const Response = z.union(schemasOf('responseSchema')) as z.ZodType<Response, Response>;

/** The kind by its name, for callers that hold any question; the registry pairs each name with its own types. */
export function kindNamed(name: KindName): QuestionKind<Question, StudentQuestion, Response> {
  // A question only ever meets the kind it names, so the wider types are safe here and nowhere else.
  return named[name] as unknown as QuestionKind<Question, StudentQuestion, Response>;
}

/** The kind of a question. */
export function kindOf(question: { kind: KindName }): QuestionKind<Question, StudentQuestion, Response> {
  return kindNamed(question.kind);
}
