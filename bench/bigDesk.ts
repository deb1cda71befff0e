import { noRows, type DeskTables } from '@/core/formats/backup';
import type { Question, Response } from '@/core/kinds';
import type { Attempt } from '@/core/model/sitting';
import { joinCodeAlphabet } from '@/core/basics/joinCode';
import { chanceFrom } from '@/core/basics/chance';

const at = '2026-11-01T10:00:00.000Z';

/** Fifty questions: forty by key of the three kinds, ten open ones. */
export function fiftyQuestions(): Question[] {
  return Array.from({ length: 50 }, (_, index): Question => {
    const id = `q${index}`;
    const options = Array.from({ length: 5 }, (__, option) => ({
      id: `${id}o${option}`,
      text: `Option ${option}`,
      comment: '',
    }));
    const base = {
      id,
      stem: `Question ${index + 1}`,
      tags: [],
      commentRight: '',
      commentWrong: '',
      note: '',
    };
    const place = index % 5;
    if (place === 4)
      return {
        ...base,
        kind: 'openText',
        points: 4,
        modelAnswer: 'Model',
        scheme: [{ id: `${id}l`, text: 'line', points: 4 }],
      };
    if (place === 3)
      return {
        ...base,
        kind: 'shortText',
        points: 1,
        accepted: ['118', 'one hundred and eighteen'].map((text, k) => ({
          id: `${id}k${k}`,
          text,
          share: 1,
          comment: '',
        })),
        forgive: { case: true, spaces: true, accents: true },
      };
    if (place === 2)
      return {
        ...base,
        kind: 'severalChoices',
        points: 2,
        options,
        key: [`${id}o0`, `${id}o1`],
        rule: 'rightMinusWrong',
      };
    return { ...base, kind: 'oneChoice', points: 1, options, key: `${id}o1` };
  });
}

/** Attempts with an answer to every question, by chance from a seed. */
export function bigAttempts(questions: readonly Question[], count: number): Attempt[] {
  const chance = chanceFrom(7);
  const words = ['iron', 'boat', 'heading', 'chart', 'north', 'card', 'error', 'compass', 'swing', 'pole'];
  const respond = (question: Question): Response => {
    if ('options' in question) return { picked: [chance.pick(question.options).id] };
    if (question.kind === 'shortText')
      return { text: chance.happens(0.6) ? '118' : String(chance.whole(100, 140)) };
    return { text: Array.from({ length: chance.whole(4, 14) }, () => chance.pick(words)).join(' ') };
  };
  return Array.from({ length: count }, (_, index): Attempt => ({
    id: `a${index}`,
    sittingId: 'big',
    studentId: `s${index}`,
    number: 1,
    paperVersion: 1,
    questionIds: questions.map((question) => question.id),
    answers: Object.fromEntries(
      questions.map((question) => [question.id, { response: respond(question), at }]),
    ),
    comeBack: [],
    startedAt: at,
    lastSeenAt: at,
    handedInAt: at,
    collectedAt: null,
    events: [{ kind: 'started', at }],
  }));
}

/** So many questions: the fifty, several times over. */
export function manyQuestions(count: number): Question[] {
  return Array.from({ length: count / 50 }, (_, round) =>
    fiftyQuestions().map((question) => ({ ...question, id: `${question.id}-${round}` })),
  ).flat();
}

/** A desk with one sitting of 550 students and 50 questions, all in, the open answers waiting. */
export function bigDesk(students = 550, questions = fiftyQuestions()): DeskTables {
  const paper = { title: 'Final', instructions: '', questions };
  const code = (index: number) =>
    Array.from({ length: 6 }, (_, place) =>
      joinCodeAlphabet.charAt(Math.floor(index / 30 ** place) % 30),
    ).join('');
  return {
    ...noRows(),
    students: Array.from({ length: students }, (_, index) => ({
      id: `s${index}`,
      familyName: `Family${index}`,
      givenName: `Given${index}`,
      number: String(index),
      email: '',
      joinCode: code(index),
      groupIds: [`g${index % 15}`],
    })),
    groups: Array.from({ length: 15 }, (_, index) => ({
      id: `g${index}`,
      name: `Section ${index + 1}`,
      createdAt: at,
    })),
    papers: [
      { id: 'p', ...paper, createdAt: at, changedAt: at },
      {
        id: 'long',
        title: 'Long',
        instructions: '',
        questions: manyQuestions(200),
        createdAt: at,
        changedAt: at,
      },
    ],
    paperVersions: [{ paperId: 'p', version: 1, frozenAt: at, ...paper }],
    sittings: [
      {
        id: 'big',
        paperId: 'p',
        paperVersion: 1,
        title: 'Final',
        groupIds: Array.from({ length: 15 }, (_, index) => `g${index}`),
        opensAt: at,
        closesAt: null,
        timeLimitMs: null,
        accessCode: '',
        closedToStartsAt: null,
        createdAt: at,
      },
    ],
    attempts: bigAttempts(questions, students),
    settings: [{ key: 'begun', value: 'empty' }],
  };
}
