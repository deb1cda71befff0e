import type { Question } from '../kinds';
import { kindOf } from '../kinds';
import type { AnswerFigures, CategoryFigures } from './answerFigures';

/** One line on the screen in front of the class: what was answered and how often, without names. */
export interface ClassRow {
  id: string;
  label: string;
  count: number;
  /** 1 right, 0 wrong, between: part; null where only a marker can say. */
  share: number | null;
  /** What somebody wrote: shown only when the teacher picks it. */
  said: boolean;
  /** It would give the key away before that is shown. */
  givesAway: boolean;
}

/** So many wordings are offered to be shown. */
const mostSaid = 12;

/**
 * What can be shown to the class of one question: what it offers in its own order, and the commonest wordings. Wordings that one
 * student alone wrote are left out, as they may tell who it was.
 */
export function classRows(question: Question, { categories }: AnswerFigures): ClassRow[] {
  const row = ({ id, label, count, share }: CategoryFigures, said: boolean): ClassRow => ({
    ...{ id, label, count, share, said },
    givesAway: !said && !showsAll(question),
  });
  const offered = categories.filter((each) => each.offered && (each.count > 0 || showsAll(question)));
  const said = categories.filter((each) => !each.offered && each.count > 1).slice(0, mostSaid);
  return [...offered.map((each) => row(each, false)), ...said.map((each) => row(each, true))];
}

/** The lines that are shown: of what students wrote only what was picked, and nothing that gives the key away before it is shown. */
export const shownRows = (
  rows: readonly ClassRow[],
  picked: readonly string[],
  keyShown: boolean,
): ClassRow[] =>
  rows.filter(({ id, said, givesAway }) => (!said || picked.includes(id)) && (keyShown || !givesAway));

/** What is said to a class at the end of a question: the comment when right, else the one when wrong. */
export const classComment = ({ commentRight, commentWrong }: Question): string =>
  [commentRight, commentWrong].find((text) => text.trim() !== '') ?? '';

/** Options are all shown, also those nobody chose; what is accepted would give the key away before it is shown. */
const showsAll = (question: Question): boolean => kindOf(question).withOptionRight !== undefined;
