import { kindNamed, type KindName, type Question } from '../kinds';
import { answersOfColumn } from '../kinds/sheet/SheetKind';
import { kindLike, sheetOf } from '../formats/sheet/kinds';
import { mostQuestions } from '../model/paper';
import type { TableRow } from '../formats/csv/table';
import type { AnswerColumns } from './columns';

/** What the teacher says of a question that is made from a column. */
export interface ColumnChoices {
  /** Absent: as the answers look. */
  kind?: KindName;
  points?: number;
  tags?: string[];
  /** The right answer as it was typed; absent or blank: that of the row with the key. */
  key?: string;
}

/** A key that the question cannot have: it is none of the answers there are to it. */
export interface BadKey {
  column: number;
  cell: string;
}

export interface SheetPaper {
  questions: Question[];
  /** In the row of the key, or as they were typed. */
  badKeys: BadKey[];
}

/**
 * The questions of a paper that is made from a sheet of answers: of a kind that its answers look like, or of the one chosen,
 * with what was answered to choose from, and the key of a row where one is given.
 *
 * @param rows the students', without heading and key
 * @param key the row that has the right answers
 * @param choices by column
 */
export function paperFromSheet(
  rows: readonly TableRow[],
  { roles, names }: AnswerColumns,
  key: TableRow | null,
  choices: Readonly<Record<number, ColumnChoices>>,
  newId: () => string,
): SheetPaper {
  const made: SheetPaper = { questions: [], badKeys: [] };
  for (const [column, role] of roles.entries()) {
    if (role.is !== 'answers' || made.questions.length === mostQuestions) continue;
    const { kind: chosen, points, tags, key: typed } = choices[column] ?? {};
    const right = typed?.trim() || (key?.cells[column]?.trim() ?? '');
    const cells = rows.map((row) => row.cells[column] ?? '');
    // What a question is, its answers say; what there is to choose from, the key too.
    const kind = chosen ?? kindLike(answersOfColumn(cells));
    const answers = answersOfColumn([...cells, right]);
    const empty = kindNamed(kind).empty(newId);
    const read = sheetOf(kind).fromAnswers?.read(empty, answers, newId) ?? empty;
    const question: Question = {
      ...read,
      id: role.questionId,
      stem: (names[column] ?? '').slice(0, 5_000),
      points: points ?? 1,
      tags: tags ?? [],
    };
    const response = right ? kindNamed(kind).fromText(question, right) : null;
    const keyed = response ? kindNamed(kind).keyedBy(question, response, newId) : question;
    // A number that is none makes no key either.
    const isKeyed = kindNamed(kind).scoredBy === 'hand' ? response !== null : kindNamed(kind).hasKey(keyed);
    if (right && !isKeyed) made.badKeys.push({ column, cell: right });
    made.questions.push(keyed);
  }
  return made;
}
