import { countedAnswer } from '../attempts/late';
import { kindOf, type Question } from '../kinds';
import { marksThatCount } from '../scoring/marksThatCount';
import type { Seat } from '../seats/seats';
import { answerFigures, type AnswerFigures } from './answerFigures';
import { groupDifference } from './groupDifference';
import { fewestStudents, gravity, looksWrong, type LooksWrong } from './looksWrong';
import { mantelHaenszel } from './mantelHaenszel';
import { mean } from './mean';
import { correlationWithRest, questionMoments } from './moments';
import { matrixOf } from './seatsMatrix';

/** A question and what looks wrong with it. */
export interface Suspect {
  question: Question;
  findings: LooksWrong[];
}

/** Markers are compared from so many answers each, groups from so many students each. */
const fewestOfMarker = 10;
const fewestOfGroup = 30;

/**
 * What looks wrong in a sitting, question by question, gravest first; null with fewer students than can tell.
 *
 * @param seats of students who are in
 * @param groups whose members are held against all others, by name
 * @param answersOf what was answered, for callers that have it
 */
export function sittingLooksWrong(
  questions: readonly Question[],
  seats: readonly Seat[],
  groups: readonly { name: string; has: (seat: Seat) => boolean }[] = [],
  answersOf: (question: Question) => AnswerFigures = (question) => answerFigures(question, seats),
): Suspect[] | null {
  if (seats.length < fewestStudents) return null;
  const matrix = matrixOf(questions, seats);
  const moments = questionMoments(matrix);
  const late = notReached(seats);
  const suspects = questions.map((question): Suspect => {
    const column = matrix.questions.findIndex(({ id }) => id === question.id);
    const of = moments[column];
    // What a rule gives the points of has been put right already.
    if (!of || question.repaired?.rule) return { question, findings: [] };
    const findings = [
      ...looksWrong({
        question,
        scored: of.n,
        facility: of.n > 0 && question.points > 0 ? of.mean / question.points : null,
        discrimination: correlationWithRest(of),
        answers: answersOf(question),
      }),
      ...markersApart(question, seats),
      ...groupsApart(question, seats, groups),
      ...(late?.questionId === question.id
        ? [{ code: 'noTime' as const, students: late.students, of: seats.length }]
        : []),
    ];
    return {
      question,
      findings: findings.sort((a, b) => gravity.indexOf(a.code) - gravity.indexOf(b.code)),
    };
  });
  const worst = ({ findings: [first] }: Suspect) => (first ? gravity.indexOf(first.code) : gravity.length);
  return suspects.filter(({ findings }) => findings.length > 0).sort((a, b) => worst(a) - worst(b));
}

/**
 * The first question that a third of the students never came to: from it on they left everything blank, and a quarter at least
 * the last two. Null where there is none.
 */
function notReached(seats: readonly Seat[]): { questionId: string; students: number } | null {
  const runs = seats.flatMap(({ attempt }) => {
    if (!attempt || attempt.questionIds.length < 4) return [];
    const ids = attempt.questionIds;
    const last = ids.findLastIndex((id) => countedAnswer(attempt, id) !== undefined);
    // Who answered nothing at all did not run out of time.
    return last === -1 ? [] : [{ ids, from: last + 1 }];
  });
  const short = (by: number) => runs.filter(({ ids, from }) => ids.length - from >= by).length;
  if (runs.length < fewestStudents || short(1) < runs.length / 3 || short(2) < runs.length / 4) return null;
  const order = runs[0]?.ids ?? [];
  for (const [place, questionId] of order.entries()) {
    const students = runs.filter(({ ids, from }) => from <= place && ids[place] === questionId).length;
    if (students >= runs.length / 3) return { questionId, students };
  }
  return null;
}

/** Markers whose points are apart from the others’ by a tenth of the maximum and more, for students of equal totals. */
function markersApart(question: Question, seats: readonly Seat[]): LooksWrong[] {
  if (kindOf(question).scoredBy !== 'hand') return [];
  const rows = seats.flatMap(({ marks, scorecard }) => {
    const mark = marksThatCount(marks).get(question.id);
    const points = scorecard?.awards.find(({ questionId }) => questionId === question.id)?.points ?? null;
    return mark && points !== null && scorecard
      ? [{ markerId: mark.markerId, points, rest: scorecard.total - points }]
      : [];
  });
  const markers = [...new Set(rows.map(({ markerId }) => markerId))];
  if (markers.length < 2) return [];
  const left = residuals(rows);
  return markers.flatMap((markerId) => {
    const own = left.filter((_, row) => rows[row]?.markerId === markerId);
    const others = left.filter((_, row) => rows[row]?.markerId !== markerId);
    if (own.length < fewestOfMarker || others.length < fewestOfMarker) return [];
    const apart = groupDifference(own, others);
    if (!apart || apart.p >= 0.003 || Math.abs(apart.difference) < 0.1 * question.points) return [];
    return [{ code: 'markerApart' as const, markerId, difference: apart.difference, answers: own.length }];
  });
}

/** What is left of the points once what goes with the rest is taken out: a straight line by least squares. */
function residuals(rows: readonly { points: number; rest: number }[]): number[] {
  const [centre, middle] = [mean(rows.map(({ points }) => points)), mean(rows.map(({ rest }) => rest))];
  let [together, squares] = [0, 0];
  for (const { points, rest } of rows) {
    together += (points - centre) * (rest - middle);
    squares += (rest - middle) ** 2;
  }
  const slope = squares === 0 ? 0 : together / squares;
  return rows.map(({ points, rest }) => points - centre - slope * (rest - middle));
}

/** Groups that do otherwise than others of equal totals, by a large difference that is hardly by chance. */
function groupsApart(
  question: Question,
  seats: readonly Seat[],
  groups: readonly { name: string; has: (seat: Seat) => boolean }[],
): LooksWrong[] {
  if (groups.length < 2) return [];
  return groups.flatMap(({ name, has }) => {
    const rows = seats.flatMap((seat) => {
      const award = seat.scorecard?.awards.find(({ questionId }) => questionId === question.id);
      return award && award.points !== null && seat.scorecard
        ? [{ first: has(seat), right: award.points >= award.max, total: Math.round(seat.scorecard.total) }]
        : [];
    });
    const own = rows.filter(({ first }) => first).length;
    if (own < fewestOfGroup || rows.length - own < fewestOfGroup) return [];
    const found = mantelHaenszel(rows);
    return found && found.p < 0.001 && Math.abs(found.delta) >= 1.5
      ? [{ code: 'groupApart' as const, group: name, delta: found.delta, answers: own }]
      : [];
  });
}
