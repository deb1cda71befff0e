import { sumBy } from 'remeda';
import { itemsOf } from '../kinds/items';
import { numbersOf } from '../kinds/itemNumbers';
import { kindOf } from '../kinds';
import type { AnswersFile, PaperFile } from '../formats/packet/packetFile';
import { withoutKeys } from '../formats/packet/paper';
import type { PackedAsset } from '../basics/asset';
import { mostAttemptBytes } from '../basics/fileRules';
import type { PaperVersion } from '../model/paper';
import type { Student } from '../model/people';
import { mostEvents, type Allowance, type Attempt, type Sitting } from '../model/sitting';
import { deadlineOf, type Terms } from '../attempts/terms';
import { attemptChange, withChange } from './attemptChange';
import { newAttempt } from './starting';

/** What goes out of the desk as a file, and what comes back. */

/** A sitting as it goes out by hand: the access code is the seal, and without the key nothing can be shown at once. */
export function sittingInFile(sitting: Sitting): Sitting {
  const { after: _a, practice: _p, onDevices: _o, guests: _g, rehearsal: _r, ...rest } = sitting;
  return { ...rest, accessCode: '' };
}

/**
 * The paper of a sitting to go out by hand.
 *
 * @param student the one it is for; null: whoever gets it
 * @param allowances of that student in this sitting
 */
export function paperFile(
  sitting: Sitting,
  paper: PaperVersion,
  pictures: PackedAsset[],
  student: Student | null = null,
  allowances: readonly Allowance[] = [],
): PaperFile {
  return {
    sitting: sittingInFile(sitting),
    paper: withoutKeys(paper),
    ...(student && {
      student: { id: student.id, familyName: student.familyName, givenName: student.givenName },
    }),
    allowances: [
      ...allowances.map((each) => ({ ...each, reason: '' })),
      ...lastingAllowance(sitting, student),
    ],
    pictures,
  };
}

/** What a student has in every sitting, as an allowance in this one. */
function lastingAllowance(sitting: Sitting, student: Student | null): Allowance[] {
  if (student?.extraPercent === undefined) return [];
  return [
    {
      id: `standing-${student.id}`.slice(0, 64),
      sittingId: sitting.id,
      studentId: student.id,
      kind: 'percent',
      percent: student.extraPercent,
      // The reason stays on the desk.
      reason: '',
      at: sitting.createdAt,
    },
  ];
}

/** What becomes of an answers packet. */
export type Intake =
  /** `new`: the first of this student; `another`: a further attempt; `further`: more of one that is here. */
  | { outcome: 'new' | 'another' | 'further'; attempts: Attempt[] }
  /** All of it is here already. */
  | { outcome: 'double' }
  | { outcome: 'otherSitting'; sittingId: string }
  /** Nobody has its join code. */
  | { outcome: 'nobody' }
  /** It was made for another student than the one whose join code was typed. */
  | { outcome: 'otherStudent'; studentId: string }
  /** The same attempt came from another student before, or belongs to another sitting. */
  | { outcome: 'copied'; studentId: string }
  /** What it says cannot have been answered to this paper; the number of the question, if it is about one. */
  | { outcome: 'unfit'; question: string | null };

export interface Desk {
  sitting: Sitting;
  /** The versions of its paper. */
  papers: readonly PaperVersion[];
  /** Whose answers they are. */
  student: Student | null;
  /** All attempts of the sitting, and any other that has the id of one that came. */
  attempts: readonly Attempt[];
}

/**
 * What becomes of an answers packet on the desk: told apart without changing anything.
 *
 * @param sure the teacher said whose it is: it need not be who it was made for
 */
