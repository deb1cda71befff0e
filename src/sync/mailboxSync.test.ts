import 'fake-indexeddb/auto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { at, attemptOf, planShowing, samples, sittingOf, studentOf } from '../../tests/unit/samples';
import { classroomServer } from '@/carriers/classroomServer';
import { chosenCarrier } from '@/carriers/chosen';
import { ServerFault } from '@/core/exchange/serverFault';
import { type Fetch } from '@/carriers/ask';
import { serverConnection } from '@/sync/serverConnection';
import { carrierWith } from '../../tests/unit/carrier';
import { assetId } from '@/core/basics/assetBytes';
import type { Answers, ExceptionRequest } from '@/core/model/sitting';
import { openExchangeFolder, type ExchangeFolder } from '@/server/exchangeFolder';
import { exchangeServer } from '@/server/exchangeServer';
import { emptyTables, replaceDesk } from '../store/backup';
import { mailboxSources, rowsForMailbox } from './mailboxRows';
import { forgetPosted, pairing, pairDesk, pull, push, unpairDesk } from './mailboxSync';
import { ChangedRows, onRowsChanged } from '../store/changes';
import { carryOn, collectFrom, deleteAttempts, giveAllowance, setAside } from '../store/exceptions';
import { forgetStudent } from '../store/forget';
import { markAnswers } from '../store/marks';
import { changeStudent } from '../store/people';
import { handBack, withdrawResults } from '../store/releases';
import { answerRequest } from '../store/requests';
import { correctionOf } from '@/core/model/mark';
import { repairQuestion } from '../store/repairs';
import { undo } from '../store/command';
import { setOnDevices } from '../store/sittings';
import { showing } from '@/core/model/release';
import { desk } from '../store/tables';

/** The desk in this process against a real server in it: only the wire between them is short. */

const secret = 'ABCDEFGH23456789';
const start = Date.parse(at);
const iso = (ms: number) => new Date(start + ms).toISOString();
const { joinCode } = studentOf();
/** Everything but what is accepted and comments. */
const shows = {
  total: true,
  points: true,
  answers: true,
  rightOrWrong: true,
  accepted: false,
  comments: false,
};
let folder: ExchangeFolder;
let now = start;
let broken = false;
let endpoint: ReturnType<typeof exchangeServer>;

async function freshServer() {
  folder = await openExchangeFolder(mkdtempSync(join(tmpdir(), 'gribbet-sync-')));
  endpoint = exchangeServer(folder, {
    folder: '',
    secret,
    fresh: false,
    origin: null,
    port: 1,
    log: 'plain',
  });
}

/** A device of its own: it keeps its cookies. */
function device(from = '10.0.0.1'): Fetch {
  const cookies = new Map<string, string>();
  return async (address, init) => {
    if (broken) throw new TypeError('Failed to fetch');
    const cookie = [...cookies]
      .flatMap(([path, value]) => (address.startsWith(path) ? [value] : []))
      .join('; ');
    const headers = {
      ...(init.headers as Record<string, string>),
      host: 'mailbox',
      origin: 'http://mailbox',
      cookie,
    };
    const { method = 'GET', body = null } = init;
    const request = new Request(`http://mailbox${address}`, { method, headers, body: body as string | null });
    const response = await endpoint.answer(request, from, now);
    const set = response.headers.get('set-cookie') ?? '';
    if (set) cookies.set(/Path=([^;]*)/.exec(set)?.[1] ?? '', set.split(';')[0] ?? '');
    return response;
  };
}

let server: ReturnType<typeof serverConnection>;
let student: ReturnType<typeof classroomServer>;
const alike = async () => {
  await pull(server);
  await push(server, now);
  await pull(server);
};
const answer = (text: string): Answers => ({ q3: { response: { text }, at } });

beforeEach(async () => {
  await freshServer();
  broken = false;
  now = start;
  await replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: [studentOf(), studentOf({ id: 'student2', joinCode: 'B2B2B2', familyName: 'Silva' })],
    papers: [
      {
        id: 'paper1',
        title: 'Tides',
        instructions: '',
        questions: Object.values(samples),
        createdAt: at,
        changedAt: at,
      },
    ],
    sittings: [sittingOf({ paperVersion: null, guests: true, accessCode: 'ebb' })],
  });
  server = serverConnection(device('10.0.0.9'));
  student = classroomServer(device());
  await pairDesk(server, 'abcdefgh-23456789');
  await setOnDevices('sitting1', true, at);
  await alike();
});
afterEach(() => folder.close());

