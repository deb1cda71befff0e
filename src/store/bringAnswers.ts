import { CommandFault } from '@/core/model/commandFault';
import type { TableRow } from '@/core/formats/csv/table';
import { broughtAgain, broughtAttempt } from '@/core/intake/broughtAttempt';
import { rowName, type PlannedRow } from '@/core/intake/sheetPlan';
import type { Question } from '@/core/kinds';
import { HandMark, ownMarker } from '@/core/model/mark';
import { Paper } from '@/core/model/paper';
import { Group, Student } from '@/core/model/people';
import { Sitting, type Attempt } from '@/core/model/sitting';
import { done } from '@/words/done';
import { runCommand, type Recorder } from './command';
import { newId } from './ids';
import { freezePaper } from './papers';
import { freshStudent } from './people';
import { understand, type SheetChoices, type SheetInto } from './sheetAnswers';
import { desk } from './tables';

/** Where people go who are not on the desk yet. */
export type NewPeople =
  { are: 'guests' } | { are: 'students'; groupId: string } | { are: 'students'; groupName: string };

/** What was brought in. */
export interface Brought {
  sittingId: string;
  attempts: number;
}

/**
 * Brings a sheet of answers in, in one step: the paper where it is made from it, the sitting where it is a new one, the people who are
 * not on the desk yet, their attempts, and points that somebody gave. Rows whose student can't be told from another are left
 * out. Brought in again, only what is new or changed; earlier answers are kept as such.
 *
 * @param progress told how many of the rows are kept
 */
export async function bringAnswers(
  rows: readonly TableRow[],
  choices: SheetChoices,
  people: NewPeople,
  groupIds: readonly string[],
  now: string,
  progress: (done: number, of: number) => void = () => undefined,
) {
  const sittingId = choices.into.is === 'sitting' ? choices.into.sittingId : newId();
  let kept = 0;
  return runCommand(
    {
      command: 'bringAnswers',
      about: sittingId,
      // How many there were is known once they are kept.
      get said() {
        return done.sheetImported(kept);
      },
    },
    now,
    async (record): Promise<Brought> => {
      const { questions, planned } = await understand(rows, choices);
      const taken = planned.filter(({ becomes }) => becomes === 'new' || becomes === 'changed');
      kept = taken.length;
      const groupId = await groupFor(record, people, now);
      const sitting = await sittingFor(
        record,
        choices.into,
        sittingId,
        questions,
        taken,
        groupId,
        groupIds,
        now,
      );
      const studentOf = await studentsFor(record, taken, groupId, sitting.id);
      await keepAttempts(record, taken, questions, sitting, studentOf, now, progress);
      return { sittingId: sitting.id, attempts: taken.length };
    },
  );
}

/** The group that new people go into; null: they are guests. */
async function groupFor(record: Recorder, people: NewPeople, now: string): Promise<string | null> {
  if (people.are === 'guests') return null;
  if ('groupId' in people) return people.groupId;
  const group = Group.parse({ id: newId(), name: people.groupName.trim(), createdAt: now });
  await record.add('groups', group);
  return group.id;
}

async function sittingFor(
  record: Recorder,
  into: SheetInto,
  sittingId: string,
  questions: readonly Question[],
  taken: readonly PlannedRow[],
  groupId: string | null,
  groupIds: readonly string[],
  now: string,
): Promise<Sitting> {
  const all = [...new Set([...groupIds, ...(groupId === null ? [] : [groupId])])];
  if (into.is === 'sitting') {
    const sitting = await desk.sittings.get(into.sittingId);
    const paper = sitting && (await desk.papers.get(sitting.paperId));
    if (!sitting || !paper) throw new CommandFault('sittingOrStudentGone');
    const paperVersion = sitting.paperVersion ?? (await freezePaper(record, paper, now)).version;
    // How many attempts students may make stays: what comes from a sheet gives nobody another one.
    const next: Sitting = {
      ...sitting,
      paperVersion,
      groupIds: [...new Set([...sitting.groupIds, ...all])],
    };
    await record.put('sittings', next);
    return next;
  }
  const paper = await paperFor(record, into, questions, now);
  const { version } = await freezePaper(record, paper, now);
  const times = taken.flatMap(({ row }) => [row.startedAt ?? [], row.handedInAt ?? []].flat()).sort();
  const opensAt = times[0] ?? now;
  const sitting = Sitting.parse({
    id: sittingId,
    paperId: paper.id,
    paperVersion: version,
    title: into.title.trim() || paper.title,
    groupIds: all,
    opensAt,
    closesAt: times.at(-1) ?? now,
    timeLimitMs: null,
    accessCode: '',
    closedToStartsAt: now,
    createdAt: now,
  } satisfies Sitting);
  await record.add('sittings', sitting);
  return sitting;
}

