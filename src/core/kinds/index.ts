import { z } from 'zod';
import { categories } from './categories';
import { Categories, StudentCategories } from './categories/schema';
import { file } from './file';
import { FileQuestion, FilesResponse, StudentFileQuestion } from './file/schema';
import { gaps } from './gaps';
import { Gaps, GapsResponse, StudentGaps } from './gaps/schema';
import { matching } from './matching';
import { Matching, StudentMatching } from './matching/schema';
import { number } from './number';
import { NumberQuestion, StudentNumberQuestion } from './number/schema';
import { oneChoice } from './oneChoice';
import { OneChoice, StudentOneChoice } from './oneChoice/schema';
import { openText } from './openText';
import { OpenText, StudentOpenText } from './openText/schema';
import { PickedResponse } from './options';
import { ordering } from './ordering';
import { Ordering, OrderResponse, StudentOrdering } from './ordering/schema';
import { PairsResponse } from './pairs';
import type { QuestionKind } from './QuestionKind';
import { severalChoices } from './severalChoices';
import { SeveralChoices, StudentSeveralChoices } from './severalChoices/schema';
import { shortText } from './shortText';
import { ShortText, StudentShortText } from './shortText/schema';
import { TextResponse } from './textResponse';
import { trueFalse } from './trueFalse';
import { StudentTrueFalse, TrueFalse } from './trueFalse/schema';
import { working } from './working';
import { StudentWorking, Working, WorkingResponse } from './working/schema';

/** The registry: a new kind is a folder beside this file and a line in each list here. */
const kinds = {
  oneChoice,
  severalChoices,
  trueFalse,
  shortText,
  number,
  gaps,
  matching,
  ordering,
  categories,
  openText,
  working,
  file,
};

export const Question = z.discriminatedUnion('kind', [
  OneChoice,
  SeveralChoices,
  TrueFalse,
  ShortText,
  NumberQuestion,
  Gaps,
  Matching,
  Ordering,
  Categories,
  OpenText,
  Working,
  FileQuestion,
]);
export type Question = z.infer<typeof Question>;

export const StudentQuestion = z.discriminatedUnion('kind', [
  StudentOneChoice,
  StudentSeveralChoices,
  StudentTrueFalse,
  StudentShortText,
  StudentNumberQuestion,
  StudentGaps,
  StudentMatching,
  StudentOrdering,
  StudentCategories,
  StudentOpenText,
  StudentWorking,
  StudentFileQuestion,
]);
export type StudentQuestion = z.infer<typeof StudentQuestion>;

export const Response = z.union([
  PickedResponse,
  TextResponse,
  GapsResponse,
  PairsResponse,
  OrderResponse,
  WorkingResponse,
  FilesResponse,
]);
export type Response = z.infer<typeof Response>;

export type KindName = Question['kind'];

export const kindNames = Object.keys(kinds) as KindName[]; // the keys of a literal object are its names

/** The kind by its name, for callers that hold any question; the registry pairs each name with its own types. */
export function kindNamed(name: KindName): QuestionKind<Question, StudentQuestion, Response> {
  // A question only ever meets the kind it names, so the wider types are safe here and nowhere else.
  return kinds[name] as unknown as QuestionKind<Question, StudentQuestion, Response>;
}

/** The kind of a question. */
export function kindOf(question: { kind: KindName }): QuestionKind<Question, StudentQuestion, Response> {
  return kindNamed(question.kind);
}
