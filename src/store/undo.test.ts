import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, planShowing, samples, studentOf } from '../../tests/unit/samples';
import { asks, begins, handsIn, reads, sends } from '../../tests/unit/studentSide';
import { laidOut as pagesOf } from '@/core/intake/paper/layout';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { Scan } from '@/core/model/scan';
import { tableNames } from '@/core/model/tables';
import { makePrint, removePrint } from './answerPapers';
import {
  changeBankQuestion,
  makeSeparate,
  newBankQuestion,
  putIntoBank,
  takeIntoPaper,
  bankList,
} from './bank';
import { setTab, together, undo } from './command';
import {
  carryOn,
  collectFrom,
  giveAllowance,
  giveAttempt,
  giveLasting,
  setAside,
  startAfresh,
  restoreAttempt,
} from './exceptions';
import { decideLate } from './lateAnswers';
import { CommandFault } from '@/core/model/commandFault';
import { changePiles } from './piles';
import { giveShares, pullShareBack } from './shares';
import { markAnswers } from './marks';
import { sendMessages } from './outbox';
import { bringPapers, changePaper, createPaper, deletePaper } from './papers';
import {
  archiveStudents,
  bringBackStudents,
  bringIn,
  changeStudent,
  createGroup,
  deleteGroup,
  mergeStudents,
  newCodes,
  putInGroup,
  renameGroup,
  takeOutOfGroup,
} from './people';
import { handBack, withdrawResults as withdraw } from './releases';
import { bringScans, nameCopy, settleRow, throwOut, typeAnswers } from './scans';
import { answerRequest } from './requests';
import {
  adoptPaper,
  changeSitting,
  createSitting,
  deleteSitting,
  setClosedToStarts,
  setOnDevices,
} from './sittings';
import { desk } from './tables';
import { keepTemplate, removeTemplate } from './templates';

const start = Date.parse(at);
const everything = {
  total: true,
  points: true,
  answers: true,
  rightOrWrong: true,
  accepted: true,
  comments: true,
};

/** Every row that commands change, as it is stored. */
async function snapshot(): Promise<Record<string, string[]>> {
  const all: Record<string, string[]> = {};
  for (const table of tableNames)
    all[table] = (await desk.table(table).toArray()).map((row) => JSON.stringify(row, ordered)).sort();
  return all;
}

/** Fields in one order: a patch may put a field back at the end. */
const ordered = (_key: string, value: unknown): unknown =>
  value !== null && typeof value === 'object' && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value;

/** A desk with two groups, four students, a paper with every kind of question, and a sitting. */
async function laidOut(): Promise<void> {
  await desk.delete();
  await desk.open();
  setTab(null);
  await desk.groups.bulkAdd(['g1', 'g2'].map((id) => ({ id, name: id, createdAt: at })));
  await desk.students.bulkAdd(
    ['2', '3', '4', '5'].map((digit, index) =>
      studentOf({
        id: `s${digit}`,
        joinCode: `AAAAA${digit}`,
        groupIds: [index < 3 ? 'g1' : 'g2'],
        email: `s${digit}@example.org`,
      }),
    ),
  );
  const paper = { title: 'Tides', instructions: '', questions: Object.values(samples) };
  await desk.papers.add({ ...paper, id: 'p1', createdAt: at, changedAt: at });
  await desk.sittings.add({
    id: 'sit1',
    paperId: 'p1',
    paperVersion: null,
    title: 'Tides',
    groupIds: ['g1'],
    opensAt: at,
    closesAt: null,
    timeLimitMs: 3_600_000,
    accessCode: '',
    closedToStartsAt: null,
    createdAt: at,
  });
}

interface Context {
  now: number;
  iso: string;
  /** One of several, by the number that was drawn. */
  pick: <T>(rows: readonly T[]) => T | undefined;
  n: number;
}

const one = async <T>(context: Context, table: string): Promise<T> => {
  const row = context.pick<T>(await desk.table<T>(table).toArray());
  if (row === undefined) throw new Error('none there');
  return row;
};

