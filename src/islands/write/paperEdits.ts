import { kindNamed, kindOf, type KindName, type Question } from '@/core/kinds';
import type { Paper } from '@/core/model/paper';

/** Changes of a paper, as plain functions from one paper to the next. */

export function withQuestion(paper: Paper, question: Question): Paper {
  return { ...paper, questions: paper.questions.map((each) => (each.id === question.id ? question : each)) };
}

/** A new question of a kind after the one named, or at the end. */
export function withNewQuestion(paper: Paper, kind: KindName, afterId: string | null, newId: () => string) {
  return inserted(paper, kindNamed(kind).empty(newId), afterId);
}

export function withCopy(paper: Paper, question: Question, newId: () => string) {
  return inserted(paper, kindOf(question).copy(question, newId), question.id);
}

function inserted(
  paper: Paper,
  question: Question,
  afterId: string | null,
): { paper: Paper; question: Question } {
  const at = paper.questions.findIndex((each) => each.id === afterId);
  const questions = [...paper.questions];
  questions.splice(at < 0 ? questions.length : at + 1, 0, question);
  return { paper: { ...paper, questions }, question };
}

export function withoutQuestion(paper: Paper, id: string): Paper {
  return { ...paper, questions: paper.questions.filter((question) => question.id !== id) };
}

/** The question at `from` moved to `to`; the same paper when there is no such place. */
export function withMoved(paper: Paper, from: number, to: number): Paper {
  const question = paper.questions[from];
  if (!question || from === to || to < 0 || to >= paper.questions.length) return paper;
  const questions = paper.questions.filter((_, index) => index !== from);
  questions.splice(to, 0, question);
  return { ...paper, questions };
}