export function intakeOf(file: AnswersFile, desk: Desk, sure = false): Intake {
  const { sitting, student } = desk;
  if (file.sittingId !== sitting.id) return { outcome: 'otherSitting', sittingId: file.sittingId };
  if (!student) return { outcome: 'nobody' };
  if (!sure && file.madeFor !== undefined && file.madeFor !== student.id)
    return { outcome: 'otherStudent', studentId: file.madeFor };
  const taken: Attempt[] = [];
  let further = false;
  const others = desk.attempts.filter(
    (each) => each.studentId === student.id && each.sittingId === sitting.id,
  );
  for (const theirs of file.attempts) {
    const misfit = misfitOf(theirs, desk, student);
    if (misfit !== null) return { outcome: 'unfit', question: misfit || null };
    const ours = desk.attempts.find(({ id }) => id === theirs.id);
    if (ours && (ours.studentId !== student.id || ours.sittingId !== sitting.id))
      return { outcome: 'copied', studentId: ours.studentId };
    if (ours) {
      const more = continued(ours, theirs);
      if (attemptChange(ours, more) === null) continue;
      further = true;
      taken.push(more);
    } else {
      const number = Math.max(0, ...[...others, ...taken].map((each) => each.number)) + 1;
      const { tab: _t, pausedMs: _p, setAsideAt: _a, practice: _r, ...attempt } = theirs;
      taken.push({ ...withoutDecisions(attempt), studentId: student.id, number });
    }
  }
  if (taken.length === 0) return { outcome: 'double' };
  return { outcome: further ? 'further' : others.length > 0 ? 'another' : 'new', attempts: taken };
}

/** What is odd about the times of an answers packet. They are by the clock of the student's computer. */
export type OddTime = 'begunEarly' | 'endedLate' | 'clockAhead';

/** A clock that is wrong by less is nothing to speak of. */
const clockSlackMs = 2 * 60_000;

/**
 * What a teacher should know of the times in an answers packet; null where nothing is odd.
 *
 * @param now by the clock of the desk, ms since 1970
 */
export function oddTime(file: AnswersFile, terms: Terms, now: number): OddTime | null {
  if (Date.parse(file.savedAt) > now + clockSlackMs) return 'clockAhead';
  for (const attempt of file.attempts) {
    if (Date.parse(attempt.startedAt) < terms.opensAt - clockSlackMs) return 'begunEarly';
    const deadline = deadlineOf(attempt, terms);
    const last = Date.parse(attempt.handedInAt ?? attempt.lastSeenAt);
    if (deadline !== null && last > deadline + clockSlackMs) return 'endedLate';
  }
  return null;
}

/** Whether a late answer counts is decided on the desk, whatever a file says. */
function withoutDecisions<A extends Pick<Attempt, 'late'>>(attempt: A): A {
  return attempt.late
    ? { ...attempt, late: attempt.late.map((each) => ({ ...each, decision: null })) }
    : attempt;
}

/** An attempt that is here, with what its student did since; what the teacher did to it stays. */
function continued(ours: Attempt, theirs: Attempt): Attempt {
  const {
    tab: _t,
    studentId: _s,
    number: _n,
    collectedAt: _c,
    setAsideAt: _a,
    pausedMs: _p,
    handedInAt,
    ...student
  } = theirs;
  // An older state of it, saved before, brings nothing.
  if (theirs.lastSeenAt < ours.lastSeenAt) return ours;
  const change = attemptChange(null, {
    ...withoutDecisions(student),
    ...(handedInAt !== null && { handedInAt }),
  } as Attempt); // only fields that are to be changed
  return change ? withChange(ours.id, ours, change) : ours;
}

/** The number of the question that an attempt cannot have answered so; '' where it is none of this paper's; null: it fits. */
function misfitOf(attempt: Attempt, { sitting, papers }: Desk, student: Student): string | null {
  const paper = papers.find(({ version }) => version === attempt.paperVersion);
  if (!paper || attempt.sittingId !== sitting.id) return '';
  const drawn = [true, false].some((shuffle) => {
    const { questionIds } = newAttempt(
      attempt.id,
      { ...sitting, shuffle },
      student,
      1,
      paper,
      attempt.startedAt,
    );
    return questionIds.join('\n') === attempt.questionIds.join('\n');
  });
  if (!drawn) return '';
  const items = itemsOf(paper.questions);
  const numbers = numbersOf(items);
  for (const [id, { response }] of Object.entries(attempt.answers)) {
    const question = attempt.questionIds.includes(id) ? items.find((item) => item.id === id) : undefined;
    if (!question) return '';
    if (!kindOf(question).responseSchema.safeParse(response).success) return numbers.get(id) ?? '';
  }
  if (attempt.events.length > mostEvents) return '';
  const files = sumBy(attempt.files ?? [], ({ size }) => size);
  return files > mostAttemptBytes ? '' : null;
}