/** Every command a teacher can give, on whatever is there. */
const commands: Record<string, (context: Context) => Promise<unknown>> = {
  createGroup: ({ iso, n }) => createGroup(`Group ${n}`, iso),
  renameGroup: async (c) => renameGroup((await one<{ id: string }>(c, 'groups')).id, `Renamed ${c.n}`, c.iso),
  deleteGroup: async (c) => deleteGroup((await one<{ id: string }>(c, 'groups')).id, c.iso),
  bringIn: async (c) =>
    bringIn(
      (await one<{ id: string }>(c, 'groups')).id,
      [{ line: 1, number: '', email: '', knownId: null, familyName: `New${c.n}`, givenName: 'Ana' }],
      c.iso,
    ),
  changeStudent: async (c) => {
    const student = await desk.students.get((await one<{ id: string }>(c, 'students')).id);
    if (student)
      await changeStudent(
        { ...student, number: String(c.n), fields: c.n % 2 ? { year: '2' } : undefined },
        c.iso,
      );
  },
  putInGroup: async (c) =>
    putInGroup([(await one<{ id: string }>(c, 'students')).id], 'g2', c.n % 2 ? 'g1' : null, c.iso),
  archive: async (c) => archiveStudents([(await one<{ id: string }>(c, 'students')).id], c.iso),
  bringBack: async (c) => bringBackStudents([(await one<{ id: string }>(c, 'students')).id], c.iso),
  newCodes: async (c) => newCodes([(await one<{ id: string }>(c, 'students')).id], c.iso),
  merge: async (c) => {
    const [a, b] = await desk.students.toArray();
    if (a && b) await mergeStudents(c.n % 2 ? a.id : b.id, c.n % 2 ? b.id : a.id, c.iso);
  },
  takeOutOfGroup: async (c) => takeOutOfGroup([(await one<{ id: string }>(c, 'students')).id], 'g1', c.iso),
  createPaper: ({ iso, n }) => createPaper(`Paper ${n}`, iso),
  bringPapers: ({ iso, n }) =>
    bringPapers([{ title: `Come ${n}`, instructions: '', questions: [] }], 'Brought', iso),
  changePaper: async (c) => {
    const paper = await desk.papers.get('p1');
    if (!paper) return;
    const questions = paper.questions.map((question, index) =>
      index === c.n % paper.questions.length
        ? { ...question, commentPart: c.n % 2 ? `part ${c.n}` : undefined }
        : question,
    );
    await changePaper(
      { ...paper, title: `Tides ${c.n}`, questions, wantedPoints: undefined },
      'Changed',
      c.n % 3 ? 'title' : undefined,
      c.iso,
    );
  },
  deletePaper: async (c) => deletePaper((await one<{ id: string }>(c, 'papers')).id, c.iso),
  createSitting: ({ iso, n }) =>
    createSitting(
      {
        paperId: 'p1',
        title: `Again ${n}`,
        groupIds: ['g1', 'g2'],
        opensAt: at,
        closesAt: null,
        timeLimitMs: null,
        accessCode: '',
        after: n % 2 ? everything : undefined,
        practice: undefined,
      },
      iso,
    ),
  changeSitting: async (c) => {
    const sitting = await desk.sittings.get((await one<{ id: string }>(c, 'sittings')).id);
    if (!sitting) return;
    // As the form of the rules gives it: what is not set is given as undefined.
    const after = c.n % 3 ? undefined : everything;
    const forgivenMs = c.n % 2 ? 60_000 : undefined;
    await changeSitting(
      { ...sitting, accessCode: `ebb ${c.n}`, guests: c.n % 2 === 0, after, forgivenMs },
      'Settings changed',
      c.iso,
    );
  },
  closeToStarts: async (c) =>
    setClosedToStarts((await one<{ id: string }>(c, 'sittings')).id, c.n % 2 === 0, c.iso),
  onDevices: async (c) => setOnDevices((await one<{ id: string }>(c, 'sittings')).id, c.n % 2 === 0, c.iso),
  adopt: async (c) => adoptPaper((await one<{ id: string }>(c, 'sittings')).id, c.iso),
  deleteSitting: async (c) => deleteSitting((await one<{ id: string }>(c, 'sittings')).id, c.iso),
  minutes: (c) => giveAllowance('sit1', 's2', { kind: 'minutes', minutes: 5 }, 'late', c.iso),
  window: (c) =>
    giveAllowance('sit1', ['s2', 's3'], { kind: 'window', opensAt: null, closesAt: c.iso }, 'late', c.iso),
  giveAttempt: (c) => giveAttempt('sit1', 's2', 'ill', c.iso),
  startAfresh: (c) => startAfresh('sit1', 's2', 'ill', c.iso),
  carryOn: (c) => carryOn('sit1', 's2', 'fire drill', c.iso),
  collect: (c) => collectFrom('sit1', ['s2', 's3'], 'hangs', c.iso),
  setAside: (c) => setAside('sit1', 's2', 'had help', c.iso),
  countAgain: async (c) => restoreAttempt((await one<{ id: string }>(c, 'attempts')).id, 'none', c.iso),
  giveLasting: (c) => giveLasting('s2', c.n % 2 ? 25 : null, 'reads slowly', c.iso),
  decideLate: async (c) => {
    const attempt = await desk.attempts.get((await one<{ id: string }>(c, 'attempts')).id);
    const keys = (attempt?.late ?? []).map(({ questionId, typedAt }) => `${questionId} ${typedAt}`);
    if (attempt)
      await decideLate(attempt.sittingId, [{ attemptId: attempt.id, keys }], c.n % 2 === 0, 'line', c.iso);
  },
  mark: async (c) => {
    const attempts = (await desk.attempts.toArray()).map(({ id }) => id);
    const place = { sittingId: 'sit1', questionId: 'q4', attemptIds: attempts };
    await markAnswers(
      place,
      { points: c.n % 4 === 0 ? null : c.n % 4, comment: c.n % 3 ? '' : `comment ${c.n}` },
      'Marked',
      c.iso,
      c.n % 2 ? 'typing' : undefined,
    );
  },
  handBack: (c) =>
    handBack(
      planShowing('sit1', { ...everything, accepted: c.n % 3 === 0 }),
      c.n % 2 ? ['s2'] : ['s2', 's3'],
      c.iso,
    ),
  withdraw: (c) => withdraw('sit1', ['s2', 's3'], c.iso),
  send: (c) => sendMessages('sit1', [{ studentId: 's2', subject: 'Hello', text: `${c.n}` }], c.iso),
  answerRequest: async (c) =>
    answerRequest((await one<{ id: string }>(c, 'requests')).id, c.n % 2 === 0, 'well', c.iso),
  grant: (c) =>
    together({ command: 'grantRequest', said: 'Granted' }, c.iso, async () => {
      await giveAllowance('sit1', 's3', { kind: 'percent', percent: 10 }, 'asked', c.iso);
      await giveAllowance('sit1', 's3', { kind: 'lateStart' }, 'asked', c.iso);
    }),
  keepTemplate: (c) =>
    keepTemplate(
      { name: `T${c.n}`, timeLimitMs: null, attempts: 1, counts: 'last', after: undefined },
      c.iso,
    ),
  removeTemplate: async (c) => removeTemplate((await one<{ id: string }>(c, 'templates')).id, c.iso),
  putIntoBank: (c) => putIntoBank('p1', 'q1', c.iso),
  newInBank: (c) => newBankQuestion('oneChoice', c.iso),
  changeInBank: async (c) => {
    const row = await desk.bank.get((await one<{ id: string }>(c, 'bank')).id);
    if (row)
      await changeBankQuestion(
        { ...row, question: { ...row.question, note: `n${c.n}`, link: undefined } },
        'Changed',
        undefined,
        c.iso,
      );
  },
  takeFromBank: async (c) => {
    const row = c.pick(await bankList(c.now));
    if (row) await takeIntoPaper(row, 'p1', c.iso);
  },
  makeSeparate: (c) => makeSeparate('p1', 'q1', c.iso),
  pile: (c) => {
    const pile = {
      id: 'pile1',
      sittingId: 'sit1',
      questionId: 'q4',
      name: `n${c.n}`,
      members: ['west', 'east'],
    };
    return changePiles('sit1', { put: [{ ...pile, agreedAt: c.iso }], remove: [] }, 'Marked as one', c.iso);
  },
  givesShare: async (c) => {
    const { id, sittingId } = await one<{ id: string; sittingId: string }>(c, 'attempts');
    const answers = [{ questionId: 'q4', attemptIds: [id] }];
    return giveShares(
      sittingId,
      [{ marker: `Marker ${c.n}`, purpose: 'marker', way: 'file', answers }],
      c.iso,
    );
  },
  pullsShareBack: async (c) => {
    const { id } = await one<{ id: string }>(c, 'shares');
    return pullShareBack(id, c.n % 2 === 0 ? c.iso : null, c.iso);
  },
  scatter: () => changePiles('sit1', { put: [], remove: ['pile1'] }, 'Scattered', at),
  printsPapers: (c) =>
    makePrint(
      {
        sittingId: 'sit1',
        name: '',
        mixed: c.n % 2 === 1,
        sheet: c.n % 3 === 1,
        digits: 0,
        copies: ['s2', null],
      },
      (asked, words, form) =>
        Promise.resolve(pagesOf(asked, words, (text, size) => text.length * size * 0.18, form)),
      c.iso,
    ),
  removesPapers: async (c) => removePrint(await one<AnswerPaper>(c, 'prints'), c.iso),
  scans: async (c) => {
    const print = await one<AnswerPaper>(c, 'prints');
    const page = 1 + (c.n % print.pages.length);
    const boxes = (print.pages[page - 1] ?? []).filter(({ box }) => box !== null);
    const scan: Scan = {
      ...{ id: `scan${c.n}`, sittingId: 'sit1', at: c.iso, is: 'read' },
      from: { file: 'scans.pdf', digest: 'digest', page: c.n + 1 },
      picture: { id: `picture${c.n}`, name: 'scan.jpg', mediaType: 'image/jpeg', size: 1 },
      place: { printId: print.id, copy: 1 + (c.n % 2), page },
      boxes: boxes.map((_, at) => ({ state: at % 4 === c.n % 4 ? 'ticked' : 'empty', ink: 0 })),
      areas: [],
    };
    return bringScans('sit1', [scan], c.iso);
  },
  settlesTicks: async (c) => {
    const { printId, copy } = (await one<Scan>(c, 'scans')).place ?? { printId: '', copy: 1 };
    return settleRow(
      'sit1',
      { printId, copy },
      { questionId: 'q1', part: 'options', number: '1' },
      ['a'],
      c.iso,
    );
  },
  throwsScanOut: async (c) => throwOut([await one<Scan>(c, 'scans')], c.iso),
  namesPaper: async (c) =>
    nameCopy('sit1', { printId: (await one<AnswerPaper>(c, 'prints')).id, copy: 2 }, 's3', c.iso),
  typesFromPaper: async (c) => {
    const { id } = await one<{ id: string }>(c, 'attempts');
    return typeAnswers(samples.shortText, [id], `typed ${c.n}`, c.iso);
  },
};

