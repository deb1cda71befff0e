import { noRows, type DeskTables } from '@/core/formats/backup';
import { schemePoints } from '@/core/kinds/schemePoints';
import { wholeScheme } from '@/core/marking/scheme';
import type { Paper, PaperVersion } from '@/core/model/paper';
import type { Student } from '@/core/model/people';
import type { Allowance, Attempt, Sitting, Message } from '@/core/model/sitting';
import type { MarkBook } from '@/core/model/markBook';
import type { GradeScale } from '@/core/model/gradeScale';
import { showing, type PlanStage, type Release, type ReleasePlan } from '@/core/model/release';
import { ownMarker, type HandMark } from '@/core/model/mark';
import { madeUpAnswer, type Ability } from './answering';
import { chanceFrom, type Chance } from '@/core/basics/chance';
import type { DemoQuestion } from './DemoQuestion';
import { lights } from './papers/lights';
import { rules } from './papers/rules';
import { tides } from './papers/tides';
import { bay } from './pictures';
import type { Sketched } from './pictures/sketch';
import { withSketch } from './sketches';
import { secondMarker } from './secondMarker';
import { passage } from './papers/passage';
import { weather } from './papers/weather';
import { demoSeed, madeUpPeople } from './people';
import { requests, templates, withCourse } from './courses';
import { withPaper } from './onPaper';
import { symbols } from './papers/symbols';

const minute = 60_000;
const hour = 60 * minute;
const day = 24 * hour;
const seed = demoSeed;

interface DemoPaper {
  title: string;
  instructions: string;
  questions: DemoQuestion[];
}

/** One sitting of the demo: when it was, for how long, and who has got how far. */
interface DemoSitting {
  id: string;
  paper: DemoPaper;
  opensAt: number;
  closesAt: number;
  limitMs: number;
  accessCode: string;
  students: Student[];
}

/**
 * The desk of Tidewater Evening School: a coastal navigation course with three groups and 92 students, and papers
 * of which some are being written, one is running, one waits to be marked, one is handed back, and one is on paper.
 *
 * @param now ms since 1970; all dates are relative to it
 */
export function buildDemo(now: number): DeskTables {
  return madeUpDesk(now).desk;
}

/** What the made-up answers to open questions were made to be worth, whether they are marked in the demo or wait. */
export const meantMarks = (now: number): HandMark[] => madeUpDesk(now).meant;

function madeUpDesk(now: number): { desk: DeskTables; meant: HandMark[] } {
  const meant: HandMark[] = [];
  const chance = chanceFrom(seed);
  const iso = (ms: number) => new Date(ms).toISOString();
  const { groups, students } = madeUpPeople(chance, iso(now - 60 * day));
  const abilities = new Map<string, Ability>(students.map((student) => [student.id, chance.normal()]));
  const week = courseWeek(now);
  const earlier = courseWeek(week.closesAt - 20 * day);
  const sittings = demoSittings(students, week, earlier, now);
  const desk: DeskTables = {
    ...noRows(),
    students,
    groups,
    papers: [
      ...sittings.map(({ id, paper }) => paperOf(id, paper, iso(now - 30 * day))),
      paperOf('symbols', symbols, iso(now - 12 * day)),
      weatherPaper(iso(now - 2 * day)),
      passagePaper(iso(now - 5 * day)),
    ],
    paperVersions: sittings.map((each) => versionOf(each, iso(each.opensAt))),
    sittings: sittings.map((each) => sittingOf(each, iso)),
    assets: [bay],
    templates,
    settings: [
      { key: 'begun', value: 'demo' },
      { key: 'deskName', value: 'Tidewater Evening School, coastal navigation' },
    ],
  };
  const sketches = new Map<string, Sketched>();
  for (const sitting of sittings) sat(sitting, desk, meant, sketches, { abilities, now, chance });
  // Some time after the exam, or as late as it is: nothing was scanned or marked tomorrow.
  const after = (ms: number, ago: number) => iso(Math.min(week.closesAt + ms, now - ago));
  const came = secondMarker(sketches, after(1.4 * day, 2 * hour), after(2 * day, hour));
  desk.shares.push(came.share);
  desk.marks.push(...came.marks);
  withPaper(desk, week.closesAt - 3 * hour, after(21 * hour, hour), iso);
  lateAnswers(desk.attempts, iso);
  desk.allowances.push(...moreTime(students, desk.attempts, now));
  desk.requests = requests(students[3]?.id ?? '', students[40]?.id ?? '', (ago) => iso(now - ago * minute));
  handBack(desk, chance, { week, earlier, now });
  return { desk, meant };
}