async function begin() {
  const reply = await student.start(joinCode, 'sitting1', 'ebb', 'tab');
  if (reply.outcome !== 'started') throw new Error(reply.why);
  return reply.packet.attemptId;
}
let sequence = 0;
const send = (attemptId: string, answers: Answers) =>
  student.handOver(joinCode, attemptId, { answers, comeBack: null, tabId: 'tab', sequence: ++sequence });

describe('desk and mailbox', () => {
  it('what a student does comes to the desk; what the teacher does reaches the student', async () => {
    const attemptId = await begin();
    now += 60_000;
    await send(attemptId, answer('west'));
    await alike();
    expect(await desk.attempts.get(attemptId)).toMatchObject({
      answers: { q3: { response: { text: 'west' } } },
    });
    await giveAllowance('sitting1', 'student1', { kind: 'minutes', minutes: 10 }, 'Ill', iso(70_000));
    await alike();
    expect((await send(attemptId, {}))?.deadline).toBe(start + 70 * 60_000);
    await collectFrom('sitting1', ['student1'], 'The room is needed', iso(80_000));
    now += 30_000;
    // Typed before the teacher's act arrived: both hold.
    await send(attemptId, answer('west by north'));
    await alike();
    expect((await send(attemptId, answer('too late')))?.state).toBe('collected');
    await alike();
    expect(await desk.attempts.get(attemptId)).toMatchObject({
      answers: { q3: { response: { text: 'west by north' } } },
      collectedAt: iso(80_000),
    });
    await carryOn('sitting1', ['student1'], 'Collected by mistake', iso(100_000));
    await alike();
    expect((await send(attemptId, {}))?.state).toBe('working');
    await undo(iso(110_000));
    await alike();
    expect((await send(attemptId, {}))?.state).toBe('collected');
  });

  it('alike once, nothing is sent any more', async () => {
    await send(await begin(), answer('west'));
    await alike();
    const rev = await folder.rev();
    await alike();
    await alike();
    expect(await folder.rev()).toBe(rev);
  });

  it('what changed is found by its keys: looking at everything finds nothing that is left', async () => {
    const changed = new ChangedRows();
    const stop = onRowsChanged((table, keys) => mailboxSources.includes(table) && changed.add(table, keys));
    const put = vi.spyOn(server, 'put');
    /** @returns the rows that were sent by keys */
    const byKeys = async () => {
      put.mockClear();
      await push(server, now, changed.take());
      const sent = put.mock.calls.flatMap(([changes]) => changes);
      put.mockClear();
      await push(server, now);
      expect(put.mock.calls.flatMap(([changes]) => changes)).toEqual([]);
      return sent.map((change) => ('drop' in change ? `-${change.drop}` : change.table));
    };
    const id = await begin();
    await send(id, answer('west'));
    await student.handIn(joinCode, id);
    await pull(server);
    await byKeys();
    const marked = { sittingId: 'sitting1', questionId: 'q4', attemptIds: [id] };
    await giveAllowance('sitting1', 'student1', { kind: 'minutes', minutes: 10 }, 'Ill', iso(1_000));
    expect(await byKeys()).toEqual(['allowances']);
    await handBack(
      planShowing('sitting1', { ...shows, accepted: true, comments: true }),
      ['student1'],
      iso(2_000),
    );
    expect(await byKeys()).toEqual(['releases']);
    await markAnswers(marked, { points: 2 }, 'two', iso(3_000));
    expect(await byKeys()).toEqual(['releases']);
    await changeStudent({ ...studentOf(), familyName: 'Okafor-Lind' }, iso(4_000));
    expect((await byKeys()).sort()).toEqual(['students']);
    await changeStudent({ ...studentOf(), number: '77' }, iso(5_000));
    expect((await byKeys()).filter((table) => table !== 'students')).toEqual([]);
    await withdrawResults('sitting1', ['student1'], iso(6_000));
    expect(await byKeys()).toEqual(['-releases']);
    await setAside('sitting1', ['student1'], 'Copied', iso(7_000));
    expect(await byKeys()).toEqual(['attempts']);
    await undo(iso(8_000));
    expect(await byKeys()).toEqual(['attempts']);
    await deleteAttempts([id], iso(9_000));
    expect(await byKeys()).toEqual(['-attempts']);
    await desk.allowances.clear();
    expect(await byKeys()).toEqual(['-allowances']);
    // Another title is about the sitting as a whole: everything is looked at.
    await desk.sittings.update('sitting1', { title: 'Tides II' });
    expect(await byKeys()).toEqual(['sittings']);
    stop();
  });

  it('through a broken connection nothing is lost on either side', async () => {
    const attemptId = await begin();
    await alike();
    await send(attemptId, answer('before'));
    broken = true;
    await expect(alike()).rejects.toThrow(ServerFault);
    await expect(send(attemptId, answer('x'))).rejects.toThrow('unreachable');
    await collectFrom('sitting1', ['student1'], 'End', iso(5_000));
    broken = false;
    await alike();
    expect(await desk.attempts.get(attemptId)).toMatchObject({
      answers: { q3: { response: { text: 'before' } } },
      collectedAt: iso(5_000),
    });
    expect((await send(attemptId, {}))?.state).toBe('collected');
  });

  it('another server in its place is given everything again, and students go on with a new token', async () => {
    const attemptId = await begin();
    await send(attemptId, answer('west'));
    await alike();
    const other = folder;
    await freshServer();
    await pairDesk(server, secret);
    await alike();
    expect((await send(attemptId, answer('north')))?.answered).toEqual(['q3']);
    await alike();
    expect(await desk.attempts.count()).toBe(1);
    expect(await desk.attempts.get(attemptId)).toMatchObject({
      answers: { q3: { response: { text: 'north' } } },
    });
    await other.close();
  });

  it('a student’s pages on paper go there with the result, and not before', async () => {
    const bytes = new TextEncoder().encode('the page');
    const page = {
      id: await assetId(bytes),
      name: 'scan 1.jpg',
      mediaType: 'image/jpeg',
      size: bytes.length,
    };
    await desk.assets.put({ ...page, bytes });
    await desk.prints.put({
      ...{ id: 'print1', sittingId: 'sitting1', paperVersion: 1, at, name: '', seed: 's' },
      ...{ pages: [[]], copies: ['student1'] },
    });
    await desk.attempts.put(
      attemptOf({
        handedInAt: at,
        source: 'paper',
        copy: { printId: 'print1', number: 1 },
        files: [page],
        answers: {
          q4: {
            response: { text: '' },
            at,
            pictures: [{ fileId: page.id, at: { x: 18, y: 40, w: 174, h: 30 } }],
          },
        },
      }),
    );
    await alike();
    expect(await student.file(joinCode, 'sitting1', page.id)).toBeNull();
    await handBack(planShowing('sitting1', shows), ['student1'], iso(2000));
    now += 60_000;
    await alike();
    expect((await student.file(joinCode, 'sitting1', page.id))?.bytes).toEqual(bytes);
    expect(await student.file('B2B2B2', 'sitting1', page.id).catch(() => null)).toBeNull();
    const script = await student.result(joinCode, 'sitting1');
    expect(script?.questions.some(({ pictures }) => pictures?.[0]?.fileId === page.id)).toBe(true);
  });

  it('guests, requests and files come to the desk; an answer to a request goes back', async () => {
    const guest = await student.comeAsGuest('Nia Mwangi', 'ebb');
    const attemptId = await begin();
    await student.ask(joinCode, 'sitting1', { asks: 'moreTime', words: 'Slow' });
    const bytes = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1);
    const file = { id: await assetId(bytes), name: 'a.png', mediaType: 'image/png', size: 9, bytes };
    expect(await student.handOverFile(joinCode, attemptId, file)).toBe('kept');
    expect((await student.file(joinCode, 'sitting1', file.id))?.bytes).toEqual(bytes);
    await alike();
    expect(
      await desk.students
        .where('joinCode')
        .equals(guest?.joinCode ?? '')
        .count(),
    ).toBe(1);
    const [request] = await desk.requests.toArray();
    expect((await desk.assets.get(file.id))?.bytes).toEqual(bytes);
    await desk.requests.put({
      ...(request as ExceptionRequest),
      answer: { granted: false, words: 'Not today', at: iso(1000) },
    });
    await alike();
    expect((await student.home(joinCode))[0]?.requests).toMatchObject([{ answer: { words: 'Not today' } }]);
  });

  it('what comes while a sitting is taken off is taken in first; a desk that is not known any more can part', async () => {
    const attemptId = await begin();
    await alike();
    await send(attemptId, answer('the last word'));
    await setOnDevices('sitting1', false, iso(2000));
    // The desk has not asked for the news yet: the sitting stays until it has.
    await expect(push(server, now)).rejects.toThrow('notYet');
    expect((await send(attemptId, {}))?.state).toBe('working');
    await alike();
    expect(await desk.attempts.get(attemptId)).toMatchObject({
      answers: { q3: { response: { text: 'the last word' } } },
    });
    expect(await send(attemptId, answer('x'))).toBeNull();
    await server.unpair();
    await unpairDesk(server);
    expect(await pairing()).toBeUndefined();
  });

  it('paired again with the same server, what the teacher did meanwhile holds', async () => {
    const attemptId = await begin();
    await alike();
    await unpairDesk(server);
    await send(attemptId, answer('west'));
    await collectFrom('sitting1', ['student1'], 'End', iso(5_000));
    await pairDesk(server, secret);
    await alike();
    expect(await desk.attempts.get(attemptId)).toMatchObject({
      answers: { q3: { response: { text: 'west' } } },
      collectedAt: iso(5_000),
    });
    expect((await send(attemptId, {}))?.state).toBe('collected');
  });

  it('a code that is another student’s by now stays', async () => {
    await desk.students.delete('student1');
    await desk.students.update('student2', { joinCode });
    await alike();
    expect(await student.greet(joinCode)).toMatchObject({ familyName: 'Silva' });
  });

  it('handed back: the script waits there, each look is noted on the desk, taken back it is gone', async () => {
    const attemptId = await begin();
    await send(attemptId, answer('west'));
    await student.handIn(joinCode, attemptId);
    await alike();
    const release = {
      sittingId: 'sitting1',
      studentId: 'student1',
      shows,
      releasedAt: iso(9000),
    };
    await desk.releases.add(release);
    expect(await student.result(joinCode, 'sitting1')).toBeNull();
    await alike();
    now += 5_000;
    expect(await student.result(joinCode, 'sitting1')).toMatchObject({ total: { points: 0 } });
    await alike();
    expect((await desk.openings.toArray())[0]?.at).toEqual([iso(5_000)]);
    await alike();
    expect(await student.result(joinCode, 'sitting1')).not.toBeNull();
    await desk.releases.clear();
    await alike();
    expect(await student.result(joinCode, 'sitting1')).toBeNull();
    // Nothing of script, access code or reasons lies there to be read.
    const lies = JSON.stringify(await folder.list(''));
    expect(lies).not.toMatch(/"accessCode":"ebb"|handedBackAt/);
  });

  it('a question that is repaired changes the results on the server, and no key gets there', async () => {
    const attemptId = await begin();
    await send(attemptId, answer('north'));
    await student.handIn(joinCode, attemptId);
    await handBack(planShowing('sitting1', shows), ['student1'], iso(2000));
    await alike();
    now = Date.parse(iso(3000));
    const total = async () => (await student.result(joinCode, 'sitting1'))?.total;
    expect(await total()).toMatchObject({ points: 0 });
    const sitting = await desk.sittings.get('sitting1');
    const sat = await desk.paperVersions.get([sitting?.paperId ?? '', sitting?.paperVersion ?? 0]);
    const before = sat?.questions.find(({ id }) => id === 'q3');
    if (!before) throw new Error('no question');
    await repairQuestion(
      {
        ...{ sittingId: 'sitting1', before, changed: null, itemId: 'q3', rule: { kind: 'everyone' } },
        ...{ nobodyLoses: false, reason: 'Not taught', also: [], bank: false },
      },
      'Repaired',
      iso(4000),
    );
    await alike();
    now = Date.parse(iso(5000));
    expect(await total()).toMatchObject({ points: before.points });
    const script = await student.result(joinCode, 'sitting1');
    expect(script?.questions.find(({ question }) => question.id === 'q3')?.repair).toMatchObject({
      reason: 'Not taught',
      how: 'everyone',
      before: 0,
    });
    expect(JSON.stringify(await folder.list(''))).not.toMatch(/Not taught|"accepted":"|nobodyLoses/);
  });

  it('a missed question is answered again and a mark asked about over the server: kept, scored, answered, once', async () => {
    const attemptId = await begin();
    await send(attemptId, { ...answer('north'), q4: { response: { text: 'iron' }, at } });
    await student.handIn(joinCode, attemptId);
    await alike();
    const mark = (questionId: string, points: number) =>
      markAnswers({ sittingId: 'sitting1', questionId, attemptIds: [attemptId] }, { points }, '', iso(1_000));
    await mark('q4', 1);
    const until = iso(3_600_000);
    const plan = planShowing('sitting1', showing('total', 'points', 'answers'));
    await handBack(
      { ...plan, invites: { asks: true, correct: { share: 0.5, until } } },
      ['student1'],
      iso(2_000),
    );
    await alike();
    now = start + 10_000;
    const row = async (id: string) =>
      (await student.result(joinCode, 'sitting1'))?.questions.find(({ question }) => question.id === id);
    expect(await row('q3')).toMatchObject({ points: 0, mayCorrect: { share: 0.5, until }, mayAsk: true });
    // A file can't be answered again, nor what nobody has marked.
    expect((await row('q12'))?.mayCorrect).toBeUndefined();
    const again = (id: string, text: string) => student.correct(joinCode, 'sitting1', id, { text });
    expect(await again('q3', '  ')).toBe(false);
    expect(await again('q3', 'secret-118')).toBe(true);
    expect(await again('q3', 'SECRET-half')).toBe(false);
    expect(await again('q4', 'Iron nearby turns the needle.')).toBe(true);
    expect(await row('q3')).toMatchObject({ correction: { response: { text: 'secret-118' }, points: null } });
    await alike();
    const max = samples.shortText.points;
    expect(await row('q3')).toMatchObject({
      ...{ points: max / 2, response: { text: 'north' } },
      correction: { points: max, gained: max / 2 },
    });
    await mark(correctionOf('q4'), 2);
    await alike();
    expect(await row('q4')).toMatchObject({ points: 1.5, correction: { points: 2, gained: 0.5 } });
    // One question about a mark waits at a time, and only the one whose mark it is gets the answer.
    const ask = (questionId: string) =>
      student.ask(joinCode, 'sitting1', { asks: 'mark', words: 'Is iron not enough?', questionId });
    expect(await ask('nowhere')).toBe(false);
    expect(await ask('q4')).toBe(true);
    expect(await ask('q4')).toBe(false);
    expect((await student.home(joinCode))[0]?.requests).toEqual([]);
    await alike();
    const [request] = await desk.requests.toArray();
    expect(request).toMatchObject({ asks: 'mark', questionId: 'q4', words: 'Is iron not enough?' });
    await answerRequest(request?.id ?? '', true, 'It asks why.', iso(20_000));
    await alike();
    expect((await row('q4'))?.asked).toMatchObject([{ answer: { words: 'It asks why.' } }]);
    now = start + 3_600_000;
    expect((await row('q2'))?.mayCorrect).toBeUndefined();
  });

  it('stages are let out by the server’s clock while the desk is shut, and nothing before its time', async () => {
    const attemptId = await begin();
    await send(attemptId, answer('north'));
    await student.handIn(joinCode, attemptId);
    await alike();
    const [hour, day] = [3_600_000, 24 * 3_600_000];
    await desk.releasePlans.put({
      sittingId: 'sitting1',
      at: iso(0),
      stages: [
        { id: 'a', starts: 'at', at: iso(hour), until: null, lastsMs: null, shows: showing('total') },
        {
          id: 'b',
          starts: 'at',
          at: iso(day),
          until: null,
          lastsMs: day,
          shows: showing('answers', 'accepted'),
        },
      ],
    });
    await desk.releases.put({ sittingId: 'sitting1', studentId: 'student1', releasedAt: iso(0) });
    await alike();
    const seen = async (after: number) => {
      now = Date.parse(iso(after));
      const script = await student.result(joinCode, 'sitting1');
      const home = await student.home(joinCode);
      expect(home[0]?.handedBack).toBe(script !== null);
      return script && { ...script, questions: script.questions.length };
    };
    expect(await seen(hour - 1)).toBeNull();
    const early = await seen(hour);
    expect(early).toMatchObject({ total: { points: 0 }, questions: 0, handedBackAt: iso(hour) });
    expect(await seen(day)).toMatchObject({ total: { points: 0 }, questions: 12, handedBackAt: iso(day) });
    expect(await seen(2 * day)).toEqual(early);
    // Who is held back sees nothing of it, once the desk has said so.
    const heldBack = { at: iso(0), reason: 'Has still to talk to me' };
    await desk.releases.put({ sittingId: 'sitting1', studentId: 'student1', releasedAt: iso(0), heldBack });
    await alike();
    expect(await seen(day)).toBeNull();
    expect(JSON.stringify(await folder.list(''))).not.toMatch(/talk to me|"verdict"|"accepted":"/);
  });

  it('deleted for good on the desk it is gone on the server; off the server, the desk keeps all', async () => {
    const attemptId = await begin();
    await alike();
    await deleteAttempts([attemptId], iso(1000));
    await alike();
    expect(await desk.attempts.count()).toBe(0);
    expect(await send(attemptId, answer('x'))).toBeNull();
    const second = await begin();
    await send(second, answer('south'));
    await pull(server);
    await setOnDevices('sitting1', false, iso(2000));
    await alike();
    expect((await folder.list('')).map(({ key }) => key.split('/')[0])).toEqual(['desks']);
    expect(await desk.attempts.get(second)).toMatchObject({
      answers: { q3: { response: { text: 'south' } } },
    });
    expect(await student.greet(joinCode)).toBeNull();
  });
});

describe('a student who is forgotten', () => {
  it('is gone on the server too, with what was answered there', async () => {
    const attemptId = await begin();
    await send(attemptId, answer('west, as my sister Ines says'));
    await alike();
    const rows = async () => JSON.stringify(await folder.list(''));
    expect(await rows()).toContain(attemptId);
    const { familyName } = studentOf();
    await forgetStudent('student1', iso(1000));
    await alike();
    for (const sought of [attemptId, 'student1', joinCode, familyName, 'Ines'])
      expect((await rows()).includes(sought), sought).toBe(false);
    expect(await send(attemptId, answer('x'))).toBeNull();
    expect(await rows()).toContain('Silva');
    expect(await desk.carried.count()).toBe(0);
  });
});

describe('several desks at one server', () => {
  it('what another took off is put there again, with what students did', async () => {
    const attemptId = await begin();
    await send(attemptId, answer('west'));
    await alike();
    const other = serverConnection(device('10.0.0.9'));
    await other.pair(secret);
    const { rev, sittings } = await other.state();
    expect(sittings).toMatchObject([{ id: 'sitting1' }]);
    await expect(other.put([{ drop: 'sittings', key: 'sitting1', rev: 0 }])).rejects.toThrow('notYet');
    await other.put([{ drop: 'sittings', key: 'sitting1', rev }]);
    expect((await other.state()).sittings).toEqual([]);
    expect((await folder.list('papers/')).length).toBe(0);
    await alike();
    expect(await student.home(joinCode)).toEqual([]);
    await forgetPosted('sitting1');
    await alike();
    expect(await student.home(joinCode)).toMatchObject([{ sittingId: 'sitting1', may: 'resume' }]);
    expect(await send(attemptId, {})).toMatchObject({ state: 'working', answered: ['q3'] });
  });
});

describe('the carrier of a student’s page', () => {
  it('is the desk in this browser where it knows the code, else the server', async () => {
    const near = { joinCode: 'NEARBY', familyName: 'Near', givenName: 'A', groups: [] };
    const here = carrierWith({
      greet: async (code) => (code === 'NEARBY' ? near : null),
      home: async () => [],
    });
    const carrier = chosenCarrier(async () => here, student);
    expect(await carrier.greet('NEARBY')).toEqual(near);
    expect(await carrier.home('NEARBY')).toEqual([]);
    expect(await carrier.greet(joinCode)).toMatchObject({ familyName: 'Okafor' });
    expect(await carrier.home(joinCode)).toMatchObject([{ sittingId: 'sitting1', may: 'start' }]);
    expect(await carrier.greet('ZZZZZZ')).toBeNull();
  });

  it('on a device without a desk it asks the server at once', async () => {
    const carrier = chosenCarrier(async () => null, student);
    expect(await carrier.home('B2B2B2')).toMatchObject([{ sittingId: 'sitting1' }]);
  });

  it('the access code is on the server before its sitting is: at no moment does one stand there without', async () => {
    const sittings = await desk.sittings.toArray();
    const { rows } = await rowsForMailbox(sittings, () => Promise.reject(new Error('not sealed here')));
    const place = (table: string) => rows.findIndex(({ key }) => key.startsWith(`${table}/`));
    expect(place('access')).toBeGreaterThanOrEqual(0);
    expect(place('access')).toBeLessThan(place('sittings'));
  });
});