/** What students do meanwhile. */
const students: Record<string, (context: Context) => Promise<unknown>> = {
  starts: ({ now, n }) => begins(`AAAAA${2 + (n % 3)}`, 'sit1', '', now),
  types: async (c) => {
    const attempt = await desk.attempts.get((await one<{ id: string }>(c, 'attempts')).id);
    const student = attempt && (await desk.students.get(attempt.studentId));
    if (attempt && student)
      await sends(
        student.joinCode,
        attempt.id,
        { q4: { response: { text: `typed ${c.n}` }, at: c.iso } },
        null,
        c.now,
      );
  },
  handsIn: async (c) => {
    const attempt = await desk.attempts.get((await one<{ id: string }>(c, 'attempts')).id);
    const student = attempt && (await desk.students.get(attempt.studentId));
    if (attempt && student) await handsIn(student.joinCode, attempt.id, c.now);
  },
  reads: ({ now, n }) => reads(`AAAAA${2 + (n % 3)}`, 'sit1', now),
  asks: ({ now }) => asks('AAAAA3', 'sit1', { asks: 'moreTime', words: 'please' }, now),
};

const anyOf = (names: Record<string, unknown>) =>
  fc.record({
    name: fc.constantFrom(...Object.keys(names)),
    n: fc.nat(30),
    waitMs: fc.constantFrom(1_000, 20_000, 4_000_000),
  });