/** Puts what students did in a sitting on the desk: their attempts, and what they are worth where they are marked. */
function sat(
  sitting: DemoSitting,
  desk: DeskTables,
  meant: HandMark[],
  sketches: Map<string, Sketched>,
  { abilities, now, chance }: { abilities: ReadonlyMap<string, Ability>; now: number; chance: Chance },
): void {
  const iso = (ms: number) => new Date(ms).toISOString();
  sitting.students.forEach((student, index) => {
    const progress = sitting.id === 'rules' ? progressOf(index) : 1;
    if (progress === 0) return;
    const { attempt, marks } = madeUpAttempt(
      sitting,
      student,
      abilities.get(student.id) ?? 0,
      progress,
      now,
      chance,
    );
    if (sitting.id === 'tides') {
      const made = withSketch(attempt, abilities.get(student.id) ?? 0, chanceFrom(seed + 700 + index));
      if (made) {
        desk.assets.push(made.photo);
        sketches.set(attempt.id, made.shows);
      }
    }
    desk.attempts.push(withCourse(attempt, seed + index));
    // Marked one after another, the day after.
    for (const mark of marks) {
      mark.at = iso(Date.parse(mark.at) + index * 40_000);
      for (const revision of mark.history) revision.at = mark.at;
    }
    meant.push(...marks);
    if (sitting.id === 'lights') desk.marks.push(...marks);
  });
}

/** The three quizzes that were given out on devices. */
function demoSittings(
  students: readonly Student[],
  week: ReturnType<typeof courseWeek>,
  earlier: ReturnType<typeof courseWeek>,
  now: number,
): DemoSitting[] {
  return [
    {
      id: 'lights',
      paper: lights,
      ...earlier,
      limitMs: 40 * minute,
      accessCode: '',
      students: [...students],
    },
    {
      id: 'tides',
      paper: tides,
      ...week,
      limitMs: 75 * minute,
      accessCode: 'ebb',
      students: [...students],
    },
    {
      id: 'rules',
      paper: rules,
      opensAt: now - 25 * minute,
      closesAt: now + 5 * hour,
      limitMs: 45 * minute,
      accessCode: 'flood',
      students: students.filter((student) => student.groupIds.includes('group1')),
    },
  ];
}

/** Who got more time: one for good, one for a device that failed. */
function moreTime(students: readonly Student[], attempts: readonly Attempt[], now: number): Allowance[] {
  const iso = (ms: number) => new Date(ms).toISOString();
  const troubled = attempts.find(({ id }) => id === 'tides-student29');
  return [
    {
      id: 'allowance1',
      kind: 'minutes',
      sittingId: 'rules',
      studentId: students[4]?.id ?? '',
      minutes: 11,
      reason: 'Extra time',
      at: iso(now - 24 * minute),
    },
    ...(troubled
      ? [
          {
            id: 'allowance2',
            kind: 'minutes' as const,
            sittingId: 'tides',
            studentId: troubled.studentId,
            minutes: 10,
            reason: 'Technical trouble',
            at: iso(Date.parse(troubled.startedAt) + 22 * minute),
          },
        ]
      : []),
  ];
}

