import { kindNamed, type KindName, type Question } from '@/core/kinds';
import type { Student } from '@/core/model/people';
import type { Attempt, HandMark, Sitting } from '@/core/model/sitting';

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

/** One question of every kind; a kind without a sample does not compile. */
export const samples: Record<KindName, Question> = {
  oneChoice: tideChoice,
  severalChoices: springChoices,
  shortText: courseText,
  openText: openQuestion,
};

export const paperQuestions = Object.values(samples);

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
