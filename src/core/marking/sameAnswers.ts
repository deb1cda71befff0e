import { isWritten } from '../attempts/answerFill';
import { countedAnswer } from '../attempts/late';
import { withoutFileNames } from '../basics/filesIn';
import { kindOf, type Question, type Response } from '../kinds';
import type { NearMiss } from '../kinds/QuestionKind';
import type { Seat } from '../seats/seats';
import { isIn } from '../seats/seats';
import { marksThatCount } from '../scoring/marksThatCount';
import { awardFor, type Award } from '../scoring/scoreAttempt';
import type { HandMark } from '../model/mark';
import type { AnswerPicture, Attempt, NotRead } from '../model/sitting';

/** One answer as a marker meets it. */
export interface AnswerToMark {
  attemptId: string;
  studentId: string;
  text: string;
  response: Response | null;
  /** Where it stands on paper. */
  pictures: readonly AnswerPicture[];
  /** Its words were typed from paper. */
  typed: boolean;
  /** Why nobody has read it yet. */
  notRead?: NotRead | undefined;
  award: Award;
  mark: HandMark | undefined;
  /** Every mark that it has from anyone, whether it counts or not. */
  marks: readonly HandMark[];
}

/** Equal answers to one question: one thing to mark. */
export interface SameAnswers {
  /** The text they have in common after forgiving; '' for the blank ones. */
  id: string;
  /** How the first of them put it. */
  text: string;
  blank: boolean;
  /** What stands on paper is all there is of it: it has no words. */
  onPaper: boolean;
  answers: AnswerToMark[];
  /** Points they all have; null while any waits or they differ. */
  points: number | null;
  /** True when equal answers carry unequal points, or some have points and some wait. */
  uneven: boolean;
  waiting: number;
  aside: boolean;
  /** The accepted answer these nearly are, put forward until the marker has given all of them points, be it none. */
  nearMiss: NearMiss | null;
}

/**
 * The answers to one question of everyone who is in, equal ones together. What is put forward comes first, then the
 * short ones, so that a marker sees many at once; the blank ones last. The order does not depend on who wrote them nor on the marks.
 */
export function sameAnswers(question: Question, seats: readonly Seat[]): SameAnswers[] {
  const before = grouped.get(question);
  const next = (before && patched(question, seats, before)) ?? regrouped(question, seats, before);
  grouped.set(question, next);
  return next.inOrder;
}

interface Groups {
  /** Whose answers they are. */
  seats: readonly Seat[];
  byId: Map<string, SameAnswers>;
  inOrder: SameAnswers[];
}

/** The groups of each question as they were last: whatever is the same in them is not made anew. */
const grouped = new WeakMap<Question, Groups>();

/**
 * The groups of before with the answers of those seats that changed; the same list where none did. Null where an answer came,
 * went, or reads otherwise: what stands together, or in what order, may have changed then.
 */
function patched(question: Question, seats: readonly Seat[], before: Groups): Groups | null {
  if (seats.length !== before.seats.length) return null;
  const changed = new Map<string, Map<AnswerToMark, AnswerToMark>>();
  for (let place = 0; place < seats.length; place++) {
    const [was, is] = [before.seats[place], seats[place]];
    if (was === is) continue;
    if (!was || !is) return null;
    const [old, now] = [answersOf(question, was), answersOf(question, is)];
    if (old.length !== now.length) return null;
    for (const [at, [id, answer]] of now.entries()) {
      const [oldId, oldAnswer] = old[at] ?? [];
      if (!oldAnswer || oldId !== id) return null;
      changed.set(id, (changed.get(id) ?? new Map<AnswerToMark, AnswerToMark>()).set(oldAnswer, answer));
    }
  }
  if (changed.size === 0) return { ...before, seats };
  const put = new Map<SameAnswers, SameAnswers>();
  for (const [id, answers] of changed) {
    const known = before.byId.get(id);
    const group =
      known &&
      joined(
        id,
        known.answers.map((each) => answers.get(each) ?? each),
      );
    if (!group || !standsAs(group, known)) return null;
    put.set(known, group);
  }
  for (const group of put.values()) before.byId.set(group.id, group);
  return { seats, byId: before.byId, inOrder: before.inOrder.map((group) => put.get(group) ?? group) };
}

/** Whether a group has its place in the order where it was before. */
const standsAs = (group: SameAnswers, before: SameAnswers): boolean =>
  before.text === group.text && (before.nearMiss === null) === (group.nearMiss === null);

/**
 * Groups of the answers of these seats; those with the same answers as before are the same objects, in the same order where it holds. The
 * same list where nothing changed.
 */