async function paperFor(
  record: Recorder,
  into: Exclude<SheetInto, { is: 'sitting' }>,
  questions: readonly Question[],
  now: string,
): Promise<Paper> {
  if (into.is === 'paper') {
    const paper = await desk.papers.get(into.paperId);
    if (!paper) throw new CommandFault('paperGone');
    return paper;
  }
  const paper = Paper.parse({
    id: newId(),
    title: into.title.trim(),
    instructions: '',
    questions,
    createdAt: now,
    changedAt: now,
  });
  await record.add('papers', paper);
  return paper;
}

/** Gives the student of each row: known, or made. Rows of one person have one student. */
async function studentsFor(
  record: Recorder,
  taken: readonly PlannedRow[],
  groupId: string | null,
  sittingId: string,
): Promise<(row: PlannedRow) => string> {
  const codes = new Set((await desk.students.toArray()).map(({ joinCode }) => joinCode));
  const made = new Map<string, Student>();
  for (const { owner, who, row } of taken) {
    if (owner.is === 'known' || made.has(who)) continue;
    const { person, line } = row;
    const named =
      person.familyName || person.givenName
        ? person
        : { ...person, familyName: person.number || person.email || rowName(line) };
    const student = freshStudent({ ...named, knownId: null }, codes);
    made.set(
      who,
      groupId === null
        ? Student.parse({ ...student, role: 'guest', onlySittingId: sittingId })
        : { ...student, groupIds: [groupId] },
    );
  }
  await record.addAll('students', [...made.values()]);
  return ({ owner, who }) => (owner.is === 'known' ? owner.studentId : (made.get(who)?.id ?? ''));
}

/** So many are written at a time: a transaction that does nothing for long is closed by the browser. */
const atOnce = 250;

async function keepAttempts(
  record: Recorder,
  taken: readonly PlannedRow[],
  questions: readonly Question[],
  { id: sittingId, paperVersion }: Sitting,
  studentOf: (row: PlannedRow) => string,
  now: string,
  progress: (done: number, of: number) => void,
): Promise<void> {
  for (let from = 0; from < taken.length; from += atOnce) {
    const some = taken.slice(from, from + atOnce);
    const fresh: Attempt[] = [];
    const marks: HandMark[] = [];
    for (const each of some) {
      const { row, number, changed } = each;
      const attempt = each.attempt
        ? broughtAgain(each.attempt, row, changed, now)
        : broughtAttempt(row, questions, {
            ...{ id: newId(), sittingId, studentId: studentOf(each), number, now },
            paperVersion: paperVersion ?? 1,
          });
      if (each.attempt) await record.put('attempts', attempt);
      else fresh.push(attempt);
      for (const questionId of each.points)
        marks.push(givenMark(attempt, questionId, row.points[questionId] ?? 0, now));
    }
    await record.addMany('attempts', fresh);
    await record.addAll('marks', marks);
    progress(Math.min(taken.length, from + atOnce), taken.length);
  }
}

const givenMark = (attempt: Attempt, questionId: string, points: number, now: string): HandMark =>
  HandMark.parse({
    attemptId: attempt.id,
    sittingId: attempt.sittingId,
    questionId,
    markerId: ownMarker,
    points,
    lines: [],
    comment: '',
    aside: false,
    at: now,
    history: [],
  } satisfies HandMark);
