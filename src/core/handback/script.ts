import { countedAnswer } from '../attempts/late';
import { z } from 'zod';
import { kindOf, Response, StudentQuestion, type Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import { numbersOf } from '../kinds/itemNumbers';
import { openableLink } from '../basics/link';
import { Id, Instant, Line, Points, Text } from '../basics/common';
import { AnswerPicture, type Attempt } from '../model/sitting';
import { isShown, type Shown, type Shows } from '../model/release';
import type { GradeScale } from '../model/gradeScale';
import { gradeOf } from '../scoring/gradeOf';
import { wholeAttempt, type HandMark } from '../model/mark';
import { WorkMarks } from '../model/workMark';
import { pointsTold } from '../scoring/counts';
import { commentsByKey } from '../scoring/commentsByKey';
import { marksThatCount } from '../scoring/marksThatCount';
import { commentText } from './commentText';
import type { Repair } from '../model/repair';
import {
  ClassFigures,
  classFigures,
  placeOf,
  schemeLines,
  ScriptLine,
  ScriptTopic,
  topicPoints,
  withoutUnfinished,
} from './scriptParts';
import { awardFor, scoreAttempt, totalShare, type Award, type Scorecard } from '../scoring/scoreAttempt';

export const Verdict = z.enum(['right', 'part', 'wrong', 'blank', 'noKey']);
export type Verdict = z.infer<typeof Verdict>;

export const ScriptQuestion = z.object({
  /** As on the paper: "3", or "3 w" for its working. */
  number: Line,
  question: StudentQuestion,
  points: Points.optional(),
  response: Response.nullable().optional(),
  /** Where the answer stands on the student's own pages. */
  pictures: AnswerPicture.array().max(20).optional(),
  verdict: Verdict.optional(),
  accepted: Text.optional(),
  comments: Text.array().optional(),
  /** Of its scheme: those that were met, or all. */
  lines: ScriptLine.array().optional(),
  link: z.object({ href: z.url({ protocol: /^https?$/ }), text: Line }).optional(),
  /** How it was repaired after it was sat, with what the answer had before. */
  repair: z
    .object({
      at: Instant,
      reason: Line,
      how: z.enum(['key', 'everyone', 'answered', 'dropped']),
      before: Points.nullable(),
    })
    .optional(),
  /** The marker's marks on the answer itself. */
  work: WorkMarks.optional(),
  /** Answered again; `points` is what the new answer alone has: null while nobody marked it. */
  correction: z
    .object({
      response: Response,
      at: Instant,
      points: Points.nullable().optional(),
      gained: Points.optional(),
    })
    .optional(),
  /** What the student asked about its mark, and what was said to it. */
  asked: z
    .object({ words: Line, at: Instant, answer: z.object({ words: Line, at: Instant }).nullable() })
    .array()
    .optional(),
  /** Whether it may be answered again now, and for which share of what is missing. */
  mayCorrect: z.object({ share: z.number(), until: Instant.nullable() }).optional(),
  mayAsk: z.boolean().optional(),
});
export type ScriptQuestion = z.infer<typeof ScriptQuestion>;

/** What a student gets back: only what was let out. What was not is absent, not hidden. */
export const ScriptPacket = z.object({
  sittingId: Id,
  title: Line,
  handedBackAt: Instant,
  /** The attempt it is of, where its points are seen. */
  attemptId: Id.optional(),
  total: z.object({ points: Points, max: Points }).optional(),
  /** The total as a share of the maximum, 0 to 1: of what has points so far. Null while nothing has. */
  share: z.number().min(0).nullable().optional(),
  /** Only once all is marked; null: below the lowest. */
  grade: Line.nullable().optional(),
  topics: ScriptTopic.array().optional(),
  /** Absent also where too few have a whole result. */
  figures: ClassFigures.optional(),
  place: z.number().int().min(1).optional(),
  /** How many answers have no mark yet, where the total is shown. */
  waiting: z.number().int().optional(),
  /** Of how many attempts the total is the mean. */
  meanOf: z.number().int().optional(),
  /** What each of them has, where the total is shown; the questions below are those of the last. */
  attempts: z.object({ points: Points, max: Points }).array().optional(),
  /** What the marker says to all of it. */
  comment: Text.optional(),
  questions: ScriptQuestion.array(),
});
export type ScriptPacket = z.infer<typeof ScriptPacket>;

/** What the script of one student is made from. */
export interface ScriptSource {
  sittingId: string;
  title: string;
  questions: readonly Question[];
  attempt: Attempt;
  marks: readonly HandMark[];
  /** Its scorecard, where it stands for several attempts. */
  scorecard?: Scorecard | null;
  releasedAt: string;
  /** The repairs of the sitting; absent: none. */
  repairs?: readonly Repair[];
  /** For comments that name the student. */
  firstName: string;
  /** Of the sitting; absent or null: it has none. */
  scale?: GradeScale | null;
  /** The whole totals of the class, in points; absent: not asked for. */
  classTotals?: readonly number[];
  /** Questions of which nothing is told yet, since they are not marked for all. */
  unfinished?: readonly string[];
}

/** The script of one student, holding only what `shows` lets out. */
export function scriptPacket(source: ScriptSource, shows: Shows): ScriptPacket {
  const scored = source.scorecard ?? scoreAttempt(source.questions, source.attempt, source.marks);
  const card = withoutUnfinished(scored, source.unfinished ?? []);
  const awardOf = new Map(card.awards.map((award) => [award.questionId, award]));
  const packet: ScriptPacket = {
    sittingId: source.sittingId,
    title: source.title,
    handedBackAt: source.releasedAt,
    questions: [],
  };
  if (shows.points) packet.attemptId = source.attempt.id;
  if (shows.total) {
    packet.total = { points: card.total, max: card.max };
    const waiting = card.waiting + card.notRead;
    if (waiting > 0) packet.waiting = waiting;
    if (card.meanOf !== undefined) {
      packet.meanOf = card.meanOf.length;
      packet.attempts = card.meanOf.map(({ total, max }) => ({ points: total, max }));
    }
  }
  Object.assign(packet, ofTheWhole(source, card, shows));
  const toAll = shows.comments && marksThatCount(source.marks).get(wholeAttempt)?.comment;
  if (toAll) packet.comment = commentText(toAll, { firstName: source.firstName, question: '' });
  if (!byQuestion(shows)) return packet;
  const numbers = numbersOf(source.questions);
  for (const question of source.questions) {
    const award = awardOf.get(question.id);
    const number = numbers.get(question.id) ?? '';
    if (award) packet.questions.push(scriptQuestion(question, number, award, source, shows));
  }
  return packet;
}

/** What of a result belongs to single questions. */
const ofQuestions: readonly Shown[] = [
  ...(['points', 'answers', 'rightOrWrong', 'accepted', 'comments', 'lines', 'scheme'] as const),
];
const byQuestion = (shows: Shows) => ofQuestions.some((what) => isShown(shows, what));

/** What is told of the whole beside its total. */
function ofTheWhole(source: ScriptSource, card: Scorecard, shows: Shows): Partial<ScriptPacket> {
  const { scale, classTotals } = source;
  const result = { points: card.total, max: card.max };
  const figures = isShown(shows, 'figures') && classTotals ? classFigures(classTotals) : null;
  const place =
    isShown(shows, 'place') && classTotals && card.final ? placeOf(classTotals, card.total) : null;
  return {
    ...(isShown(shows, 'percent') && { share: totalShare(card) }),
    ...(isShown(shows, 'grade') && scale && card.final && { grade: gradeOf(scale, result) }),
    ...(isShown(shows, 'topics') && { topics: topicPoints(source.questions, card.awards) }),
    ...(figures && { figures }),
    ...(place !== null && { place }),
  };
}

/**
 * A script cut down to what `shows` lets out: the same as if it had been made so.
 *
 * @param at since when that is let out
 */
export function limitedScript(packet: ScriptPacket, shows: Shows, at: string): ScriptPacket {
  const { total, waiting, meanOf, attempts, comment, questions, ...more } = packet;
  const { share, grade, topics, figures, place, attemptId, ...rest } = more;
  return {
    ...rest,
    handedBackAt: at,
    ...(shows.total && {
      ...(total && { total }),
      ...(waiting !== undefined && { waiting }),
      ...(meanOf !== undefined && { meanOf }),
      ...(attempts && { attempts }),
    }),
    ...(shows.points && attemptId !== undefined && { attemptId }),
    ...(isShown(shows, 'percent') && share !== undefined && { share }),
    ...(isShown(shows, 'grade') && grade !== undefined && { grade }),
    ...(isShown(shows, 'topics') && topics && { topics }),
    ...(isShown(shows, 'figures') && figures && { figures }),
    ...(isShown(shows, 'place') && place !== undefined && { place }),
    ...(shows.comments && comment !== undefined && { comment }),
    questions: byQuestion(shows) ? questions.map((row) => limitedQuestion(row, shows)) : [],
  };
}

function limitedQuestion(row: ScriptQuestion, shows: Shows): ScriptQuestion {
  const { points, response, pictures, verdict, accepted, comments, link, work, ...more } = row;
  const { repair, lines, correction, ...rest } = more;
  const shownLines = lines && seenLines(lines, shows);
  return {
    ...rest,
    ...(shows.points && points !== undefined && { points }),
    ...(shows.points && repair && { repair }),
    ...(shows.points && correction && { correction }),
    ...(shows.answers && response !== undefined && { response }),
    ...(shows.answers && pictures && { pictures }),
    ...(shows.rightOrWrong && verdict !== undefined && { verdict }),
    ...(shows.accepted && accepted !== undefined && { accepted }),
    ...(shows.comments && comments && { comments }),
    ...(shows.comments && link && { link }),
    ...(shownLines && shownLines.length > 0 && { lines: shownLines }),
    ...(isShown(shows, 'work') && shows.answers && work && { work }),
  };
}

/** Of all lines those that are let out: the met ones, or all, and whether they were met only where that is let out. */
function seenLines(lines: readonly ScriptLine[], shows: Shows): ScriptLine[] {
  const own = isShown(shows, 'lines');
  if (isShown(shows, 'scheme')) return own ? [...lines] : lines.map(({ met: _met, ...line }) => line);
  return own ? lines.filter(({ met }) => met) : [];
}

function scriptQuestion(
  question: Question,
  number: string,
  award: Award,
  source: ScriptSource,
  shows: Shows,
): ScriptQuestion {
  const kind = kindOf(question);
  const answer = countedAnswer(source.attempt, question.id);
  const row: ScriptQuestion = {
    number,
    question: kind.forStudent(question, `${source.attempt.id} ${question.id}`),
  };
  const points = pointsTold(award);
  if (shows.points && points !== null) row.points = points;
  if (shows.answers) {
    row.response = answer?.response ?? null;
    if (answer?.pictures) row.pictures = answer.pictures;
  }
  // What does not count is neither right nor wrong.
  if (shows.rightOrWrong && award.state !== 'dropped') row.verdict = verdictOf(award);
  if (shows.points) {
    const repair = repairSeen(question, award, source);
    if (repair) row.repair = repair;
    const corrected = source.attempt.corrections?.[question.id];
    if (corrected)
      row.correction = {
        response: corrected.response,
        at: corrected.at,
        ...(award.correction ?? { points: null }),
      };
  }
  if (shows.accepted) row.accepted = kind.keyText(question);
  const hidden = source.unfinished?.includes(question.id) === true;
  const mark = hidden ? undefined : marksThatCount(source.marks).get(question.id);
  const lines = seenLines(schemeLines(question, mark), shows);
  if (lines.length > 0) row.lines = lines;
  if (isShown(shows, 'work') && shows.answers && mark?.work && mark.work.length > 0) row.work = mark.work;
  if (shows.comments) {
    const href = openableLink(question.link?.href ?? '');
    if (href) row.link = { href, text: question.link?.text.trim() || href };
    const own = commentText(mark?.comment ?? '', { firstName: source.firstName, question: number });
    row.comments = [...(own ? [own] : []), ...commentsByKey(question, answer, award)];
  }
  return row;
}

/** The last repair of a question, and what the answer had before it where that was seen; none where it is no news. */
function repairSeen(
  question: Question,
  award: Award,
  { repairs = [], attempt, marks, releasedAt }: ScriptSource,
): ScriptQuestion['repair'] {
  const last = repairs
    .filter(({ before }) => itemsOf([before]).some(({ id }) => id === question.id))
    .reduce<Repair | undefined>((latest, each) => (latest && latest.at > each.at ? latest : each), undefined);
  if (!last) return undefined;
  const mark = marksThatCount(marks).get(question.id);
  const item = itemsOf([last.before]).find(({ id }) => id === question.id) ?? question;
  const before = awardFor(item, countedAnswer(attempt, question.id), mark, attempt);
  const rule = last.itemId === question.id ? last.rule : null;
  // What was put right before anything was let out is no change to the student; a rule still has to be explained.
  const wasSeen = last.at > releasedAt;
  if (rule === null && (!wasSeen || (before.points === award.points && before.max === award.max)))
    return undefined;
  return {
    ...{ at: last.at, reason: last.reason, how: rule?.kind ?? 'key' },
    before: wasSeen ? before.points : null,
  };
}

/** Right, part right or wrong, from the points alone, so that an override counts. */
export function verdictOf(award: Award): Verdict {
  if (award.points === null) return 'noKey';
  if (award.points >= award.max && award.max > 0) return 'right';
  if (award.points > 0) return 'part';
  return award.answered ? 'wrong' : 'blank';
}
