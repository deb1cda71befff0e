import { kindNamed, type KindName, type Question, type Response } from '@/core/kinds';
import type { Student } from '@/core/model/people';
import type { Attempt, Sitting } from '@/core/model/sitting';
import { ownMarker, type HandMark } from '@/core/model/mark';

/** Small real-looking rows for tests; each can be changed in part. */

export const at = '2026-11-23T10:00:00.000Z';

export const tideChoice: Question = {
  ...kindNamed('oneChoice').empty(counter('q1-')),
  kind: 'oneChoice',
  id: 'q1',
  stem: 'How much of the range in the third hour?',
  points: 1,
  options: [
    { id: 'a', text: '1/12', comment: '' },
    { id: 'b', text: '3/12', comment: '' },
    { id: 'c', text: '2/12', comment: 'SECRET-OPTION-COMMENT' },
  ],
  key: 'b',
  commentRight: 'SECRET-RIGHT',
  commentWrong: 'SECRET-WRONG',
  note: 'SECRET-NOTE',
};

export const springChoices: Question = {
  ...kindNamed('severalChoices').empty(counter('q2-')),
  kind: 'severalChoices',
  id: 'q2',
  stem: 'At springs',
  points: 2,
  options: ['range larger', 'streams faster', 'low water lower', 'high water lower'].map((text, index) => ({
    id: `o${index}`,
    text,
    comment: index === 3 ? 'SECRET-OPTION-COMMENT' : '',
  })),
  key: ['o0', 'o1', 'o2'],
  rule: 'rightMinusWrong',
  note: 'SECRET-NOTE',
};

export const courseText: Question = {
  ...kindNamed('shortText').empty(counter('q3-')),
  kind: 'shortText',
  id: 'q3',
  stem: 'True course?',
  points: 2,
  accepted: [
    { id: 'k0', text: 'SECRET-118', share: 1, comment: 'SECRET-ACCEPTED-COMMENT' },
    { id: 'k1', text: 'SECRET-half', share: 0.5, comment: '' },
  ],
  forgive: { case: true, spaces: true, accents: true },
  note: 'SECRET-NOTE',
};

export const openQuestion: Question = {
  ...kindNamed('openText').empty(counter('q4-')),
  kind: 'openText',
  id: 'q4',
  stem: 'Explain deviation',
  points: 3,
  modelAnswer: 'SECRET-MODEL',
  scheme: [
    { id: 'l1', text: 'SECRET-LINE-1', points: 2 },
    { id: 'l2', text: 'SECRET-LINE-2', points: 1 },
    { id: 'l3', text: 'SECRET-LINE-3', points: -1 },
  ],
  commentWrong: 'SECRET-WRONG',
  note: 'SECRET-NOTE',
};

export const sternLight: Question = {
  ...kindNamed('trueFalse').empty(counter('q5-')),
  kind: 'trueFalse',
  id: 'q5',
  stem: 'A stern light is white',
  points: 1,
  key: true,
  commentTrue: '',
  commentFalse: 'SECRET-OPTION-COMMENT',
  note: 'SECRET-NOTE',
};

/** 18 nautical miles in an hour and a half; half the points within 5 %. */
export const runDistance: Question = {
  ...kindNamed('number').empty(counter('q6-')),
  kind: 'number',
  id: 'q6',
  stem: 'How far does she run?',
  points: 2,
  accepted: [
    { id: 'n0', form: 'percent', value: 18, tolerance: 2, upTo: null, share: 1, comment: '' },
    { id: 'n1', form: 'percent', value: 18, tolerance: 5, upTo: null, share: 0.5, comment: 'SECRET-TIER' },
  ],
  unitAsked: 'optional',
  units: [
    { id: 'u0', names: 'nm, M, nautical miles', factor: 1 },
    // SI Brochure, 9th edition, table 8 of the 8th: 1 nautical mile = 1852 m.
    { id: 'u1', names: 'km', factor: 1000 / 1852 },
  ],
  figures: null,
  note: 'SECRET-NOTE',
};

export const streamGaps: Question = {
  ...kindNamed('gaps').empty(counter('q7-')),
  kind: 'gaps',
  id: 'q7',
  stem: 'Fill in.',
  points: 2,
  forgive: { case: true, spaces: true, accents: true },
  text: 'The stream that comes in is the [1], the one that goes out the [2].',
  gaps: [
    {
      id: 'g1',
      number: 1,
      filledBy: 'typing',
      accepted: [{ id: 'ga', text: 'SECRET-FLOOD', share: 1, comment: 'SECRET-GAP-COMMENT' }],
      options: [],
      key: null,
    },
    {
      id: 'g2',
      number: 2,
      filledBy: 'picking',
      accepted: [],
      options: [
        { id: 'ge', text: 'ebb', comment: '' },
        { id: 'gs', text: 'slack', comment: 'SECRET-OPTION-COMMENT' },
      ],
      key: 'ge',
    },
  ],
  note: 'SECRET-NOTE',
};

export const lightColours: Question = {
  ...kindNamed('matching').empty(counter('q8-')),
  kind: 'matching',
  id: 'q8',
  stem: 'Which light is which colour?',
  points: 3,
  items: ['port', 'starboard', 'stern'].map((text, index) => ({ id: `i${index}`, text })),
  targets: ['red', 'green', 'white', 'yellow'].map((text, index) => ({ id: `t${index}`, text })),
  key: { i0: 't0', i1: 't1', i2: 't2' },
  wrongTakesOff: false,
  note: 'SECRET-NOTE',
};

