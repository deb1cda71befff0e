import { kindNames, type KindName, type Question, type Response } from '@/core/kinds';
import type { KindSample } from '@/core/kinds/KindSample';
import { samples as kindSamples } from '@/core/kinds/registry/samples';
import type { Student } from '@/core/model/people';
import type { Attempt, Sitting } from '@/core/model/sitting';
import type { ReleasePlan, Shows } from '@/core/model/release';
import { ownMarker, type HandMark } from '@/core/model/mark';

/** Small real-looking rows for tests; each can be changed in part. */

export const at = '2026-11-23T10:00:00.000Z';

const named = <T>(of: (sample: KindSample<Question>) => T) =>
  // Every kind has its sample: the registry is made from the list of kinds.
  Object.fromEntries(kindNames.map((name) => [name, of(kindSamples[name])])) as Record<KindName, T>;

/** A blank answer of every kind. */
export const blanks: Record<KindName, Response> = named(({ blank }) => blank);

/** One question of every kind. */
export const samples: Record<KindName, Question> = named(({ question }) => question);

export const {
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
} = samples;

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

/** A plan that shows this as soon as a result is handed back. */
export const planShowing = (sittingId: string, shows: Shows): ReleasePlan => ({
  sittingId,
  stages: [{ id: 'stage1', starts: 'handedBack', at: null, until: null, lastsMs: null, shows }],
  at,
});