let now = start;
/** Does one thing; what cannot be done as things stand is not done. @returns whether it changed anything */
async function does(all: typeof commands, { name, n, waitMs }: { name: string; n: number; waitMs: number }) {
  now += waitMs;
  const context: Context = {
    now,
    iso: new Date(now).toISOString(),
    pick: (rows) => rows[n % Math.max(1, rows.length)],
    n,
  };
  const entries = await desk.log.count();
  await all[name]?.(context).catch((error: unknown) => {
    // A refusal is one that the command knows; anything else is a fault of it.
    const none = error instanceof Error && error.message === 'none there';
    if (!none && !(error instanceof CommandFault)) throw error;
  });
  return (await desk.log.count()) > entries;
}

beforeEach(async () => {
  now = start;
  await laidOut();
});

/** A desk on which there is something of everything. */
const busy = [
  ...['starts', 'types', 'asks', 'handsIn', 'setAside', 'keepTemplate', 'newInBank', 'putIntoBank'],
  ...['mark', 'handBack', 'createPaper', 'printsPapers', 'scans'],
].map((name) => ({ name, n: 0, waitMs: 1_000 }));

const few = { numRuns: 40 };

describe('taking back', () => {
  it('every command is taken back to the letter, whatever was done before', async () => {
    const tried = new Set<string>();
    for (const name of Object.keys(commands))
      await fc.assert(
        fc.asyncProperty(
          fc.array(anyOf({ ...commands, ...students }), { maxLength: 6, size: 'max' }),
          fc.nat(30),
          async (acts, n) => {
            await laidOut();
            now = start;
            for (const act of n % 2 === 0 ? [...busy, ...acts] : acts)
              await does({ ...commands, ...students }, act);
            const before = await snapshot();
            // Typing that joins what was typed before is one step with it.
            if (!(await does(commands, { name, n, waitMs: 20_000 }))) return;
            tried.add(name);
            expect((await undo(new Date(now).toISOString())).outcome, name).toBe('undone');
            expect(await snapshot(), name).toEqual(before);
          },
        ),
        { numRuns: 8 },
      );
    // Those that need something particular to be there may not have come to it.
    expect(Object.keys(commands).filter((name) => !tried.has(name)).length).toBeLessThan(12);
    // Every command eight times, on a desk of its own.
  }, 180_000);

  it('all that was done is taken back, one after the other, to where it began', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(anyOf(commands), { minLength: 3, maxLength: 14, size: 'max' }),
        async (acts) => {
          await laidOut();
          now = start;
          const before = await snapshot();
          for (const act of acts) await does(commands, act);
          for (let steps = 0; steps < 40; steps++) {
            const { outcome, said } = await undo(new Date(now).toISOString());
            if (outcome === 'nothing') break;
            expect(outcome, said).toBe('undone');
          }
          expect(await snapshot()).toEqual(before);
        },
      ),
      few,
    );
  });

  it('with students at work in between: nothing of theirs is lost, nothing throws, and what can’t be taken back is passed over', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(anyOf({ ...commands, ...students, types2: 0 }), {
          minLength: 4,
          maxLength: 18,
          size: 'max',
        }),
        async (acts) => {
          await laidOut();
          now = start;
          for (const act of acts)
            await does({ ...commands, ...students }, act.name === 'types2' ? { ...act, name: 'types' } : act);
          const typed = await texts();
          let steps = 0;
          for (; steps < 60; steps++) {
            const { outcome } = await undo(new Date(now).toISOString());
            if (outcome === 'nothing') break;
          }
          expect(steps).toBeLessThan(60);
          for (const text of typed) expect([...(await texts())], text).toContain(text);
          // Nothing hangs in the air.
          const [attempts, sittings, people] = await Promise.all([
            desk.attempts.toArray(),
            desk.sittings.toCollection().primaryKeys(),
            desk.students.toCollection().primaryKeys(),
          ]);
          for (const attempt of attempts) {
            expect(sittings).toContain(attempt.sittingId);
            expect(people).toContain(attempt.studentId);
          }
        },
      ),
      few,
    );
  });
});

