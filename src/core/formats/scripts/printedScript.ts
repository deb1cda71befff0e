import { isWritten } from '../../attempts/answerFill';
import { countedAnswer } from '../../attempts/late';
import type { RichText } from '../../basics/richText';
import { plainText } from '../../basics/richWords';
import type { FileRef } from '../../basics/file';
import { kindOf, type Question } from '../../kinds';
import { numbersOf } from '../../kinds/itemNumbers';
import { schemeLines, type ScriptLine } from '../../handback/scriptParts';
import type { GradeScale } from '../../model/gradeScale';
import { wholeAttempt, type HandMark } from '../../model/mark';
import type { Attempt } from '../../model/sitting';
import { marksOn, surfaces } from '../../marking/work/layer';
import { fullName } from '../../model/names';
import type { WorkMark } from '../../model/workMark';
import { counts, pointsTold } from '../../scoring/counts';
import { gradeOf } from '../../scoring/gradeOf';
import type { Award } from '../../scoring/scoreAttempt';
import { marksThatCount } from '../../scoring/marksThatCount';
import { commentsByKey } from '../../scoring/commentsByKey';
import { commentText } from '../../handback/commentText';
import type { Seat } from '../../seats/seats';

/** What of scripts is printed: with all marks, the answers alone, or the first page of each. */
export type PrintForm = 'marked' | 'answers' | 'first';

/** One question of a printed script. */
export interface PrintedQuestion {
  number: string;
  stem: RichText;
  max: number;
  /** Null: none yet, or not printed. */
  points: number | null;
  words: string;
  /** Where some of the words are formulas: those that are none, and the formulas as TeX. */
  set?: { words: string; maths: readonly string[] };
  /** It has no words here: it stands on a page behind, or nobody has read it yet. */
  wordless?: 'onPaper' | 'notRead';
  /** `canvas`: the id of the picture it is drawn on. */
  drawing: { lines: readonly (readonly number[])[]; canvas: string | null } | null;
  files: readonly FileRef[];
  work: readonly WorkMark[];
  lines: readonly ScriptLine[];
  comments: readonly string[];
}

/** A script as it is printed. */
export interface PrintedScript {
  studentId: string;
  name: string;
  /** Number and groups. */
  about: string;
  title: string;
  form: PrintForm;
  total: number;
  max: number;
  scoredMax: number;
  grade: string | null;
  comment: string;
  questions: readonly PrintedQuestion[];
  /** The student's own pages, in order, with the marks that lie on them; none where nothing is on paper. */
  pages: readonly HandedPage[];
}

/** A page that a student wrote on. */
export interface HandedPage {
  fileId: string;
  work: readonly WorkMark[];
}

/** What scripts of a sitting are printed with. */
export interface PrintAbout {
  title: string;
  questions: readonly Question[];
  groupName: ReadonlyMap<string, string>;
  scale: GradeScale | null;
  form: PrintForm;
}

interface QuestionAbout {
  question: Question;
  number: string;
  award: Award;
  mark: HandMark | undefined;
  /** Whether points, lines and comments are printed. */
  marked: boolean;
}

/** One question of a script for paper: what was answered, and what was said of it. */
function printedQuestion(
  { student: { givenName: firstName } }: Seat,
  attempt: Attempt,
  { question, number, award, mark, marked }: QuestionAbout,
): PrintedQuestion {
  const answer = countedAnswer(attempt, question.id);
  const kind = kindOf(question);
  const pieces = answer
    ? (kind.pieces?.(question, answer.response) ?? {
        words: kind.asText(question, answer.response),
        files: [],
      })
    : { words: '', files: [] };
  const own = commentText(mark?.comment ?? '', { firstName, question: number });
  const correction = attempt.corrections?.[question.id];
  const corrected =
    correction && award.correction
      ? [`Corrected: ${kind.asText(question, correction.response)} (+${award.correction.gained})`]
      : [];
  return {
    number,
    stem: question.stem,
    max: question.points,
    points: marked && counts(question) ? pointsTold(award) : null,
    words: pieces.words,
    ...(pieces.set && { set: pieces.set }),
    ...(award.state === 'notRead'
      ? { wordless: 'notRead' as const }
      : isWritten(answer) && !pieces.words && { wordless: 'onPaper' as const }),
    drawing: pieces.drawing
      ? { lines: pieces.drawing.lines, canvas: pieces.drawing.canvas?.asset ?? null }
      : null,
    files: pieces.files,
    work: marked ? (mark?.work ?? []) : [],
    lines: marked ? schemeLines(question, mark) : [],
    comments: marked ? [...(own ? [own] : []), ...commentsByKey(question, answer, award), ...corrected] : [],
  };
}

/** The script of one student for paper; null where there is no attempt. */
export function printedScript(seat: Seat, about: PrintAbout): PrintedScript | null {
  const { attempt, scorecard, student } = seat;
  if (!attempt || !scorecard) return null;
  const { questions, form, scale, groupName, title } = about;
  const marked = form !== 'answers';
  const markOf = marksThatCount(seat.marks);
  const numbers = numbersOf(questions);
  const awardOf = new Map(scorecard.awards.map((award) => [award.questionId, award]));
  const firstName = student.givenName;
  const rows = questions.flatMap((question): PrintedQuestion[] => {
    const award = awardOf.get(question.id);
    if (!award) return [];
    const number = numbers.get(question.id) ?? '';
    return [
      printedQuestion(seat, attempt, { question, number, award, mark: markOf.get(question.id), marked }),
    ];
  });
  const groups = student.groupIds.flatMap((id) => groupName.get(id) ?? []);
  return {
    ...{ studentId: student.id, name: fullName(student), title, form },
    about: [student.number, ...groups].filter(Boolean).join(' · '),
    total: scorecard.total,
    max: scorecard.max,
    scoredMax: scorecard.scoredMax,
    grade:
      marked && scale && scorecard.final
        ? gradeOf(scale, { points: scorecard.total, max: scorecard.max })
        : null,
    comment: marked ? commentText(markOf.get(wholeAttempt)?.comment ?? '', { firstName, question: '' }) : '',
    questions: rows,
    pages: form === 'first' || !attempt.copy ? [] : handedPagesOf(attempt, rows),
  };
}

/** The pages of an attempt on paper: marks of every question lie on them. */
const handedPagesOf = (attempt: Attempt, rows: readonly PrintedQuestion[]): HandedPage[] =>
  (attempt.files ?? []).map(({ id }) => ({
    fileId: id,
    work: rows.flatMap(({ work }) => marksOn(work, surfaces.file(id))),
  }));

/** Every text of a script, for the fonts it needs. */
export const textsOf = ({ name, about, title, comment, questions }: PrintedScript): string[] => [
  ...[name, about, title, comment],
  ...questions.flatMap(({ stem, words, comments, lines, work, files }) => [
    ...[plainText(stem), words, ...comments],
    ...lines.flatMap(({ text, group = '' }) => [text, group]),
    ...work.map(({ text }) => text),
    ...files.map(({ name: file }) => file),
  ]),
];