/** The first quiz was handed back: who has it, who looked, and who was reminded. */
function handBack(
  desk: DeskTables,
  chance: Chance,
  {
    week,
    earlier,
    now,
  }: { week: ReturnType<typeof courseWeek>; earlier: ReturnType<typeof courseWeek>; now: number },
): void {
  const { students } = desk;
  const iso = (ms: number) => new Date(ms).toISOString();
  const handedBackAt = earlier.closesAt + 4 * day;
  desk.releases = students.map((student): Release => ({
    sittingId: 'lights',
    studentId: student.id,
    releasedAt: iso(handedBackAt),
  }));
  desk.releasePlans = plans(iso(handedBackAt), iso(week.closesAt), iso(fridayAfter(now)));
  desk.grades = [{ sittingId: 'lights', ...grades }];
  desk.markBooks = [markBook(students, iso(handedBackAt), chanceFrom(seed + 31))];
  desk.openings = students
    .filter(() => chance.happens(0.7))
    .map(({ id: studentId }) => ({
      sittingId: 'lights',
      studentId,
      at: [iso(handedBackAt + chance.whole(10, 4000) * minute)],
    }));
  const opened = new Set(desk.openings.map(({ studentId }) => studentId));
  desk.outbox = reminders(
    students.filter(({ id }) => !opened.has(id)).slice(0, 6),
    iso(handedBackAt + 5 * day),
    iso(handedBackAt + 5 * day + 20 * minute),
  );
}

/** Who had not looked yet was reminded once; the messages went by the teacher's own mail program. */
function reminders(students: readonly Student[], at: string, goneAt: string): Message[] {
  return students.map(({ id: studentId, givenName, email, joinCode }, index) => ({
    ...{ id: `message${index + 1}`, sittingId: 'lights', studentId, email, at },
    subject: 'Quiz 1: lights and marks is back',
    text: `Dear ${givenName}, your result is waiting for you. Your code is ${joinCode}.`,
    state: { is: 'passedOn', at: goneAt, words: '' },
  }));
}

/**
 * The last week of the course that is over, by the clock of the school: the quiz is open from Monday at six in the evening
 * to Saturday at one, and each group sits it in its own hours.
 */
function courseWeek(now: number): { opensAt: number; closesAt: number } {
  const saturday = new Date(now - 12 * hour);
  saturday.setDate(saturday.getDate() - ((saturday.getDay() + 1) % 7));
  saturday.setHours(13, 0, 0, 0);
  if (saturday.getTime() > now - 12 * hour) saturday.setDate(saturday.getDate() - 7);
  const monday = new Date(saturday);
  monday.setDate(monday.getDate() - 5);
  monday.setHours(18, 0, 0, 0);
  return { opensAt: monday.getTime(), closesAt: saturday.getTime() };
}

/** The next Friday at four in the afternoon, by the clock of the school. */
function fridayAfter(now: number): number {
  const friday = new Date(now);
  friday.setDate(friday.getDate() + ((5 - friday.getDay() + 7) % 7 || 7));
  friday.setHours(16, 0, 0, 0);
  return friday.getTime();
}

/** The first quiz is back with everything; of the exam points come first, answers on Friday, and the rest when the teacher says so. */
function plans(backAt: string, closedAt: string, friday: string): ReleasePlan[] {
  const stage = (id: string, starts: PlanStage['starts'], at: string | null, shows: PlanStage['shows']) => ({
    ...{ id, starts, at, until: null, lastsMs: null, shows },
  });
  const points = showing('total', 'percent', 'points');
  const answers = ['answers', 'rightOrWrong', 'comments', 'work'] as const;
  const all = showing(
    ...(['total', 'percent', 'points', 'answers', 'rightOrWrong', 'accepted', 'comments'] as const),
    ...(['work', 'lines'] as const),
  );
  return [
    { sittingId: 'lights', stages: [stage('all', 'handedBack', null, all)], at: backAt },
    {
      sittingId: 'tides',
      stages: [
        stage('points', 'handedBack', null, points),
        stage('answers', 'at', friday, showing(...answers)),
        stage('rest', 'hand', null, all),
      ],
      at: closedAt,
    },
  ];
}

