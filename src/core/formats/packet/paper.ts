import { z } from 'zod';
import { itemsOf } from '../../kinds/items';
import { kindOf, StudentQuestion, type Question } from '../../kinds';
import { Answers, type Attempt } from '../../model/sitting';
import { Id, Instant, Line } from '../../model/common';
import { RichText } from '../../model/richText';
import type { PaperContent } from '../../model/paper';

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
});
export type PaperPacket = z.infer<typeof PaperPacket>;

/** The packet of one attempt, with the questions in the order this student was given. */
export function paperPacket(paper: PaperContent, attempt: Attempt): PaperPacket {
  const byId = new Map(itemsOf(paper.questions).map((question) => [question.id, question]));
  return {
    attemptId: attempt.id,
    sittingId: attempt.sittingId,
    attemptNumber: attempt.number,
    title: paper.title,
    instructions: paper.instructions,
    questions: studentQuestions(
      attempt.questionIds.flatMap((id) => byId.get(id) ?? []),
      attempt.id,
    ),
    ...studentParts(paper),
    startedAt: attempt.startedAt,
    answers: attempt.answers,
    comeBack: attempt.comeBack,
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
