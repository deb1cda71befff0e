import { answerFill } from '../attempts/answerFill';
import { countedAnswers } from '../attempts/late';
import { kindOf, type Question } from '../kinds';
import type { NearMiss } from '../kinds/QuestionKind';
import { byRule, lastFloor, standingIn } from './byRepair';
import type { Answer, Attempt } from '../model/sitting';
import type { HandMark } from '../model/mark';
import { correctionOf } from '../model/mark';
import { counts } from './counts';
import { marksThatCount } from './marksThatCount';
import { practiceOf, practiceShare } from '../attempts/practice';
import { hundredths, roundPoints } from '../basics/points';

/** Where the points of one answer stand. */
export type AwardState =
  | 'notAnswered'
  | 'noKey'
  /** On paper, and not read yet: neither wrong nor blank. */
  | 'notRead'
  | 'waiting'
  | 'byKey'
  | 'byHand'
  | 'overridden'
  /** By a repair: everyone has the points, or the question does not count. */
  | 'given'
  | 'dropped';

/** Points for one answer, with everything a view needs to draw it. */
export interface Award {
  questionId: string;
  max: number;
  state: AwardState;
  /** Null while nobody, key or hand, has given any. */
  points: number | null;
  /** What the key alone gives; null for kinds marked by hand and where there is no key. */
  byKey: number | null;
  /** False when the student left it blank. */
  answered: boolean;
  /** True when only some of what is asked was filled in. */
  half: boolean;
  /** Put aside by the marker for a second look. */
  aside: boolean;
  /** What a wrong answer comes near to: put forward until the marker gives it points, be it none. */
  nearMiss: NearMiss | null;
  /** Where it was corrected: what the new answer alone has, null while nobody marked it, and what was won by it. */
  correction?: { points: number | null; gained: number };
}

/** All awards of an attempt and their total: always computed, never typed. */
export interface Scorecard {
  attemptId: string;
  studentId: string;
  awards: Award[];
  /** Sum of the points given so far. */
  total: number;
  /** Sum of the maxima of the questions that were given. */
  max: number;
  /** Sum of the maxima of the questions whose answers have points: what the total is of, so far. */
  scoredMax: number;
  /** How many answers wait for a mark by hand. */
  waiting: number;
  /** How many answers have no key yet. */
  noKey: number;
  /** How many answers on paper are not read yet. */
  notRead: number;
  /** True when nothing waits, has no key, is not read or is put aside. */
  final: boolean;
  /** Where the mean of several attempts counts: each of them. Then the awards are of the last, the total of all. */
  meanOf?: { attemptId: string; total: number; max: number }[];
}

/**
 * The total as a share of the points to be had where there are points so far, 0 to 1: what is unmarked or has no key is not
 * counted as nothing. Null while nothing has points; 0 where there are none to be had.
 */
export function totalShare({
  total,
  max,
  scoredMax,
}: Pick<Scorecard, 'total' | 'max' | 'scoredMax'>): number | null {
  if (max === 0) return 0;
  return scoredMax > 0 ? total / scoredMax : null;
}

/** The part of an attempt that scoring looks at. */
export type ScoredAttempt = Pick<
  Attempt,
  'id' | 'studentId' | 'questionIds' | 'answers' | 'late' | 'practice' | 'corrections' | 'unread'
>;

/**
 * The scorecard of one attempt: the key's points for what a key can score, the marker's for the rest, the
 * marker's before the key's where there are both.
 *
 * A question that the attempt was not given has no award. A blank answer to a question with a key has 0 points;
 * a blank answer to a question marked by hand waits, for only a marker says what it is worth. An answer whose
 * question has no key yet has no points and is not wrong.
 *
 * Where nobody may lose by a repair, an attempt that would have a smaller share of the points by it keeps what is missing, at
 * the question that was repaired.
 *
 * @param questions the questions of the version that is scored, with what repairs make of them
 * @param marks the hand marks of this attempt, in any order
 */
