import { sum, sumBy } from 'remeda';
import type { Question } from '../kinds';
import { shuffled } from '../basics/shuffled';
import type { PaperContent, PaperPart } from './paper';

/** A run of questions: a part, or those before the first part. */
export interface Section {
  part: PaperPart | null;
  questions: Question[];
}

/** A paper as its runs of questions, in order. What belongs to no part comes first. */
export function sectionsOf(paper: Pick<PaperContent, 'questions' | 'parts'>): Section[] {
  const parts = paper.parts ?? [];
  const known = new Set(parts.map((part) => part.id));
  const loose = paper.questions.filter((question) => !known.has(question.partId ?? ''));
  const sections: Section[] = parts.map((part) => ({
    part,
    questions: paper.questions.filter((question) => question.partId === part.id),
  }));
  return loose.length > 0 || parts.length === 0 ? [{ part: null, questions: loose }, ...sections] : sections;
}

/** A paper's questions with more at its end, in the part that the last one is in. */
export function withAppended(questions: readonly Question[], more: readonly Question[]): Question[] {
  const partId = questions.at(-1)?.partId;
  const placed = more.map((question) => (partId === undefined ? question : { ...question, partId }));
  return [...questions, ...placed];
}

/** How many questions each student gets of a section. */
export function givenOf({ part, questions }: Section): number {
  return part === null || part.draw === null ? questions.length : Math.min(part.draw, questions.length);
}

/** How many questions each student gets of a paper. */
export function givenCount(paper: Pick<PaperContent, 'questions' | 'parts'>): number {
  return sumBy(sectionsOf(paper), givenOf);
}

/**
 * The questions one student gets, in the order they get them: drawn and shuffled as each part says. The same seed
 * gives the same questions, so that a draw can be made again.
 */
export function drawnQuestions(
  paper: Pick<PaperContent, 'questions' | 'parts' | 'shuffle'>,
  seed: string,
): Question[] {
  return sectionsOf(paper).flatMap((section) => {
    const { part, questions } = section;
    const order = shuffled(questions, `${seed} ${part?.id ?? 'loose'}`);
    const drawn = new Set(order.slice(0, givenOf(section)));
    const mixed = part === null ? paper.shuffle === true : part.shuffle;
    return (mixed ? order : questions).filter((question) => drawn.has(question));
  });
}

/** The paper with everything in it shuffled for each student, part by part. */
export function allShuffled<P extends Pick<PaperContent, 'parts' | 'shuffle'>>(paper: P): P {
  return { ...paper, shuffle: true, parts: (paper.parts ?? []).map((part) => ({ ...part, shuffle: true })) };
}

/** The points of a paper: not the same for everyone where questions of unequal points are drawn. */
export function paperPoints(paper: Pick<PaperContent, 'questions' | 'parts'>): {
  least: number;
  most: number;
} {
  const range = { least: 0, most: 0 };
  for (const section of sectionsOf(paper)) {
    const points = section.questions.map((question) => question.points).sort((a, b) => a - b);
    const count = givenOf(section);
    range.least += sum(points.slice(0, count));
    range.most += sum(points.slice(points.length - count));
  }
  return { least: Math.round(range.least * 100) / 100, most: Math.round(range.most * 100) / 100 };
}