export const tideOrder: Question = {
  ...kindNamed('ordering').empty(counter('q9-')),
  kind: 'ordering',
  id: 'q9',
  stem: 'In the order of a day',
  points: 3,
  items: ['low water', 'flood', 'high water', 'ebb'].map((text, index) => ({ id: `p${index}`, text })),
  rule: 'pairs',
  note: 'SECRET-NOTE',
};

export const sides: Question = {
  ...kindNamed('categories').empty(counter('q10-')),
  kind: 'categories',
  id: 'q10',
  stem: 'Sort the marks',
  points: 2,
  items: ['red can', 'green cone', 'red pillar', 'green pillar'].map((text, index) => ({
    id: `m${index}`,
    text,
  })),
  targets: ['to port', 'to starboard'].map((text, index) => ({ id: `s${index}`, text })),
  key: { m0: 's0', m1: 's1', m2: 's0', m3: 's1' },
  wrongTakesOff: true,
  note: 'SECRET-NOTE',
};

/** A course to plot on a chart. */
export const plottedCourse: Question = {
  ...kindNamed('working').empty(counter('q11-')),
  kind: 'working',
  id: 'q11',
  stem: 'Plot the course to steer',
  points: 4,
  ways: ['words', 'maths', 'drawing', 'photo'],
  canvas: { asset: 'chart', alt: 'A chart of the bay', decoration: false, width: 800, height: 600 },
  modelAnswer: 'SECRET-MODEL',
  scheme: [
    { id: 'w1', text: 'SECRET-LINE-1', points: 3 },
    { id: 'w2', text: 'SECRET-LINE-2', points: 1 },
  ],
  note: 'SECRET-NOTE',
};

export const passagePlan: Question = {
  ...kindNamed('file').empty(counter('q12-')),
  kind: 'file',
  id: 'q12',
  stem: 'Hand in your passage plan',
  points: 3,
  sorts: ['pdf', 'sheet'],
  most: 2,
  modelAnswer: 'SECRET-MODEL',
  scheme: [{ id: 'f1', text: 'SECRET-LINE-1', points: 3 }],
  note: 'SECRET-NOTE',
};

/** A blank answer of every kind. */
export const blanks: Record<KindName, Response> = {
  oneChoice: { picked: [] },
  severalChoices: { picked: [] },
  trueFalse: { picked: [] },
  shortText: { text: ' ' },
  number: { text: '' },
  gaps: { gaps: { g1: ' ', g2: '' } },
  matching: { pairs: {} },
  ordering: { order: [] },
  categories: { pairs: {} },
  openText: { text: '\n' },
  working: { words: ' ', maths: [''], drawing: [], photos: [] },
  file: { files: [] },
};

/** One question of every kind; a kind without a sample does not compile. */
export const samples: Record<KindName, Question> = {
  oneChoice: tideChoice,
  severalChoices: springChoices,
  shortText: courseText,
  trueFalse: sternLight,
  number: runDistance,
  gaps: streamGaps,
  matching: lightColours,
  ordering: tideOrder,
  categories: sides,
  openText: openQuestion,
  working: plottedCourse,
  file: passagePlan,
};

/** A short paper of the four commonest kinds. */
export const paperQuestions: Question[] = [tideChoice, springChoices, courseText, openQuestion];

export function attemptOf(part: Partial<Attempt> = {}): Attempt {
  return {
    id: 'attempt1',
    sittingId: 'sitting1',
    studentId: 'student1',
    number: 1,
    paperVersion: 1,
    questionIds: paperQuestions.map((question) => question.id),
    answers: {},
    comeBack: [],
    startedAt: at,
    lastSeenAt: at,
    handedInAt: null,
    collectedAt: null,
    events: [{ kind: 'started', at }],
    ...part,
  };
}

export function markOf(part: Partial<HandMark> = {}): HandMark {
  return {
    attemptId: 'attempt1',
    questionId: 'q4',
    sittingId: 'sitting1',
    points: null,
    lines: [],
    comment: '',
    aside: false,
    at,
    markerId: ownMarker,
    history: [],
    ...part,
  };
}

export function sittingOf(part: Partial<Sitting> = {}): Sitting {
  return {
    id: 'sitting1',
    paperId: 'paper1',
    paperVersion: 1,
    title: 'Tides',
    groupIds: ['group1'],
    opensAt: at,
    closesAt: '2026-11-23T12:00:00.000Z',
    timeLimitMs: 60 * 60_000,
    accessCode: '',
    closedToStartsAt: null,
    createdAt: at,
    ...part,
  };
}

export function studentOf(part: Partial<Student> = {}): Student {
  return {
    id: 'student1',
    familyName: 'Okafor',
    givenName: 'Amara',
    number: '2101',
    email: 'amara.okafor@example.org',
    joinCode: 'K7M4QX',
    groupIds: ['group1'],
    ...part,
  };
}

export function counter(prefix: string): () => string {
  let count = 0;
  return () => `${prefix}${count++}`;
}