export function scoreAttempt(
  questions: readonly Question[],
  attempt: ScoredAttempt,
  marks: readonly HandMark[],
): Scorecard {
  const card = cardOf(questions, attempt, marks);
  const floor = lastFloor(questions);
  return floor ? raised(card, scoreAttempt(floor.before, attempt, marks), floor.questionId) : card;
}

function cardOf(
  questions: readonly Question[],
  attempt: ScoredAttempt,
  marks: readonly HandMark[],
): Scorecard {
  const markOf = marks.length > 0 ? marksThatCount(marks) : noMarks;
  const answers = countedAnswers(attempt);
  const awards: Award[] = [];
  for (const question of givenOf(questions, attempt.questionIds))
    awards.push(
      withCorrection(
        question,
        awardFor(question, answers[question.id], markOf.get(question.id), attempt),
        attempt,
        markOf,
      ),
    );
  standIn(questions, awards);

  // One pass, and no list made for it: this runs for every attempt of a sitting. Points add up in hundredths.
  let [total, max, scoredMax, waiting, noKey, notRead, aside] = [0, 0, 0, 0, 0, 0, 0];
  for (const award of awards) {
    const most = hundredths(award.max);
    max += most;
    if (award.points !== null) {
      total += hundredths(award.points);
      scoredMax += most;
    }
    if (award.state === 'waiting') waiting++;
    if (award.state === 'noKey') noKey++;
    if (award.state === 'notRead') notRead++;
    if (award.aside) aside++;
  }
  return {
    attemptId: attempt.id,
    studentId: attempt.studentId,
    awards,
    total: total / 100,
    max: max / 100,
    scoredMax: scoredMax / 100,
    waiting,
    noKey,
    notRead,
    final: waiting + noKey + notRead + aside === 0,
  };
}

/** An award with what a correction won back of what was missing: never less than before. */
function withCorrection(
  question: Question,
  award: Award,
  attempt: ScoredAttempt,
  markOf: ReadonlyMap<string, HandMark>,
): Award {
  const correction = attempt.corrections?.[question.id];
  if (!correction || award.points === null || !counts(question)) return award;
  const mark = markOf.get(correctionOf(question.id));
  const { points } = computedAward(question, { response: correction.response, at: correction.at }, mark);
  const gained = points === null ? 0 : roundPoints(Math.max(0, points - award.points) * correction.share);
  return { ...award, points: roundPoints(award.points + gained), correction: { points, gained } };
}

/** Gives questions that were dropped on the same maximum the share of their points that the attempt has of the rest. */
function standIn(questions: readonly Question[], awards: Award[]): void {
  const standing = standingIn(questions);
  if (standing.size === 0) return;
  let [points, max] = [0, 0];
  for (const award of awards) {
    if (standing.has(award.questionId) || award.points === null) continue;
    points += award.points;
    max += award.max;
  }
  for (const [index, award] of awards.entries())
    if (standing.has(award.questionId))
      awards[index] = { ...award, points: max > 0 ? roundPoints((points / max) * award.max) : null };
}

/** A scorecard with what is missing to the share of the points that there was before, given at one question. */
function raised(card: Scorecard, before: Scorecard, questionId: string): Scorecard {
  const [share, had] = [totalShare(card), totalShare(before)];
  const at = card.awards.findIndex((award) => award.questionId === questionId);
  const award = card.awards[at];
  if (share === null || had === null || share >= had || !award || award.points === null) return card;
  const missing = Math.ceil(had * hundredths(card.scoredMax) - 1e-6) - hundredths(card.total);
  if (missing <= 0) return card;
  const points = (hundredths(award.points) + missing) / 100;
  return {
    ...card,
    awards: card.awards.with(at, { ...award, points }),
    total: (hundredths(card.total) + missing) / 100,
  };
}

const noMarks: ReadonlyMap<string, HandMark> = new Map();

/** The questions that an attempt was given, in the order of the paper. */
function givenOf(questions: readonly Question[], ids: readonly string[]): readonly Question[] {
  if (ids.length === questions.length && questions.every(({ id }, index) => id === ids[index]))
    return questions;
  const given = new Set(ids);
  return questions.filter(({ id }) => given.has(id));
}

