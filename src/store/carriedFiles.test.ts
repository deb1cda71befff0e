import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import {
  at,
  courseText,
  openQuestion,
  planShowing,
  sittingOf,
  studentOf,
  tideChoice,
  tideOrder,
} from '../../tests/unit/samples';
import { carrierWith } from '../../tests/unit/carrier';
import { inFiles } from '@/carriers/inFiles';
import { chosenCarrier } from '@/carriers/chosen';
import { ServerFault } from '@/core/exchange/serverFault';
import { openedWith, takenIn, takenOff } from '@/carriers/carriedFiles';
import {
  packetSealer,
  packetText,
  readPacket,
  type AnswersFile,
  type Packet,
} from '@/core/formats/packet/packetFile';
import { kindOf } from '@/core/kinds';
import type { PacketFor } from '@/core/formats/packet/packetZip';
import { itemsOf } from '@/core/kinds/items';
import { assetId } from '@/core/basics/assetBytes';
import type { Answers, Sitting } from '@/core/model/sitting';
import { attemptState } from '@/core/attempts/terms';
import { emptyTables, replaceDesk } from './backup';
import { paperPackets, scriptPackets, takeInAnswers } from './carriedFiles';
import { undo } from './command';
import { giveAllowance } from './exceptions';
import { markAnswers } from './marks';
import { handBack } from './releases';
import { sitDesk } from './sitTables';
import { desk } from './tables';

const start = Date.parse(at);
const iso = (ms: number) => new Date(start + ms).toISOString();
const amara = studentOf();
const linh = studentOf({ id: 'linh', familyName: 'Nguyễn', givenName: 'Linh', joinCode: 'B2B2B2' });
const all = { total: true, points: true, answers: true, rightOrWrong: true, accepted: true, comments: true };

async function deskWith(part: Partial<Sitting> = {}) {
  await replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: [amara, linh],
    papers: [
      {
        id: 'paper1',
        title: 'Tides',
        instructions: '',
        questions: [tideChoice, courseText, openQuestion, tideOrder],
        shuffle: true,
        createdAt: at,
        changedAt: at,
      },
    ],
    sittings: [
      sittingOf({ paperVersion: null, closesAt: null, timeLimitMs: 3_600_000, ...part }),
      sittingOf({ id: 'sitting2', title: 'Another', paperVersion: null }),
    ],
  });
}

let clock = start;
const hand = inFiles(() => clock);
const text = (words: string) => ({ response: { text: words }, at });

/** Through a real file each time. */
async function throughFile(packet: Packet) {
  const read = await readPacket(new TextEncoder().encode(await packetText(packet, 'T')));
  if (read.outcome !== 'read') throw new Error(read.outcome);
  return read.packet;
}

async function opens({ packet }: PacketFor, student = amara) {
  const read = await throughFile(packet);
  if (read.kind === 'answers') throw new Error('answers');
  await takenIn(read, student);
}

async function sits(student = amara, answers: Answers = { q4: text('iron') }, sittingId = 'sitting1') {
  const reply = await hand.start(student.joinCode, sittingId, '', 'tab');
  if (reply.outcome !== 'started') throw new Error(reply.why);
  await hand.handOver(student.joinCode, reply.packet.attemptId, { answers, comeBack: null, tabId: 'tab' });
  return reply.packet;
}

async function answersOf(student = amara, sittingId = 'sitting1'): Promise<AnswersFile> {
  const file = await hand.toHand(student.joinCode, sittingId);
  const read = await readPacket(new TextEncoder().encode(file?.text ?? ''));
  if (read.outcome !== 'read' || read.packet.kind !== 'answers') throw new Error(read.outcome);
  return read.packet.content;
}

const paperFor = async (forEach = false, sittingId = 'sitting1') => paperPackets(sittingId, forEach, at);
const takeIn = async (...files: AnswersFile[]) =>
  takeInAnswers(
    'sitting1',
    files.map((file) => ({ file, studentId: null })),
    iso(clock - start + 60_000),
  );

async function one<T>(list: Promise<T[]>): Promise<T> {
  const [first] = await list;
  if (first === undefined) throw new Error('none');
  return first;
}

beforeEach(async () => {
  clock = start;
  await deskWith();
  for (const table of sitDesk.tables) await table.clear();
});

