import { counted } from '@/core/basics/counted';
import type { AllowanceWish, Attempt } from '@/core/model/sitting';
import { fullName, isGuest } from '@/core/model/names';
import type { Student } from '@/core/model/people';

/** What was done, as the message with Undo says it and the record keeps it. */

type Named = Pick<Student, 'familyName' | 'givenName'>;

const students = (count: number) => counted(count, 'student');
const nameOf = (student: Named | undefined) => (student ? fullName(student) : 'A student');
/** One by name, or how many. */
const who = (all: readonly Named[]) => (all.length === 1 ? nameOf(all[0]) : students(all.length));

export const done = {
  changesThrownAway: 'Paper as it was sat',

  repairWithdrawn: (number: string) => `Repair of question ${number} withdrawn`,

  questionToBank: 'Question added to the bank',
  questionFromBank: 'Question added from the bank',
  bankUpdated: 'Bank updated from this paper',
  questionUpdated: 'Question updated from the bank',
  questionUnlinked: 'Question unlinked from the bank',
  bankQuestionCreated: 'Question created in the bank',
  questionOffBank: 'Question removed from the bank',

  paperCreated: (title: string) => `Paper ${title} created`,
  paperDeleted: (title: string) => `Paper ${title} deleted`,
  paperFixed: 'Paper fixed for giving out in files',

  sharesGiven: (markers: readonly string[]) =>
    markers.length === 1 ? `Share given to ${markers[0]}` : `Shares given to ${markers.length} markers`,
  sharePulledBack: (marker: string) => `Share of ${marker} pulled back`,
  shareOpenAgain: (marker: string) => `Marks of ${marker} are taken again`,
  shareTaken: (title: string) => `Share of ${title} taken in`,
  shareRemoved: 'Share removed, with the marks made here',
  sampleDrawn: 'Blind sample drawn',
  /** The marker's name where it is oneself. */
  oneself: 'You, again',
  againTitle: (title: string) => `Marked again: ${title}`,
  marksTaken: (files: number) => `Marks of ${counted(files, 'share')} taken in`,
  marksSettled: (answers: number) => `${counted(answers, 'answer')} settled`,

  groupCreated: (name: string) => `Group ${name} created`,
  groupRenamed: (name: string) => `Group renamed to ${name}`,
  groupDescribed: (name: string) => `Course of ${name} changed`,
  groupDeleted: (name: string) => `Group ${name} deleted`,
  studentsImported: (count: number) => `${students(count)} imported`,
  sheetImported: (attempts: number) => `Answers of ${counted(attempts, 'attempt')} imported`,
  printMade: (copies: number) => `${counted(copies, 'answer paper')} made`,
  regionsKept: 'Paper with its regions kept',
  printRemoved: 'Answer papers removed',
  scansImported: (pages: number) => `${counted(pages, 'scanned page')} imported`,
  boxesSettled: (question: string) => `Question ${question}: what is ticked settled`,
  scanPlaced: 'Scanned page placed',
  scansThrownOut: (pages: number) => `${counted(pages, 'scanned page')} thrown out`,
  scanTakenBack: 'Scanned page taken back',
  picturesThrownAway: (pages: number) => `Pictures of ${counted(pages, 'page')} thrown away`,
  copyNamed: (name: string, copy: number) => `Paper ${copy} is ${name}’s`,
  questionsImported: (count: number) => `${counted(count, 'question')} imported`,
  copyTitle: (title: string) => `${title} (from the file)`,
  partJoined: (part: string) => `${part || 'A part of another desk'} taken into this desk`,
  copiesNamed: (count: number) => `${counted(count, 'paper')} named in the order of the register`,
  answersTyped: (count: number) => `${counted(count, 'answer')} typed from paper`,
  classesImported: (count: number, classes: number) =>
    `${students(count)} imported in ${counted(classes, 'group')}`,
  studentEdited: (student: Named) => `${nameOf(student)} edited`,
  addedTo: (group: string) => (all: readonly Named[]) => `${who(all)} added to ${group}`,
  movedTo: (group: string) => (all: readonly Named[]) => `${who(all)} moved to ${group}`,
  archived: (all: readonly Named[]) => `${who(all)} archived`,
  restored: (all: readonly Named[]) => `${who(all)} restored`,
  newCodes: (all: readonly Named[]) =>
    `${who(all)} ${all.length === 1 ? 'has a new join code' : 'have new join codes'}`,
  removedFromGroup: (all: readonly Named[]) => `${who(all)} removed from the group`,
  merged: (kept: Student, other: Student) =>
    isGuest(other)
      ? `Guest ${nameOf(other)} matched to ${nameOf(kept)}`
      : `${nameOf(other)} merged into ${nameOf(kept)}`,

  givenOut: (title: string) => `${title} given out`,
  startsClosed: (closed: boolean) => (closed ? 'Closed to new starts' : 'Opened to new starts'),
  onDevices: (on: boolean) =>
    on ? 'Students can join on their own devices' : 'Sitting removed from the server',
  scoredAnew: 'Sitting scored with the changed paper',
  sittingsArchived: (titles: readonly string[]) =>
    titles.length === 1 ? `${titles[0]} archived` : `${counted(titles.length, 'sitting')} archived`,
  sittingRestored: (title: string) => `${title} restored`,
  sittingDeleted: (title: string | undefined) => `${title ?? 'Sitting'} deleted`,
  settingsSaved: (name: string) => `Settings saved as “${name}”`,
  settingsDeleted: (name: string) => `Saved settings “${name}” deleted`,

  allowance: (wish: AllowanceWish): Several => {
    switch (wish.kind) {
      case 'minutes':
        return have(counted(wish.minutes, 'more minute'));
      case 'percent':
        return have(`${wish.percent}% extra time`);
      case 'window':
        return have('different times');
      case 'lateStart':
        return can('start late');
    }
  },
  lastingTime: (student: Named, percent: number | null, reason: string) =>
    percent === null
      ? `${nameOf(student)} gets no extra time (${reason})`
      : `${nameOf(student)} gets ${percent}% extra time in every sitting (${reason})`,
  anotherAttempt: can('make another attempt'),
  startedAgain: can('start again, the earlier attempt is set aside'),
  carriedOn: can('carry on'),
  collected: { one: 'was collected from', several: 'were collected from' },
  setAside: have('an attempt set aside'),
  attemptRestored: have('an attempt restored'),
  several: (words: Several, all: readonly Named[], count: number) =>
    count === 1 ? `${nameOf(all[0])} ${words.one}` : `${students(count)} ${words.several}`,
  attemptsDeleted: (attempts: readonly Pick<Attempt, 'number'>[], student: Named | undefined) =>
    attempts.length === 1
      ? `Attempt ${attempts[0]?.number} of ${student ? fullName(student) : 'a student'} deleted permanently`
      : `${attempts.length} attempts deleted permanently`,
  answersDeleted: (course: string) =>
    course ? `Answers of ${course} deleted` : 'Answers of sittings without a course deleted',
  studentForgotten: 'Student forgotten',
  /** In place of what the record said of somebody who is forgotten. */
  aboutForgotten: 'Something about a student who is forgotten',
  lateDecided: (count: number, counts: boolean | null) => {
    const answers = counted(count, 'late answer');
    if (counts === null) return `Decision on ${answers} undone`;
    if (counts) return `${answers} ${count === 1 ? 'counts' : 'count'}`;
    return `${answers} ${count === 1 ? 'doesn’t' : 'don’t'} count`;
  },
  answersImported: (count: number) => `Answers of ${students(count)} imported`,

  requestAnswered: (student: Named | undefined, granted: boolean) =>
    `${nameOf(student)}: request ${granted ? 'granted' : 'declined'}`,
  inOutbox: (all: readonly Named[], count: number) =>
    count === 1
      ? `Message to ${nameOf(all[0])} put in the outbox`
      : `Messages to ${students(count)} put in the outbox`,
  passedOn: (count: number) => `${counted(count, 'message')} passed on`,
  wordingSaved: (name: string) => `Wording saved as “${name}”`,
  wordingDeleted: (name: string) => `Saved wording “${name}” deleted`,
  messageDeleted: 'Message deleted from the outbox',

  handedBack: (count: number) => `Handed back to ${students(count)}`,
  heldBack: (count: number) => `Results of ${students(count)} held back`,
  withdrawnReason: 'Withdrawn',
  stageOpened: 'Stage opened',
  planFollowed: (count: number) =>
    count > 0 ? `Handed back to ${students(count)} by the plan` : 'Plan brought up to date',
  planChanged: 'Plan changed',
  planHolds: 'Plan changed for everyone',
  planDropped: 'Changes to the plan dropped',
  afterChanged: 'What is seen after handing in changed',
  correctionMarked: (name: string, number: string) => `Correction of ${name}, question ${number} marked`,
  markBookCreated: (title: string) => `Mark book ${title} created`,
  markBookChanged: 'Mark book changed',
  markBookDeleted: (title: string) => `Mark book ${title} deleted`,
  gradesSaved: (name: string) => `Grade lines saved as “${name}”`,
  gradesDeleted: (name: string) => `Saved grade lines “${name}” deleted`,
  gradesChanged: 'Grade lines changed',
  withdrawn: (count: number) => `Withdrawn from ${students(count)}`,
};

/** What is said of one student, and of several. */
export interface Several {
  one: string;
  several: string;
}

function have(what: string): Several {
  return { one: `has ${what}`, several: `have ${what}` };
}

function can(what: string): Several {
  return { one: `can ${what}`, several: `can ${what}` };
}
