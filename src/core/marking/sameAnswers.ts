import { kindOf, type Question } from '../kinds';
import type { Seat } from '../running/standing';
import { isIn } from '../running/standing';
import { awardFor, type Award } from '../scoring/scoreAttempt';
import type { HandMark } from '../model/sitting';

/** One answer as a marker meets it. */
export interface AnswerToMark {
  attemptId: string;
  studentId: string;
  text: string;
  award: Award;
  mark: HandMark | undefined;
}

/** Equal answers to one question: one thing to mark. */
export interface SameAnswers {
  /** The text they have in common after forgiving; '' for the blank ones. */
  id: string;
  /** How the first of them put it. */
  text: string;
  blank: boolean;
  answers: AnswerToMark[];
  /** Points they all have; null while any waits or they differ. */
  points: number | null;
  /** True when equal answers carry unequal points, or some have points and some wait. */
  uneven: boolean;
  waiting: number;
  aside: boolean;
}

/**
 * The answers to one question of everyone who is in, equal ones together. Short ones first, so that a
 * marker sees many at once; the blank ones last. The order does not depend on who wrote them nor on the marks.
 */
export function sameAnswers(question: Question, seats: readonly Seat[]): SameAnswers[] {
  const kind = kindOf(question);
  const groups = new Map<string, AnswerToMark[]>();
  for (const seat of seats) {
    if (!isIn(seat) || !seat.attempt?.questionIds.includes(question.id)) continue;
    const answer = seat.attempt.answers[question.id];
    const mark = seat.marks.find((each) => each.questionId === question.id);
    const blank = !answer || kind.isBlank(answer.response);
    const id = blank ? '' : kind.sameAs(question, answer.response);
    const toMark = {
      attemptId: seat.attempt.id,
      studentId: seat.student.id,
      text: blank ? '' : kind.asText(question, answer.response),
      award: awardFor(question, answer, mark),
      mark,
    };
    const group = groups.get(id);
    if (group) group.push(toMark);
    else groups.set(id, [toMark]);
  }
  return [...groups]
    .map(([id, answers]) => joined(id, answers))
    .sort(
      (a, b) => Number(a.blank) - Number(b.blank) || a.text.length - b.text.length || (a.id < b.id ? -1 : 1),
    );
}

function joined(id: string, answers: AnswerToMark[]): SameAnswers {
  const points = new Set(answers.map((answer) => answer.award.points));
  const [only = null] = points.size === 1 ? points : [null];
  return {
    id,
    text: answers[0]?.text ?? '',
    blank: id === '',
    answers,
    points: only,
    uneven: points.size > 1,
    waiting: answers.filter((answer) => answer.award.state === 'waiting').length,
    aside: answers.some((answer) => answer.award.aside),
  };
}

/** How many answers to each question wait for a mark, among those who are in. By question id. */
export function waitingByQuestion(seats: readonly Seat[]): Map<string, { waiting: number; all: number }> {
  const counts = new Map<string, { waiting: number; all: number }>();
  for (const seat of seats) {
    if (!isIn(seat)) continue;
    for (const award of seat.scorecard?.awards ?? []) {
      const count = counts.get(award.questionId) ?? { waiting: 0, all: 0 };
      count.all++;
      if (award.state === 'waiting') count.waiting++;
      counts.set(award.questionId, count);
    }
  }
  return counts;
}