describe('a sitting carried by hand', () => {
  it('goes out, is worked on without anyone answering, and comes back as it was answered', async () => {
    await opens(await one(paperFor()));
    expect(await hand.home(amara.joinCode)).toMatchObject([
      {
        sittingId: 'sitting1',
        may: 'start',
        state: 'notStarted',
        codeAsked: false,
        inFile: 'nothing',
        questions: 4,
      },
    ]);
    clock += 1000;
    const packet = await sits(amara, { q4: text('iron near it'), q3: text('118') });
    clock += 60_000;
    expect(await hand.handIn(amara.joinCode, packet.attemptId)).toMatchObject({ state: 'handedIn' });
    expect(await hand.home(amara.joinCode)).toMatchObject([{ may: 'noAttemptLeft', inFile: 'toSave' }]);
    clock += 1000;
    const file = await answersOf();
    expect(await hand.home(amara.joinCode)).toMatchObject([{ inFile: 'saved' }]);
    expect(await takeIn(file)).toMatchObject([{ outcome: 'new', student: { id: 'student1' }, odd: null }]);
    expect(await desk.attempts.toArray()).toMatchObject([
      {
        id: packet.attemptId,
        studentId: 'student1',
        number: 1,
        paperVersion: 1,
        answers: { q4: { response: { text: 'iron near it' } }, q3: { response: { text: '118' } } },
        startedAt: iso(1000),
        handedInAt: iso(61_000),
      },
    ]);
    // The desk shows every question as the student saw it, the mixed one too.
    const paper = await desk.paperVersions.get(['paper1', 1]);
    const byId = new Map(itemsOf(paper?.questions ?? []).map((question) => [question.id, question]));
    for (const seen of packet.questions) {
      const question = byId.get(seen.id);
      expect(question && kindOf(question).forStudent(question, `${packet.attemptId} ${seen.id}`)).toEqual(
        seen,
      );
    }
    expect((await desk.attempts.get(packet.attemptId))?.questionIds).toEqual(
      packet.questions.map(({ id }) => id),
    );
    await undo(iso(100_000));
    expect(await desk.attempts.count()).toBe(0);
  });

  it('the paper is fixed once it is out', async () => {
    expect((await desk.sittings.get('sitting1'))?.paperVersion).toBeNull();
    await paperFor();
    expect((await desk.sittings.get('sitting1'))?.paperVersion).toBe(1);
    expect(await desk.log.count()).toBe(1);
    await paperFor();
    expect(await desk.log.count()).toBe(1);
  });

  it('a file for each has what each may have; one for everyone does not', async () => {
    await desk.students.update('linh', { extraPercent: 50 });
    await giveAllowance('sitting1', ['linh'], { kind: 'minutes', minutes: 5 }, 'SECRET-REASON', at);
    const [first, second] = await paperFor(true);
    expect([first?.student?.id, second?.student?.id]).toEqual(['linh', 'student1']);
    if (!first || !second) throw new Error('two');
    expect(JSON.stringify(first.packet)).not.toContain('SECRET');
    await opens(first, linh);
    await opens(second, amara);
    const minutes = async (code: string) => ((await hand.home(code))[0]?.timeLimitMs ?? 0) / 60_000;
    expect(await minutes(linh.joinCode)).toBe(60 + 30 + 5);
    expect(await minutes(amara.joinCode)).toBe(60);
  });

  it('time runs out by the clock of that computer, and what is there then is what counts', async () => {
    await opens(await one(paperFor()));
    const { attemptId } = await sits();
    clock += 3_600_000 + 60_000;
    const late = { answers: { q3: text('too late') }, comeBack: null, tabId: 'tab' };
    expect(await hand.handOver(amara.joinCode, attemptId, late)).toMatchObject({ state: 'collectedByTime' });
    expect(await takeIn(await answersOf())).toMatchObject([{ outcome: 'new', odd: null }]);
    const kept = await desk.attempts.get(attemptId);
    expect(Object.keys(kept?.answers ?? {})).toEqual(['q4']);
    const terms = {
      opensAt: start,
      closesAt: null,
      timeLimitMs: 3_600_000,
      extraMs: 0,
      attempts: 1,
      start: 'open' as const,
    };
    expect(kept && attemptState(kept, terms, clock)).toBe('collectedByTime');
  });

  it('the file opened again changes the rules, and neither paper nor answers of what was begun', async () => {
    const first = await one(paperFor());
    await opens(first);
    const { attemptId } = await sits();
    if (first.packet.kind !== 'paper') throw new Error('paper');
    const { content } = first.packet;
    const sitting = { ...content.sitting, timeLimitMs: 7_200_000 };
    const paper = { ...content.paper, version: 2 };
    await opens({ student: null, packet: { kind: 'paper', content: { ...content, sitting, paper } } });
    const more = { answers: { q3: text('118') }, comeBack: null, tabId: 'tab' };
    expect(await hand.handOver(amara.joinCode, attemptId, more)).toMatchObject({
      answered: ['q4', 'q3'],
      deadline: start + 7_200_000,
    });
  });

  it('files of an answer come with it', async () => {
    await opens(await one(paperFor()));
    const { attemptId } = await sits();
    const bytes = new TextEncoder().encode('a photo');
    const photo = {
      id: await assetId(bytes),
      name: 'plot.jpg',
      mediaType: 'image/jpeg',
      size: bytes.length,
      bytes,
    };
    expect(await hand.handOverFile(amara.joinCode, attemptId, photo)).toBe('kept');
    await takeIn(await answersOf());
    expect(await desk.assets.get(photo.id)).toMatchObject({ name: 'plot.jpg', size: 7 });
    expect((await desk.attempts.get(attemptId))?.files).toMatchObject([{ id: photo.id }]);
  });

  it('what is shown straight after and the practice of a sitting stay at home, and so does the access code', async () => {
    await deskWith({ after: all, accessCode: 'SECRET-CODE' });
    const { packet } = await one(paperFor());
    expect(JSON.stringify(packet)).not.toContain('SECRET');
    await opens({ student: null, packet });
    const { attemptId } = await sits();
    await hand.handIn(amara.joinCode, attemptId);
    expect(await hand.result(amara.joinCode, 'sitting1')).toBeNull();
  });
});

