import { countedAnswers } from '../../attempts/late';
import { z } from 'zod';
import { itemsOf } from '../../kinds/items';
import { kindOf, StudentQuestion, type Question } from '../../kinds';
import { Answers, PracticeRules, type Attempt, type Sitting } from '../../model/sitting';
import { practiceView, PracticeView } from '../../attempts/practice';
import { Id, Instant, Line } from '../../basics/common';
import { RichText } from '../../basics/richText';
import type { PaperContent, PaperVersion } from '../../model/paper';

/** A part as a student reads it. */
export const StudentPart = z.object({ id: Id, title: Line, instructions: RichText });
export type StudentPart = z.infer<typeof StudentPart>;

/** A paper on its way to a student: no key, scheme, note or comment. */
export const PaperPacket = z.object({
  attemptId: Id,
  sittingId: Id,
  attemptNumber: z.number().int(),
  title: Line,
  instructions: RichText,
  questions: StudentQuestion.array(),
  parts: StudentPart.array().optional(),
  startedAt: Instant,
  /** Answers the teacher's side already holds: what a new device goes on from. */
  answers: Answers,
  comeBack: Id.array(),
  /** One question at a time, and whether what is done can be gone back to. */
  oneByOne: z.boolean().optional(),
  noBack: z.boolean().optional(),
  /** Questions that are done with. */
  passed: Id.array().optional(),
  /** Where it is practice: its rules, and by question what was let out so far. */
  practice: z.object({ rules: PracticeRules, views: z.record(Id, PracticeView) }).optional(),
});
export type PaperPacket = z.infer<typeof PaperPacket>;

/** A paper without its key: each student gets the same questions from it as with the key. */
export function withoutKeys(paper: PaperVersion): PaperVersion {
  const { title, instructions, parts, shuffle, paperId, version, frozenAt } = paper;
  return {
    title,
    instructions,
    questions: paper.questions.map((question) => kindOf(question).withoutKey(question)),
    ...(parts && { parts }),
    ...(shuffle !== undefined && { shuffle }),
    paperId,
    version,
    frozenAt,
  };
}

/** The packet of one attempt, with the questions in the order this student was given. */
export function paperPacket(
  paper: PaperContent,
  attempt: Attempt,
  { oneByOne, noBack, practice: rules }: Pick<Sitting, 'oneByOne' | 'noBack' | 'practice'> = {},
): PaperPacket {
  const byId = new Map(itemsOf(paper.questions).map((question) => [question.id, question]));
  const given = attempt.questionIds.flatMap((id) => byId.get(id) ?? []);
  return {
    attemptId: attempt.id,
    sittingId: attempt.sittingId,
    attemptNumber: attempt.number,
    title: paper.title,
    instructions: paper.instructions,
    questions: studentQuestions(given, attempt.id),
    ...studentParts(paper),
    startedAt: attempt.startedAt,
    answers: countedAnswers(attempt),
    comeBack: attempt.comeBack,
    ...(oneByOne && { oneByOne, passed: attempt.passed ?? [] }),
    ...(oneByOne && noBack && { noBack }),
    ...(rules && {
      practice: {
        rules,
        views: Object.fromEntries(given.map((each) => [each.id, practiceView(each, attempt, rules)])),
      },
    }),
  };
}

/** The parts as students read them: nothing of how they are drawn. */
export function studentParts({ parts }: Pick<PaperContent, 'parts'>): { parts?: StudentPart[] } {
  if (!parts || parts.length === 0) return {};
  return { parts: parts.map(({ id, title, instructions }) => ({ id, title, instructions })) };
}

/**
 * Questions as a student gets them.
 *
 * @param seed what orders drawn by chance are drawn from: the id of the attempt
 */
export function studentQuestions(questions: readonly Question[], seed: string): StudentQuestion[] {
  return questions.map((question) => kindOf(question).forStudent(question, `${seed} ${question.id}`));
}