function regrouped(question: Question, seats: readonly Seat[], before: Groups | undefined): Groups {
  const groups = new Map<string, AnswerToMark[]>();
  for (const seat of seats)
    for (const [id, answer] of answersOf(question, seat)) {
      const group = groups.get(id);
      if (group) group.push(answer);
      else groups.set(id, [answer]);
    }
  const byId = new Map<string, SameAnswers>();
  let sameOrder = before !== undefined && before.byId.size === groups.size;
  let sameAll = sameOrder;
  for (const [id, answers] of groups) {
    const known = before?.byId.get(id);
    const same =
      known?.answers.length === answers.length && known.answers.every((each, at) => each === answers[at]);
    const group = same && known ? known : joined(id, answers);
    sameOrder &&= known !== undefined && standsAs(group, known);
    sameAll &&= group === known;
    byId.set(id, group);
  }
  if (sameAll && before) return { ...before, seats };
  const inOrder =
    sameOrder && before
      ? before.inOrder.map((group) => byId.get(group.id) ?? group)
      : [...byId.values()].sort(
          (a, b) =>
            Number(a.nearMiss === null) - Number(b.nearMiss === null) ||
            Number(a.blank) - Number(b.blank) ||
            a.text.length - b.text.length ||
            (a.id < b.id ? -1 : 1),
        );
  return { seats, byId, inOrder };
}

type Grouped = [group: string, answer: AnswerToMark];
const worked = new WeakMap<Seat, Map<Question, Grouped[]>>();

/** A seat's answers to one question, each with the group it is in: worked out once for each seat and question. */
function answersOf(question: Question, seat: Seat): readonly Grouped[] {
  if (!isIn(seat)) return [];
  const known = worked.get(seat)?.get(question);
  if (known) return known;
  const kind = kindOf(question);
  const all: Grouped[] = [];
  for (const { attempt, marks } of seat.toMark) {
    if (!attempt.questionIds.includes(question.id)) continue;
    const answer = countedAnswer(attempt, question.id);
    const mark = marksThatCount(marks).get(question.id);
    const blank = !answer || kind.isBlank(answer.response);
    const pictures = answer?.pictures ?? [];
    // Who marks is not told by the names of files whose they are.
    const response = attempt.files && answer ? withoutFileNames(answer.response) : answer?.response;
    all.push([
      blank ? unworded(attempt, question.id) : kind.sameAs(question, answer.response),
      {
        attemptId: attempt.id,
        studentId: seat.student.id,
        text: blank || !response ? '' : kind.asText(question, response),
        response: blank || !response ? null : response,
        pictures,
        typed: answer?.typed ?? false,
        notRead: attempt.unread?.[question.id],
        award: awardFor(question, answer, mark, attempt),
        mark,
        marks: marks.filter(({ questionId }) => questionId === question.id),
      },
    ]);
  }
  const ofSeat = worked.get(seat) ?? new Map<Question, Grouped[]>();
  worked.set(seat, ofSeat.set(question, all));
  return all;
}

/** No answer in words begins so. */
const onPaper = '\u0000';

/** The group of an answer without words: blank, or on paper, where each is an answer of its own. */
function unworded(attempt: Attempt, questionId: string): string {
  const why = attempt.unread?.[questionId];
  if (isWritten(countedAnswer(attempt, questionId)) || (why && why !== 'written'))
    return onPaper + attempt.id;
  return '';
}

function joined(id: string, answers: AnswerToMark[]): SameAnswers {
  const points = new Set(answers.map((answer) => answer.award.points));
  const [only = null] = points.size === 1 ? points : [null];
  return {
    id,
    text: answers[0]?.text ?? '',
    blank: id === '',
    onPaper: id.startsWith(onPaper),
    answers,
    points: only,
    uneven: points.size > 1,
    waiting: answers.filter(({ award }) => awaitsMarker(award)).length,
    aside: answers.some((answer) => answer.award.aside),
    nearMiss: answers.find(({ award }) => award.nearMiss !== null)?.award.nearMiss ?? null,
  };
}

/** Whether an answer waits for a marker: by hand, or since it is on paper and nobody has read it. */
export const awaitsMarker = ({ state }: Pick<Award, 'state'>): boolean =>
  state === 'waiting' || state === 'notRead';

/** Every mark that equal answers have from anyone, whether it counts or not. */
export const allMarksOf = (group: SameAnswers): HandMark[] => group.answers.flatMap(({ marks }) => marks);

/** The marks that a group of equal answers has. */
export const marksOf = (group: SameAnswers): HandMark[] => group.answers.flatMap(({ mark }) => mark ?? []);