describe('answers that come back', () => {
  it('twice are a double, more of them are taken, an older state brings nothing', async () => {
    await opens(await one(paperFor()));
    const { attemptId } = await sits();
    const early = await answersOf();
    clock += 1000;
    await sits(amara, { q3: text('118') });
    await hand.handIn(amara.joinCode, attemptId);
    const later = await answersOf();
    expect((await takeIn(early, early)).map(({ outcome }) => outcome)).toEqual(['new', 'double']);
    await desk.attempts.update(attemptId, { collectedAt: iso(500) });
    expect((await takeIn(later, later, early)).map(({ outcome }) => outcome)).toEqual([
      'further',
      'double',
      'double',
    ]);
    expect(await desk.attempts.get(attemptId)).toMatchObject({
      answers: { q4: { response: { text: 'iron' } }, q3: { response: { text: '118' } } },
      handedInAt: iso(1000),
      collectedAt: iso(500),
      number: 1,
    });
    expect(await desk.attempts.count()).toBe(1);
  });

  it('of another sitting, of nobody, of another student and copied ones change nothing', async () => {
    const [forLinh] = await paperFor(true);
    if (!forLinh) throw new Error('none');
    await opens(forLinh, amara);
    await sits();
    const underAmara = await answersOf();
    expect(await takeIn(underAmara)).toMatchObject([{ outcome: 'otherStudent', studentId: 'linh' }]);

    const nobody = studentOf({ id: 'x', joinCode: 'ZZZZZZ', givenName: 'Zoë' });
    await opens(await one(paperFor()), nobody);
    await sits(nobody);
    const ofNobody = await answersOf(nobody);
    expect(await takeIn(ofNobody)).toMatchObject([{ outcome: 'nobody', student: null }]);

    await opens(await one(paperFor(false, 'sitting2')));
    await sits(amara, {}, 'sitting2');
    const other = await answersOf(amara, 'sitting2');
    expect(await takeIn(other)).toMatchObject([{ outcome: 'otherSitting', sittingId: 'sitting2' }]);
    expect(await desk.attempts.count()).toBe(0);

    // The teacher says whose they are.
    const said = (file: AnswersFile, studentId: string) =>
      takeInAnswers('sitting1', [{ file, studentId }], iso(60_000));
    expect(await said(ofNobody, 'linh')).toMatchObject([{ outcome: 'new', student: { id: 'linh' } }]);
    expect(await said(ofNobody, 'student1')).toMatchObject([{ outcome: 'copied', studentId: 'linh' }]);
    expect(await said(underAmara, 'student1')).toMatchObject([{ outcome: 'new' }]);
    expect(await desk.attempts.count()).toBe(2);
  });

  it('begun anew after all was taken off the computer is a further attempt, and named so', async () => {
    await opens(await one(paperFor()));
    await sits();
    const first = await answersOf();
    await takenOff(amara.joinCode, 'sitting1');
    expect(await hand.home(amara.joinCode)).toEqual([]);
    await opens(await one(paperFor()));
    await sits();
    expect((await takeIn(first, await answersOf())).map(({ outcome }) => outcome)).toEqual([
      'new',
      'another',
    ]);
    expect((await desk.attempts.toArray()).map(({ number }) => number).sort()).toEqual([1, 2]);
  });

  it('that were made up do not fit: other questions, an answer of another shape, what only a teacher does', async () => {
    await opens(await one(paperFor()));
    await sits();
    const file = await answersOf();
    const [attempt] = file.attempts;
    if (!attempt) throw new Error('none');
    const made = (part: object) => ({ ...file, attempts: [{ ...attempt, ...part }] }) as AnswersFile;
    const outcome = async (part: object) => (await takeIn(made(part)))[0];
    expect(await outcome({ questionIds: ['q4'] })).toMatchObject({ outcome: 'unfit', question: null });
    expect(await outcome({ paperVersion: 7 })).toMatchObject({ outcome: 'unfit' });
    expect(await outcome({ answers: { ghost: text('x') } })).toMatchObject({
      outcome: 'unfit',
      question: null,
    });
    expect(await outcome({ answers: { q4: { response: { picked: ['o1'] }, at } } })).toMatchObject({
      outcome: 'unfit',
      question: '3',
    });
    expect(await desk.attempts.count()).toBe(0);
    expect(await outcome({ pausedMs: 9_000_000, number: 9, setAsideAt: null })).toMatchObject({
      outcome: 'new',
    });
    expect(await desk.attempts.get(attempt.id)).not.toHaveProperty('pausedMs');
  });

  it('an attempt that is another sitting’s on this desk is not written over', async () => {
    await opens(await one(paperFor()));
    const { attemptId } = await sits();
    const file = await answersOf();
    await takeIn(file);
    await desk.attempts.update(attemptId, { sittingId: 'sitting2' });
    expect(await takeIn(file)).toMatchObject([{ outcome: 'copied' }]);
  });

  it('with odd times say so: begun early, too long, a clock that is ahead', async () => {
    await deskWith({ opensAt: iso(3_600_000) });
    const { packet } = await one(paperFor());
    if (packet.kind !== 'paper') throw new Error(packet.kind);
    // A computer whose clock, or whose file, was helped along.
    const early = {
      ...packet.content,
      sitting: { ...packet.content.sitting, opensAt: at, timeLimitMs: null },
    };
    await opens({ student: null, packet: { kind: 'paper', content: early } });
    const { attemptId } = await sits();
    expect(await takeIn(await answersOf())).toMatchObject([{ outcome: 'new', odd: 'begunEarly' }]);
    await desk.sittings.update('sitting1', { opensAt: at });
    clock += 2 * 3_600_000;
    await hand.handIn(amara.joinCode, attemptId);
    const late = await answersOf();
    expect(await takeIn(late)).toMatchObject([{ odd: 'endedLate' }]);
    expect(await takeInAnswers('sitting1', [{ file: late, studentId: null }], at)).toMatchObject([
      { odd: 'clockAhead' },
    ]);
  });
});