/** Everything students typed that is somewhere on the desk. */
async function texts(): Promise<Set<string>> {
  const found = new Set<string>();
  for (const { answers, earlier = [], late = [] } of await desk.attempts.toArray())
    for (const { response } of [...Object.values(answers), ...earlier, ...late])
      // What is on paper has no words.
      if ('text' in response && response.text) found.add(response.text);
  return found;
}

describe('undo and tabs', () => {
  const name = { command: 'createGroup', said: '' };
  const inTab = (id: string) => setTab({ id, where: () => `/of/${id}` });

  it('takes back the last act of this tab, and says where it was done', async () => {
    inTab('one');
    await createGroup('Mine', at);
    inTab('two');
    await createGroup('Theirs', at);
    inTab('one');
    expect(await undo(at)).toMatchObject({
      outcome: 'undone',
      said: expect.stringContaining('Mine') as string,
      where: '/of/one',
    });
    expect((await desk.groups.toArray()).map((group) => group.name)).toContain('Theirs');
    expect((await undo(at)).outcome).toBe('nothing');
    expect(name.command).toBe('createGroup');
  });

  it('runs of typing are joined within a tab, never across two', async () => {
    const type = (tab: string, title: string) => {
      inTab(tab);
      return desk.papers
        .get('p1')
        .then((paper) => paper && changePaper({ ...paper, title }, 'Title', 'title', at));
    };
    await type('one', 'T');
    await type('one', 'Ti');
    await type('two', 'Tid');
    await type('one', 'Tide');
    inTab('two');
    // Changed since, in another tab: said so, and not in the way of anything.
    expect((await undo(at)).outcome).toBe('changedSince');
    inTab('one');
    expect((await undo(at)).outcome).toBe('undone');
    expect((await desk.papers.get('p1'))?.title).toBe('Tid');
  });

  it('a hand back is taken back though the student has looked; when handed back again, who looked is known', async () => {
    setTab(null);
    await begins('AAAAA2', 'sit1', '', start);
    await handsIn('AAAAA2', (await desk.attempts.toArray())[0]?.id ?? '', start + 1000);
    await markAnswers(
      { sittingId: 'sit1', questionId: 'q4', attemptIds: [(await desk.attempts.toArray())[0]?.id ?? ''] },
      { points: 1 },
      'Marked',
      at,
    );
    await handBack(planShowing('sit1', everything), ['s2'], at);
    expect(await reads('AAAAA2', 'sit1', start + 2000)).not.toBeNull();
    expect(await undo(at)).toMatchObject({ outcome: 'undone', said: 'Handed back to 1 student' });
    expect(await reads('AAAAA2', 'sit1', start + 3000)).toBeNull();
    expect((await undo(at)).said).toBe('Marked');
    await handBack(planShowing('sit1', everything), ['s2'], at);
    await withdraw('sit1', ['s2'], at);
    await handBack(planShowing('sit1', everything), ['s2'], at);
    expect((await desk.openings.get(['sit1', 's2']))?.at).toHaveLength(1);
  });
});