/** The course so far: quizzes of which the best counts, the exam, and what was done on the chart table. */
function markBook(students: readonly Student[], at: string, chance: Chance): MarkBook {
  const column = { weight: 1, bonus: false, dropped: false, excused: [] };
  const ofSitting = (sittingId: string, categoryId: string) => ({
    ...{ ...column, id: `column-${sittingId}`, kind: 'sitting' as const, sittingId, categoryId },
  });
  // Somebody has not been at the chart table yet.
  const values = Object.fromEntries(
    students.flatMap(({ id }) => (chance.happens(0.92) ? [[id, chance.whole(8, 20) / 2] as const] : [])),
  );
  return {
    id: 'navigation',
    title: 'Coastal navigation',
    groupIds: [...new Set(students.flatMap(({ groupIds }) => groupIds))].sort(),
    columns: [
      ofSitting('lights', 'quizzes'),
      ofSitting('rules', 'quizzes'),
      ofSitting('tides', 'exams'),
      {
        ...column,
        id: 'chart',
        kind: 'typed',
        title: 'Chart table',
        max: 10,
        values,
        categoryId: null,
        weight: 20,
      },
    ],
    categories: [
      { id: 'quizzes', name: 'Quizzes', weight: 30, best: 1 },
      { id: 'exams', name: 'Exam', weight: 50, best: null },
    ],
    missing: 'nothing',
    decimals: 0,
    scale: grades,
    ...{ createdAt: at, changedAt: at },
  };
}

/** The school's own grades. */
const grades: GradeScale = {
  by: 'percent',
  lines: [
    { grade: 'distinction', from: 0.85 },
    { grade: 'merit', from: 0.7 },
    { grade: 'pass', from: 0.5 },
  ],
};

/** How much of the running quiz a student has done; 0 has not started. */
function progressOf(index: number): number {
  return index % 8 === 7 ? 0 : index % 3 === 0 ? 0.2 + (index % 10) * 0.08 : 1;
}

function paperOf(id: string, { title, instructions, questions }: DemoPaper, at: string): Paper {
  return {
    id: `paper-${id}`,
    title,
    instructions,
    questions: questions.map((each) => each.question),
    createdAt: at,
    changedAt: at,
  };
}

function passagePaper(at: string): Paper {
  return { id: 'paper-passage', ...passage, createdAt: at, changedAt: at };
}

function weatherPaper(at: string): Paper {
  return { id: 'paper-weather', ...weather, createdAt: at, changedAt: at };
}

function versionOf({ id, paper }: DemoSitting, frozenAt: string): PaperVersion {
  const { title, instructions, questions } = paper;
  return {
    paperId: `paper-${id}`,
    version: 1,
    frozenAt,
    title,
    instructions,
    questions: questions.map((each) => each.question),
  };
}

function sittingOf(demo: DemoSitting, iso: (ms: number) => string): Sitting {
  return {
    id: demo.id,
    paperId: `paper-${demo.id}`,
    paperVersion: 1,
    title: demo.paper.title,
    groupIds: [...new Set(demo.students.flatMap((student) => student.groupIds))].sort(),
    opensAt: iso(demo.opensAt),
    closesAt: iso(demo.closesAt),
    timeLimitMs: demo.limitMs,
    accessCode: demo.accessCode,
    closedToStartsAt: null,
    createdAt: iso(demo.opensAt - day),
  };
}