describe('scripts that go back by hand', () => {
  it('hold what was let out, open with the join code of their student alone, and are read without a network', async () => {
    await opens(await one(paperFor()));
    const { attemptId } = await sits();
    await hand.handIn(amara.joinCode, attemptId);
    await takeIn(await answersOf());
    const place = { sittingId: 'sitting1', questionId: 'q4', attemptIds: [attemptId] };
    await markAnswers(place, { points: 2, comment: 'Nearly' }, 'Marked', iso(70_000));
    await handBack(planShowing('sitting1', { ...all, accepted: false }), ['student1'], iso(80_000));
    const [made, ...more] = await scriptPackets('sitting1', start + 90_000);
    expect(more).toEqual([]);
    if (!made) throw new Error('none');
    expect(JSON.stringify(made.packet)).not.toMatch(/SECRET-(NOTE|SCHEME|MODEL)/);
    const chance = (length: number) => new Uint8Array(length).fill(7);
    const sealedText = await packetSealer('joinCode', amara.joinCode, chance)(made.packet, 'Tides back');
    const read = await readPacket(new TextEncoder().encode(sealedText));
    if (read.outcome !== 'sealed') throw new Error(read.outcome);
    expect(await openedWith(read.seal, linh.joinCode)).toBeNull();
    // On another computer than the one it was sat on.
    for (const table of sitDesk.tables) await table.clear();
    const opened = await openedWith(read.seal, amara.joinCode);
    if (opened?.outcome !== 'read' || opened.packet.kind !== 'script') throw new Error('script');
    await takenIn(opened.packet, amara);
    expect(await hand.home(amara.joinCode)).toMatchObject([
      { may: 'closedToStarts', handedBack: true, inFile: 'nothing' },
    ]);
    expect(await hand.result(amara.joinCode, 'sitting1')).toMatchObject({
      total: { points: 2 },
      questions: expect.arrayContaining([
        expect.objectContaining({ points: 2, comments: expect.arrayContaining(['Nearly']) }),
      ]),
    });
    expect(await desk.openings.count()).toBe(0);
  });
});

