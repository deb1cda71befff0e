import { withWorking } from '@/core/kinds/withWorking';
import { kindNamed, kindOf, type KindName, type Question } from '@/core/kinds';
import type { Paper, PaperPart } from '@/core/model/paper';
import { sectionsOf } from '@/core/model/parts';

/** Changes of a paper, as plain functions from one paper to the next. */

/** One row of the paper as it is written: the heading of a part, or a question. */
export type PaperRow = { part: PaperPart } | { question: Question };

export const rowId = (row: PaperRow) => ('part' in row ? row.part.id : row.question.id);

/** A paper as rows: each part's heading before its questions. */
export function rowsOf(paper: Paper): PaperRow[] {
  return sectionsOf(paper).flatMap(({ part, questions }) => [
    ...(part ? [{ part }] : []),
    ...questions.map((question) => ({ question })),
  ]);
}

/** The paper that rows in this order are: a question belongs to the part whose heading is the last before it. */
function fromRows(paper: Paper, rows: readonly PaperRow[]): Paper {
  const parts: PaperPart[] = [];
  const questions: Question[] = [];
  for (const row of rows) {
    if ('part' in row) parts.push(row.part);
    else questions.push(inPart(row.question, parts.at(-1)?.id));
  }
  const { parts: _, ...rest } = paper;
  return { ...rest, questions, ...(parts.length > 0 && { parts }) };
}

function inPart(question: Question, partId: string | undefined): Question {
  if (question.partId === partId) return question;
  const { partId: _, ...rest } = question;
  return { ...rest, ...(partId !== undefined && { partId }) } as Question; // the kind's own fields are untouched
}

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
  const rows = rowsOf(paper);
  const at = rows.findIndex((row) => rowId(row) === afterId);
  rows.splice(at < 0 ? rows.length : at + 1, 0, { question });
  const next = fromRows(paper, rows);
  return { paper: next, question: next.questions.find((each) => each.id === question.id) ?? question };
}

export function withoutQuestion(paper: Paper, id: string): Paper {
  return { ...paper, questions: paper.questions.filter((question) => question.id !== id) };
}

/**
 * The row at `from` moved to `to`; the same paper when there is no such place. The heading of a part takes its
 * questions along, and stops before or after another part.
 */
export function withMoved(paper: Paper, from: number, to: number): Paper {
  const rows = rowsOf(paper);
  const row = rows[from];
  if (!row || from === to || to < 0 || to >= rows.length) return paper;
  if ('part' in row) return withPartMoved(paper, row.part, rows[to], to > from);
  const rest = rows.filter((_, index) => index !== from);
  rest.splice(to, 0, row);
  return fromRows(paper, rest);
}

function withPartMoved(paper: Paper, part: PaperPart, onto: PaperRow | undefined, down: boolean): Paper {
  const parts = (paper.parts ?? []).filter((each) => each.id !== part.id);
  const target = onto && ('part' in onto ? onto.part.id : onto.question.partId);
  const at = parts.findIndex((each) => each.id === target);
  // Over the questions before the first part there is no place but the first.
  if (target === part.id) return paper;
  parts.splice(at < 0 ? 0 : down ? at + 1 : at, 0, part);
  return fromRows(paper, rowsOf({ ...paper, parts }));
}

/** A part that begins after the question named, or at the end; what follows up to the next part is in it. */
export function withNewPart(paper: Paper, afterId: string | null, newId: () => string) {
  const part: PaperPart = {
    id: newId(),
    title: `Part ${(paper.parts?.length ?? 0) + 1}`,
    instructions: '',
    draw: null,
    shuffle: false,
    newPage: false,
  };
  const rows = rowsOf(paper);
  const at = rows.findIndex((row) => rowId(row) === afterId);
  rows.splice(at < 0 ? rows.length : at + 1, 0, { part });
  return { paper: fromRows(paper, rows), part };
}

export function withPart(paper: Paper, part: PaperPart): Paper {
  return { ...paper, parts: (paper.parts ?? []).map((each) => (each.id === part.id ? part : each)) };
}

/** Without the heading of a part: its questions stay, and join what is before it. */
export function withoutPart(paper: Paper, id: string): Paper {
  return fromRows(
    paper,
    rowsOf(paper).filter((row) => rowId(row) !== id),
  );
}

/** What can be done to many questions at once. */
export type ManyChange =
  | { what: 'points'; points: number }
  | { what: 'addTag' | 'removeTag'; tag: string }
  | { what: 'shuffle'; on: boolean }
  | { what: 'working'; keyShare: number | null }
  | { what: 'moveTo'; partId: string | null }
  | { what: 'delete' };

/** The paper with many questions changed at once; what does not fit a question's kind leaves it as it is. */
export function withMany(paper: Paper, ids: ReadonlySet<string>, change: ManyChange): Paper {
  if (change.what === 'delete')
    return { ...paper, questions: paper.questions.filter((question) => !ids.has(question.id)) };
  const questions = paper.questions.map((question) =>
    ids.has(question.id) ? changedQuestion(question, change) : question,
  );
  // Into the order that their parts now give them.
  return fromRows(paper, rowsOf({ ...paper, questions }));
}

function changedQuestion(question: Question, change: Exclude<ManyChange, { what: 'delete' }>): Question {
  switch (change.what) {
    case 'points':
      return { ...question, points: change.points };
    case 'addTag':
      return question.tags.includes(change.tag)
        ? question
        : { ...question, tags: [...question.tags, change.tag] };
    case 'removeTag':
      return { ...question, tags: question.tags.filter((tag) => tag !== change.tag) };
    case 'shuffle':
      return kindOf(question).withShuffle?.(question, change.on) ?? question;
    case 'working':
      return withWorking(question, change.keyShare);
    case 'moveTo':
      return inPart(question, change.partId ?? undefined);
  }
}