/** One student's attempt: started within the window, answered in order, handed in where progress is whole. */
function madeUpAttempt(
  sitting: DemoSitting,
  student: Student,
  ability: Ability,
  progress: number,
  now: number,
  chance: Chance,
) {
  const iso = (ms: number) => new Date(ms).toISOString();
  const running = sitting.id === 'rules';
  const startedAt = running
    ? sitting.opensAt + chance.whole(0, 5) * minute
    : sitting.opensAt + (sitsAfter[student.groupIds[0] ?? ''] ?? 0) + chance.whole(0, 9) * minute;
  const took = Math.min(sitting.limitMs * 0.97, sitting.limitMs * (0.55 + 0.12 * chance.normal() + 0.1));
  const end = running
    ? Math.min(now - chance.whole(1, 40) * 2_000, startedAt + Math.abs(took) * 0.6)
    : startedAt + Math.max(9 * minute, took);
  const { questions } = sitting.paper;
  const done = Math.ceil(questions.length * progress);
  const attempt: Attempt = {
    id: `${sitting.id}-${student.id}`,
    sittingId: sitting.id,
    studentId: student.id,
    number: 1,
    paperVersion: 1,
    questionIds: questions.map(({ question }) => question.id),
    answers: {},
    comeBack: [],
    startedAt: iso(startedAt),
    lastSeenAt: iso(progress < 1 ? now - chance.whole(2, 50) * 1000 : end),
    handedInAt: progress < 1 ? null : iso(end),
    collectedAt: null,
    events: [{ kind: 'started', at: iso(startedAt) }],
  };
  if (progress === 1) attempt.events.push({ kind: 'handedIn', at: iso(end) });
  const marks: HandMark[] = [];
  questions.slice(0, done).forEach((demo, index) => {
    // Sketches are drawn by themselves.
    if (demo.question.kind === 'working') return;
    const own =
      demo.apart === undefined ? chance : apartChance(demo.apart, Number(student.id.replace(/\D/g, '')));
    const { response, lines } = madeUpAnswer(demo, ability, own);
    const at = iso(startedAt + ((end - startedAt) * (index + 1)) / (done + 1));
    if (response) attempt.answers[demo.question.id] = { response, at };
    if (demo.question.kind === 'openText')
      marks.push(madeUpMark(attempt, demo, lines, iso(sitting.closesAt + day)));
  });
  return { attempt, marks };
}

/** A chance of one student’s own. Seeds that follow each other begin alike: they are spread out, and the first draws left. */
function apartChance(seed: number, student: number): Chance {
  const chance = chanceFrom((seed + student) * 7919);
  for (let draw = 0; draw < 8; draw++) chance.share();
  return chance;
}

/** Two answers that were typed in time and came minutes after the end, over a broken line: nobody has decided yet. */
function lateAnswers(attempts: readonly Attempt[], iso: (ms: number) => string): void {
  const came = [
    ['tides-student12', 'Steer west of north.'],
    ['tides-student47', 'Steer against the tidal stream, to the left.'],
  ] as const;
  for (const [id, text] of came) {
    const attempt = attempts.find((each) => each.id === id);
    if (!attempt) continue;
    const endedAt = Date.parse(attempt.handedInAt ?? attempt.lastSeenAt);
    attempt.late = [
      {
        questionId: 't12',
        response: { text },
        typedAt: iso(endedAt - 20_000),
        at: iso(endedAt + 6 * minute),
        decision: null,
      },
    ];
  }
}

/** When each group sits in a week, after Monday at six: Monday and Wednesday at half past six, Saturday at ten. */
const sitsAfter: Record<string, number> = {
  group1: hour / 2,
  group2: 2 * day + hour / 2,
  group3: 4 * day + 16 * hour,
};

function madeUpMark(attempt: Attempt, { question }: DemoQuestion, lines: string[], at: string): HandMark {
  const points = schemePoints(wholeScheme(question), lines, question.points);
  const comment =
    points === question.points
      ? ''
      : lines.length === 0
        ? ''
        : 'Part of it is there; compare with the model answer.';
  return {
    attemptId: attempt.id,
    questionId: question.id,
    sittingId: attempt.sittingId,
    points,
    lines,
    comment,
    aside: false,
    at,
    markerId: ownMarker,
    history: [{ at, by: ownMarker, why: '', before: null }],
  };
}