describe('the carrier of a page, with files', () => {
  const nobody = async () => null;
  const elsewhere = {
    sittingId: 'sitting9',
    title: 'Over the server',
    opensAt: iso(-1000),
    state: 'notStarted',
  };
  const server = (part = {}) =>
    carrierWith({
      greet: async () => ({ ...amara, groups: ['Monday'] }),
      home: async () => [elsewhere as never],
      ...part,
    });

  it('shows what came by hand beside what the server has, and asks each about its own', async () => {
    await opens(await one(paperFor()));
    const carrier = chosenCarrier(async () => null, server(), hand);
    expect((await carrier.greet(amara.joinCode))?.groups).toEqual(['Monday']);
    expect((await carrier.home(amara.joinCode)).map(({ sittingId }) => sittingId)).toEqual([
      'sitting1',
      'sitting9',
    ]);
    expect(await carrier.start(amara.joinCode, 'sitting1', '', 'tab')).toMatchObject({ outcome: 'started' });
    await expect(carrier.start(amara.joinCode, 'sitting9', '', 'tab')).rejects.toThrow('away');
  });

  it('what came by hand is there although the server that knows the code has gone', async () => {
    await opens(await one(paperFor()));
    let there = true;
    const home = () => (there ? Promise.resolve([elsewhere as never]) : Promise.reject(new Error('away')));
    const carrier = chosenCarrier(async () => null, server({ home }), hand);
    expect(await carrier.home(amara.joinCode)).toHaveLength(2);
    there = false;
    expect(await carrier.home(amara.joinCode)).toMatchObject([{ sittingId: 'sitting1' }]);
  });

  it('goes on without the server, and a code that only this device knows is asked for once', async () => {
    await opens(await one(paperFor()));
    const away = chosenCarrier(async () => null, carrierWith({}), hand);
    expect(await away.home(amara.joinCode)).toMatchObject([{ sittingId: 'sitting1' }]);
    await expect(away.greet('ZZZZZZ')).rejects.toThrow('away');
    let asked = 0;
    const knowsNot = carrierWith({ greet: async () => ((asked += 1), null) });
    const carrier = chosenCarrier(nobody, knowsNot, hand);
    expect(await carrier.greet(amara.joinCode)).toMatchObject({ givenName: 'Amara' });
    for (let n = 0; n < 5; n++) expect(await carrier.home(amara.joinCode)).toHaveLength(1);
    expect(asked).toBe(1);
    // Nor by a page that is opened anew, for an hour.
    await chosenCarrier(nobody, knowsNot, hand).greet(amara.joinCode);
    expect(asked).toBe(1);
    clock += 3_700_000;
    await chosenCarrier(nobody, knowsNot, hand).greet(amara.joinCode);
    expect(asked).toBe(2);
  });

  it('a sitting that was begun elsewhere goes on there; one handed back elsewhere is read from there', async () => {
    await opens(await one(paperFor()));
    const begun = { ...elsewhere, sittingId: 'sitting1', state: 'working', may: 'resume' };
    const script = { sittingId: 'sitting1', title: 'T', handedBackAt: at, questions: [] };
    const carrier = chosenCarrier(
      async () => null,
      server({ home: async () => [begun as never], result: async () => script }),
      hand,
    );
    expect(await carrier.home(amara.joinCode)).toMatchObject([{ state: 'working' }]);
    await expect(carrier.start(amara.joinCode, 'sitting1', '', 'tab')).rejects.toThrow('away');
    const { attemptId } = await sits();
    await hand.handIn(amara.joinCode, attemptId);
    const row = { ...elsewhere, sittingId: 'sitting1', handedBack: true };
    const back = chosenCarrier(
      nobody,
      server({ home: async () => [row as never], result: async () => script }),
      hand,
    );
    expect(await back.home(amara.joinCode)).toMatchObject([{ inFile: 'toSave', handedBack: true }]);
    expect(await back.result(amara.joinCode, 'sitting1')).toEqual(script);
  });

  it('says what the server says where nothing is here by hand', async () => {
    const stopped = carrierWith({ greet: () => Promise.reject(new ServerFault('tooManyGuesses')) });
    await expect(chosenCarrier(nobody, stopped, hand).greet('ZZZZZZ')).rejects.toThrow('tooManyGuesses');
  });
});