/** The award for one answer of an attempt; in practice, with what tries and hints took off. */
export function awardFor(
  question: Question,
  answer: Answer | undefined,
  mark: HandMark | undefined,
  { practice, unread }: Pick<Attempt, 'practice' | 'unread'>,
): Award {
  const notRead = unread !== undefined && Object.hasOwn(unread, question.id);
  return mark || practice || notRead
    ? computedAward(question, answer, mark, practice, notRead)
    : awardByAnswer(question, answer);
}

/** Awards without a mark, by question and answer: of ten thousand answers to a choice there are few that differ. */
const awards = new WeakMap<Question, Map<string, Award>>();
/** Of one question no more are held: words of one's own are all different. */
const mostHeld = 1_000;

/** The same object for the same answer to the same question. */
function awardByAnswer(question: Question, answer: Answer | undefined): Award {
  const known = awards.get(question) ?? new Map<string, Award>();
  if (known.size === 0) awards.set(question, known);
  const key = answerKey(question, answer);
  const held = known.get(key);
  if (held) return held;
  const award = computedAward(question, answer, undefined);
  if (known.size < mostHeld) known.set(key, award);
  return award;
}

/** What of an answer decides its award as long as nobody has marked it: by hand, only how far it was filled in. */
function answerKey(question: Question, answer: Answer | undefined): string {
  if (answer === undefined) return '';
  if (kindOf(question).scoredBy === 'hand') return answerFill(question, answer);
  const fields: unknown[] = Object.values(answer.response);
  const [only] = fields;
  if (fields.length > 1) return JSON.stringify(fields);
  // Most are a text, or an id or two.
  if (typeof only === 'string') return `=${only}`;
  if (Array.isArray(only) && only.length === 1 && typeof only[0] === 'string') return `:${only[0]}`;
  return JSON.stringify(only);
}

function computedAward(
  question: Question,
  answer: Answer | undefined,
  mark: HandMark | undefined,
  practice?: Attempt['practice'],
  notRead = false,
): Award {
  const kind = kindOf(question);
  const fill = answerFill(question, answer);
  const answered = fill !== 'open';
  const byHand = kind.scoredBy === 'hand';
  const byKey =
    byHand || notRead || !kind.hasKey(question)
      ? null
      : answered && answer
        ? keyPoints(question, answer, practice)
        : 0;
  const marked = mark !== undefined && mark.points !== null;
  const rule = question.repaired?.rule;
  const instead = rule && byRule(rule, question.points, answered, mark?.points ?? null);
  if (instead)
    return {
      questionId: question.id,
      ...instead,
      byKey,
      answered,
      half: fill === 'half',
      aside: false,
      nearMiss: null,
    };
  // One literal of one shape: this runs once for every answer of a sitting.
  return {
    questionId: question.id,
    max: question.points,
    state: marked
      ? byHand
        ? 'byHand'
        : 'overridden'
      : notRead
        ? 'notRead'
        : unmarkedState(byHand, byKey, answered),
    points: marked ? mark.points : byKey,
    byKey,
    answered,
    half: fill === 'half',
    aside: mark?.aside ?? false,
    nearMiss:
      !marked && byKey !== null && answered && answer && byKey < question.points
        ? (kind.nearMiss?.(question, answer.response) ?? null)
        : null,
  };
}

function unmarkedState(byHand: boolean, byKey: number | null, answered: boolean): AwardState {
  if (byHand) return 'waiting';
  if (byKey === null) return 'noKey';
  return answered ? 'byKey' : 'notAnswered';
}

function keyPoints(question: Question, answer: Answer, practice: Attempt['practice']): number {
  const share = practice
    ? practiceShare(question, practiceOf({ practice }, question.id), answer, practice.lossPerTry)
    : kindOf(question).score(question, answer.response).share;
  return roundPoints(share * question.points);
}
