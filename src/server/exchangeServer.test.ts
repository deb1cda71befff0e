import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { codeOf, paper, sittingRows } from '../../tests/unit/classroom';
import { at, samples } from '../../tests/unit/samples';
import { testStore } from '../../tests/unit/testStore';
import { mostChanges, type MailboxChange } from '@/core/exchange/mailbox';
import { assetId, packedAsset } from '@/core/basics/assetBytes';
import { sealed, sealerWith } from '@/core/formats/packet/sealed';
import type { Shows } from '@/core/model/release';
import { newMetrics } from './metrics';
import type { Endpoint } from './endpoint';
import { exchangeServer } from './exchangeServer';
import { StoreFull, type ExchangeStore } from './exchangeStore';
import { Guesses, networkOf, newGuesses } from './guesses';
import { everywhere, pagePolicy } from './headers';
import type { Log } from './serverLog';
import { addressesOf, settingsFrom, type ServerSettings } from './settings';

const start = Date.parse(at);
const secret = 'ABCDEFGH23456789';
const host = 'gribbet.test';
const settings: ServerSettings = { folder: '', secret, fresh: false, origin: null, port: 4321, log: 'plain' };
const stores: ExchangeStore[] = [];

afterEach(async () => {
  for (const store of stores.splice(0)) await store.close();
});

/** A server with a browser's manners: it remembers cookies by path, and says where it comes from. */
async function classroom(own: Partial<ServerSettings> = {}, most = 1000) {
  const store = await testStore();
  stores.push(store);
  const lines: string[] = [];
  /** As it is read: what was answered is for programs that gather it. */
  const gathered: object[] = [];
  const log: Log = (line, more) => (more ? gathered.push(more) : lines.push(line));
  const metrics = newMetrics();
  const guesses = newGuesses(store, metrics, {
    ...{ codes: most, access: most, guests: most },
    ...{ near: 3, secret: 3 },
  });
  const server = exchangeServer(store, { ...settings, ...own }, log, metrics, guesses);
  const device = (from = '10.0.0.1') => {
    const cookies = new Map<string, string>();
    const open = async (
      method: string,
      path: string,
      body?: unknown,
      headers: Record<string, string> = {},
      now = start,
    ) => {
      const kept = [...cookies].filter(([where]) => `/api/exchange${path}`.startsWith(where));
      const request = new Request(`http://${host}/api/exchange${path}`, {
        method,
        headers: {
          host,
          origin: `http://${host}`,
          ...(kept.length > 0 && { cookie: kept.map(([, value]) => value).join('; ') }),
          ...headers,
        },
        ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      });
      const response = await server.answer(request, from, now);
      const set = response.headers.get('set-cookie');
      if (set) cookies.set(/Path=([^;]*)/.exec(set)?.[1] ?? '', set.split(';')[0] ?? '');
      return response;
    };
    const ask = async (...asked: Parameters<typeof open>) => {
      const response = await open(...asked);
      const text = response.headers.get('content-type')?.startsWith('application/json')
        ? await response.text()
        : '';
      return {
        status: response.status,
        body: text ? (JSON.parse(text) as unknown) : null,
        text,
        set: response.headers.get('set-cookie'),
        retryAfterS: Number(response.headers.get('retry-after')),
      };
    };
    return { ask, open, cookies };
  };
  return { server, store, lines, gathered, device, guesses };
}

type Classroom = Awaited<ReturnType<typeof classroom>>;

/** A paired desk, and a sitting of two students on the server. */
async function opened(room: Classroom, rows: MailboxChange[] = sittingRows(2)) {
  const desk = room.device('10.0.0.9');
  expect((await desk.ask('POST', '/pair', { secret })).status).toBe(200);
  for (let from = 0; from < rows.length; from += mostChanges) {
    const changes = rows.slice(from, from + mostChanges);
    expect((await desk.ask('POST', '/desk/changes', { changes })).body).toEqual({ mailbox: room.store.id });
  }
  return desk;
}

async function begun(room: Classroom, number = 0, accessCode = '') {
  const student = room.device();
  const reply = await student.ask('POST', '/start', {
    joinCode: codeOf(number),
    sittingId: 'sitting1',
    accessCode,
    tabId: 'tab',
  });
  const { packet } = reply.body as { packet: { attemptId: string } };
  return { student, attemptId: packet.attemptId, reply };
}

const answer = (text: string) => ({
  answers: { q3: { response: { text }, at } },
  comeBack: null,
  tabId: 'tab',
});

describe('who may do what', () => {
  it('every endpoint with every role: what is the desk’s is the desk’s, an attempt is its token’s', async () => {
    const room = await classroom();
    const desk = await opened(room);
    const { student, attemptId } = await begun(room, 0);
    const { student: other } = await begun(room, 1);
    const stranger = room.device('10.0.0.3');
    const bodyFor = (endpoint: Endpoint) =>
      endpoint.method === 'GET' || endpoint.path === '/pair' ? undefined : {};
    for (const endpoint of room.server.endpoints) {
      const path = endpoint.path
        .replace(':attemptId', attemptId)
        .replace(':file', 'file1')
        .replace(':part', 'x'.repeat(43));
      if (endpoint.path === '/desk/stream') continue;
      const asks = async (device: typeof desk) =>
        (await device.ask(endpoint.method, path, bodyFor(endpoint))).status;
      const name = `${endpoint.method} ${endpoint.path}`;
      if (endpoint.role === 'anyone' || endpoint.role === 'marker')
        expect(await asks(stranger), name).not.toBe(401);
      else {
        expect(await asks(stranger), name).toBe(401);
        expect(await asks(other), name).toBe(401);
        if (endpoint.role === 'desk') expect(await asks(student), name).toBe(401);
        // The teacher's token is for the desk's endpoints alone.
        if (endpoint.role === 'student') expect(await asks(desk), name).toBe(401);
        if (endpoint.role === 'student') expect(await asks(student), name).not.toBe(401);
        if (endpoint.role === 'desk' && endpoint.method === 'GET')
          expect(await asks(desk), name).not.toBe(401);
      }
    }
    expect((await stranger.ask('GET', '/desk/stream')).status).toBe(401);
    expect((await student.ask('GET', '/desk/stream')).status).toBe(401);
  });

  it('nothing a student is answered holds a key, scheme, note or another student, practice and results too', async () => {
    const room = await classroom();
    const shows: Shows = {
      total: true,
      points: true,
      answers: true,
      rightOrWrong: true,
      accepted: false,
      comments: false,
      topics: true,
      figures: true,
      place: true,
    };
    const whole = { ...paper, questions: Object.values(samples) };
    const seal = await sealed(
      JSON.stringify(whole),
      secret,
      (n) => crypto.getRandomValues(new Uint8Array(n)),
      10,
    );
    const rows = sittingRows(2, {
      after: shows,
      guests: true,
      accessCode: 'ebb',
      practice: { tries: 2, lossPerTry: 0.25, hints: true, showAnswer: false },
    });
    await opened(room, [
      ...rows.filter((row) => !('table' in row && row.table === 'papers')),
      { table: 'sealed', row: { paperId: 'paper1', version: 1, seal } },
    ]);
    const student = room.device();
    const joinCode = codeOf(0);
    const sittingId = 'sitting1';
    const { attemptId } = await begun(room, 0, 'ebb');
    const bytes = new TextEncoder().encode('my working');
    const file = {
      id: await assetId(bytes),
      name: 'working.txt',
      mediaType: 'text/plain',
      size: bytes.length,
    };
    /** What is asked of every endpoint that is not the desk's alone, in the order in which students come by. */
    const requests: Record<string, unknown> = {
      'GET /': undefined,
      'GET /health': undefined,
      'GET /ready': undefined,
      'GET /metrics': undefined,
      'POST /pair': { secret: 'not this one' },
      'POST /greet': { joinCode },
      'POST /guest': { name: 'Nia', accessCode: 'ebb' },
      'POST /home': { joinCode },
      'POST /ask': { joinCode, sittingId, request: { asks: 'other', words: 'x' } },
      'POST /attempts/:attemptId/session': { joinCode },
      'POST /start': { joinCode, sittingId, accessCode: 'ebb', tabId: 'tab' },
      'POST /attempts/:attemptId/files': packedAsset({ ...file, bytes }),
      'POST /attempts/:attemptId/answers': answer('west'),
      'POST /attempts/:attemptId/practice': {
        questionId: 'q1',
        doing: { act: 'try', response: { picked: ['a'] } },
      },
      'POST /attempts/:attemptId/present': { tabId: 'tab' },
      'POST /attempts/:attemptId/hand-in': {},
      'POST /result': { joinCode, sittingId },
      'POST /correct': { joinCode, sittingId, questionId: 'q1', response: { picked: ['a'] } },
      'POST /file': { joinCode, sittingId, fileId: file.id },
    };
    const ours = room.server.endpoints.filter(({ role }) => role === 'anyone' || role === 'student');
    expect(Object.keys(requests).sort()).toEqual(ours.map(({ method, path }) => `${method} ${path}`).sort());
    const replies = new Map<string, string>();
    for (const [name, body] of Object.entries(requests)) {
      const [method = '', path = ''] = name.replace(':attemptId', attemptId).split(' ');
      const reply = await student.ask(method, path, body);
      expect(reply.status, name).toBe({ '/pair': 401, '/metrics': 404 }[path] ?? 200);
      replies.set(name, reply.text);
    }
    const said = [...replies.values()].join('\n');
    // The practice lets the comment of the wrong option out: that is what the sitting says.
    const let_out = said.replace(/"comments":\[[^\]]*\]/g, '');
    expect(let_out).not.toMatch(/SECRET|"key"|"scheme"|"modelAnswer"|"note"|"accessCode"/);
    expect(let_out).not.toMatch(/Family1|student1/);
    expect(replies.get('POST /result')).toContain('"total"');
    expect(replies.get('POST /attempts/:attemptId/practice')).toContain('"view"');
    expect(replies.get('POST /guest')).toContain('Nia');
  });

  it('the folder holds no key open, no secret, no token and no code as a name', async () => {
    const room = await classroom();
    const desk = await opened(room);
    const { student, attemptId } = await begun(room);
    await student.ask('POST', `/attempts/${attemptId}/answers`, answer('west'));
    const kept = JSON.stringify(await room.store.list(''));
    expect(kept).not.toContain('SECRET');
    expect(kept).not.toContain(secret);
    for (const cookie of [...desk.cookies.values(), ...student.cookies.values()])
      expect(kept).not.toContain(cookie.split('=')[1]);
    expect(room.lines.join('\n')).toBe('a desk was paired');
    // In what programs gather, ways are named as the list has them.
    const gathered = JSON.stringify(room.gathered);
    expect(gathered).toContain('"path":"/api/exchange/attempts/:attemptId/answers","status":200');
    for (const told of [attemptId, 'student0', codeOf(0), 'west', 'gribbet-desk'])
      expect(gathered).not.toContain(told);
  });

  it('access code and scripts lie there sealed, and are opened in memory only', async () => {
    const room = await classroom();
    const seal = sealerWith(secret, (length) => new Uint8Array(length).fill(7), 1000);
    const shows = {
      total: true,
      points: true,
      answers: true,
      rightOrWrong: true,
      accepted: true,
      comments: true,
    };
    const packet = { sittingId: 'sitting1', title: 'ACCEPTED', handedBackAt: at, questions: [] };
    const release = { sittingId: 'sitting1', studentId: 'student0', shows, releasedAt: at, openedAt: [] };
    await opened(room, [
      ...sittingRows(2),
      { table: 'access', row: { sittingId: 'sitting1', seal: await seal('spring tide') } },
      { table: 'releases', row: { ...release, seal: await seal(JSON.stringify(packet)) } },
    ]);
    const student = room.device();
    const go = (accessCode: string) =>
      student.ask('POST', '/start', { joinCode: codeOf(1), sittingId: 'sitting1', accessCode, tabId: 't' });
    expect((await go('')).body).toMatchObject({ why: 'wrongCode' });
    expect((await go('Spring Tide')).body).toMatchObject({ outcome: 'started' });
    const result = await student.ask('POST', '/result', { joinCode: codeOf(0), sittingId: 'sitting1' });
    expect(result.body).toEqual(packet);
    const kept = JSON.stringify(await room.store.list(''));
    expect(kept).not.toContain('ACCEPTED');
    expect(kept).not.toContain('spring tide');
    // That it was looked at is noted there all the same.
    expect(kept).toContain(`"openedAt":["${at}"]`);
  });

  it('a device without its token gets a new one with its code, for its own attempt alone', async () => {
    const room = await classroom();
    await opened(room);
    const { attemptId } = await begun(room, 0);
    const spare = room.device();
    const path = `/attempts/${attemptId}`;
    expect((await spare.ask('POST', `${path}/answers`, answer('east'))).body).toEqual({ error: 'noSession' });
    expect((await spare.ask('POST', `${path}/session`, { joinCode: codeOf(1) })).status).toBe(404);
    const set = (await spare.ask('POST', `${path}/session`, { joinCode: codeOf(0) })).set ?? '';
    expect(set).toMatch(/HttpOnly; SameSite=Strict$/);
    expect(set).toContain(`Path=/api/exchange/attempts/${attemptId};`);
    expect((await spare.ask('POST', `${path}/answers`, answer('east'))).body).toMatchObject({
      answered: ['q3'],
    });
  });

  it('a token given in the moment in which the teacher acts on the attempt is none the less good', async () => {
    const room = await classroom();
    const desk = await opened(room);
    const { attemptId } = await begun(room);
    const change = { set: { comeBack: ['q3'] }, answers: {}, added: [], dropped: [] };
    const changes = [{ table: 'attempts', id: attemptId, change }];
    for (let n = 0; n < 20; n++) {
      const device = room.device();
      let letGo: () => void = () => undefined;
      const waits = room.store.locked('student0', () => new Promise<void>((resolve) => (letGo = resolve)));
      const locks = vi.spyOn(room.store, 'locked');
      const acts = desk.ask('POST', '/desk/changes', { changes });
      const session = device.ask('POST', `/attempts/${attemptId}/session`, { joinCode: codeOf(0) });
      // Both want the attempt's session while the student is held.
      await vi.waitFor(() =>
        expect(locks.mock.calls.filter(([name]) => name.startsWith('sessions/'))).toHaveLength(2),
      );
      letGo();
      await Promise.all([waits, acts, session]);
      locks.mockRestore();
      expect((await device.ask('POST', `/attempts/${attemptId}/answers`, answer('x'))).status).toBe(200);
    }
  });

  it('cookies are for HTTPS alone where it is behind a proxy; there the origin is the one that was set', async () => {
    const room = await classroom({ origin: 'https://school.example' });
    const desk = room.device();
    const there = { origin: 'https://school.example' };
    expect((await desk.ask('POST', '/pair', { secret })).body).toEqual({ error: 'wrongOrigin' });
    expect((await desk.ask('POST', '/pair', { secret }, there)).set).toContain('; Secure');
  });

  it('a change from a page elsewhere is refused, cookie or not', async () => {
    const room = await classroom();
    const desk = await opened(room);
    const changes = { changes: [] };
    for (const origin of ['http://elsewhere.test', 'null', ''])
      expect((await desk.ask('POST', '/desk/changes', changes, { origin })).status).toBe(403);
    expect((await desk.ask('POST', '/desk/changes', changes)).status).toBe(200);
  });
});

describe('guessing', () => {
  /** Codes that are far from those of any student of these tests. */
  const wild = (n: number) => `ZZ${codeOf(n).slice(2)}`;

  it('is stopped after so many wrong codes; who is in, or was in on the device, is not; the teacher can let them in', async () => {
    const room = await classroom({}, 5);
    const desk = await opened(room);
    const { student, attemptId } = await begun(room);
    await student.ask('POST', '/greet', { joinCode: codeOf(0) });
    const thief = room.device();
    for (let n = 0; n < 6; n++)
      expect((await thief.ask('POST', '/greet', { joinCode: wild(n) })).status).toBe(404);
    const stopped = await thief.ask('POST', '/greet', { joinCode: codeOf(0) });
    expect(stopped.body).toEqual({ error: 'tooManyGuesses' });
    expect(stopped.retryAfterS).toBeGreaterThan(500);
    // A student at work who reloads the page comes in again.
    expect((await student.ask('POST', '/greet', { joinCode: codeOf(0) })).status).toBe(200);
    expect((await student.ask('POST', '/home', { joinCode: codeOf(0) })).status).toBe(200);
    expect((await student.ask('POST', `/attempts/${attemptId}/answers`, answer('x'))).status).toBe(200);
    // With its own code only.
    expect((await student.ask('POST', '/greet', { joinCode: codeOf(1) })).status).toBe(429);
    expect((await room.device('10.0.0.2').ask('POST', '/greet', { joinCode: codeOf(0) })).status).toBe(200);
    for (const path of ['/desk/state', '/desk/news?after=0']) {
      const told = (await desk.ask('GET', path)).body as { stopped: unknown[] };
      expect(told.stopped).toMatchObject([{ from: '10.0.0.1', what: 'codes' }]);
    }
    await desk.ask('POST', '/desk/forgive', { from: '10.0.0.1' });
    expect((await thief.ask('POST', '/greet', { joinCode: codeOf(1) })).status).toBe(200);
  });

  it('a pass of one device is worth nothing to another student, and cannot be made up', async () => {
    const room = await classroom({}, 2);
    await opened(room, sittingRows(2));
    const thief = room.device();
    for (let n = 0; n < 3; n++) await thief.ask('POST', '/greet', { joinCode: wild(n) });
    const headers = { cookie: 'gribbet-pass=AAAAAAAAAAAAAAAAAAAAAAAA.' };
    expect((await thief.ask('POST', '/greet', { joinCode: codeOf(1) }, headers)).status).toBe(429);
  });

  it('a school of 550 behind one address comes in, though every one of them mistypes the code first, the same way again', async () => {
    const room = await classroom({}, 200);
    await opened(room, sittingRows(550));
    for (let n = 0; n < 550; n++) {
      const pupil = room.device('192.168.1.1');
      const code = codeOf(n);
      // One letter wrong, as on a phone; every tenth types something else altogether, and that twice.
      const mistyped = n % 10 === 0 ? wild(n) : `Y${code.slice(1)}`;
      for (let again = 0; again < 2; again++)
        expect((await pupil.ask('POST', '/greet', { joinCode: mistyped })).status).toBe(404);
      expect((await pupil.ask('POST', '/greet', { joinCode: code })).status).toBe(200);
    }
  });

  it('what cannot be a code is no guess; slips of the keys near one code are, once there are too many', async () => {
    const room = await classroom({}, 5);
    await opened(room);
    const student = room.device();
    for (const typed of ['', 'TIDE', '12345', 'AMARA OKAFOR', 'ILOU01', '1234567'])
      for (let n = 0; n < 9; n++)
        expect((await student.ask('POST', '/greet', { joinCode: typed })).status).toBe(404);
    // Somebody knows five letters of a code and tries the sixth.
    const statuses: number[] = [];
    for (const last of 'ABCDEFGHJKMN')
      statuses.push((await student.ask('POST', '/greet', { joinCode: `22222${last}` })).status);
    expect(statuses.filter((status) => status === 404)).toHaveLength(3 + 1 + 5 + 1);
    expect(statuses.at(-1)).toBe(429);
  });

  it('wrong access codes count for the student who types them, and for nobody else', async () => {
    const room = await classroom({}, 3);
    const desk = await opened(room, sittingRows(30, { accessCode: 'ebb', guests: true }));
    const go = (n: number, accessCode: string) => ({
      joinCode: codeOf(n),
      sittingId: 'sitting1',
      accessCode,
      tabId: 't',
    });
    // A whole class behind one address mistypes it.
    for (let n = 1; n < 30; n++)
      expect((await room.device().ask('POST', '/start', go(n, 'eb'))).body).toMatchObject({
        why: 'wrongCode',
      });
    for (let n = 1; n < 30; n++)
      expect((await room.device().ask('POST', '/start', go(n, 'ebb'))).body).toMatchObject({
        outcome: 'started',
      });
    for (let n = 0; n < 4; n++)
      expect((await room.device().ask('POST', '/start', go(0, `flood ${n}`))).body).toMatchObject({
        why: 'wrongCode',
      });
    expect((await room.device().ask('POST', '/start', go(0, 'ebb'))).status).toBe(429);
    const { stopped } = (await desk.ask('GET', '/desk/state')).body as { stopped: unknown[] };
    expect(stopped).toMatchObject([{ from: 'student0', what: 'access' }]);
    await desk.ask('POST', '/desk/forgive', { from: 'student0' });
    expect((await room.device().ask('POST', '/start', go(0, 'ebb'))).body).toMatchObject({
      outcome: 'started',
    });
  });

  it('guests who try access codes are stopped as guests; students come in from there all the same', async () => {
    const room = await classroom({}, 3);
    await opened(room, sittingRows(1, { accessCode: 'ebb', guests: true }));
    const guest = room.device();
    for (let n = 0; n < 4; n++)
      expect((await guest.ask('POST', '/guest', { name: 'Nia', accessCode: `flood ${n}` })).body).toBeNull();
    expect((await guest.ask('POST', '/guest', { name: 'Nia', accessCode: 'ebb' })).status).toBe(429);
    expect((await guest.ask('POST', '/greet', { joinCode: codeOf(0) })).status).toBe(200);
  });

  it('from many addresses at once, each is stopped after a few', async () => {
    const guesses = new Guesses((await classroom()).store, 'codes', 200, 100);
    const wrong = (from: string, guess: string) => guesses.look(from, start, guess, async () => null);
    for (let address = 0; address < 20; address++)
      for (let n = 0; n < 6; n++) await wrong(`10.0.1.${address}`, `${address} ${n}`);
    for (let n = 0; n < 5; n++) await wrong('10.0.1.1', `more ${n}`);
    await expect(wrong('10.0.1.1', 'and more')).rejects.toThrow('tooManyGuesses');
    // Where little was guessed, nobody is stopped.
    expect(await guesses.look('10.0.2.1', start, 'right', async () => 'in')).toBe('in');
  });

  it('the teacher’s secret: forgiving in how it is typed, and few tries', async () => {
    const room = await classroom();
    const desk = room.device();
    expect((await desk.ask('POST', '/pair', { secret: 'abcd-efgh 2345-6789' })).status).toBe(200);
    const thief = room.device('10.0.0.66');
    for (let n = 0; n < 4; n++)
      expect((await thief.ask('POST', '/pair', { secret: `no ${n}` })).status).toBe(401);
    expect((await thief.ask('POST', '/pair', { secret })).status).toBe(429);
  });
});

it('a device that gives itself address after address in its network is one, as RFC 4291 has networks and hosts', () => {
  // RFC 4291, sections 2.2 (the ways to write an address), 2.5.4 (64 bits of network) and 2.5.5.2 (version 4 within 6).
  expect(networkOf('2001:db8::8:800:200c:417a')).toBe('2001:db8::/64');
  expect(networkOf('2001:DB8:0:0:8:800:200C:417A')).toBe('2001:db8::/64');
  expect(networkOf('2001:db8:0:cd30:123:4567:89ab:cdef')).toBe('2001:db8:0:cd30::/64');
  expect(networkOf('::FFFF:129.144.52.38')).toBe('129.144.52.38');
  expect(networkOf('129.144.52.38')).toBe('129.144.52.38');
  expect([networkOf('::1'), networkOf('127.0.0.1')]).toEqual(['::1', '127.0.0.1']);
  expect(networkOf('fe80::1%eth0')).toBe('fe80::/64');
  expect(networkOf('')).toBe('');
});

it('a hundred guesses at the same moment count as a hundred: join codes, access codes, secrets', async () => {
  const room = await classroom({}, 5);
  await opened(room, sittingRows(1, { accessCode: 'ebb' }));
  const burst = async (from: string, path: string, body: (n: number) => unknown) => {
    const thief = room.device(from);
    const replies = await Promise.all(
      Array.from({ length: 100 }, (_, n) => thief.ask('POST', path, body(n))),
    );
    return replies.filter(({ status }) => status !== 429).length;
  };
  expect(await burst('10.0.0.66', '/greet', (n) => ({ joinCode: `ZZ${codeOf(n).slice(2)}` }))).toBe(6);
  const go = { joinCode: codeOf(0), sittingId: 'sitting1', tabId: 't' };
  expect(await burst('10.0.0.67', '/start', (n) => ({ ...go, accessCode: `flood ${n}` }))).toBe(6);
  expect(await burst('10.0.0.68', '/pair', (n) => ({ secret: `not this one ${n}` }))).toBe(4);
});

describe('bad requests', () => {
  it('are named by their place, and change nothing', async () => {
    const room = await classroom();
    const desk = await opened(room);
    const { student, attemptId } = await begun(room);
    const rev = await room.store.rev();
    const path = `/attempts/${attemptId}/answers`;
    expect((await student.ask('POST', path, 'not json')).body).toEqual({
      error: 'badRequest',
      place: 'not JSON',
    });
    expect((await student.ask('POST', path, { ...answer('x'), answers: [] })).body).toMatchObject({
      error: 'badRequest',
      place: 'answers',
    });
    expect(
      (await desk.ask('POST', '/desk/changes', { changes: [{ table: 'sittings', row: {} }] })).status,
    ).toBe(400);
    expect((await student.ask('POST', '/greet', { joinCode: 'x'.repeat(20_000) })).body).toEqual({
      error: 'tooLarge',
    });
    expect((await desk.ask('GET', '/desk/news?after=-1')).status).toBe(400);
    expect((await desk.ask('GET', '/nowhere')).status).toBe(404);
    expect((await desk.ask('GET', '/desk/files/..%2fbox.json')).status).toBe(404);
    expect(await room.store.rev()).toBe(rev);
  });

  it('no room on the disk is said so, and nothing of what was sent reaches the log', async () => {
    const room = await classroom();
    await opened(room);
    const { student, attemptId } = await begun(room);
    room.store.commit = () => Promise.reject(new StoreFull('full'));
    const reply = await student.ask('POST', `/attempts/${attemptId}/answers`, answer('my own words'));
    expect([reply.status, reply.body]).toEqual([507, { error: 'full' }]);
    room.store.commit = () => Promise.reject(new Error('my own words'));
    expect((await student.ask('POST', `/attempts/${attemptId}/answers`, answer('my own words'))).status).toBe(
      500,
    );
    expect(room.lines.join('\n')).toMatch(/no room/);
    expect(room.lines.join('\n')).not.toMatch(/my own words/);
  });
});

describe('what comes late, twice or out of order', () => {
  it('the newest answer stays, whatever overtook what', async () => {
    const room = await classroom();
    await opened(room);
    const { student, attemptId } = await begun(room);
    const path = `/attempts/${attemptId}/answers`;
    const send = (text: string, sequence: number) =>
      student.ask('POST', path, { ...answer(text), sequence }, {}, start + 1000);
    await send('first', 1);
    await send('third', 3);
    await send('second, held up on its way', 2);
    await send('third again', 3);
    const [row] = await room.store.list('attempts/');
    expect(row?.value).toMatchObject({ answers: { q3: { response: { text: 'third' } } } });
    await Promise.all([5, 4, 7, 6].map((sequence) => send(`n${sequence}`, sequence)));
    const [after] = await room.store.list('attempts/');
    expect(after?.value).toMatchObject({
      answers: { q3: { response: { text: 'n7' } } },
      tab: { sequence: 7 },
    });
  });

  it('a sign of life changes nothing that is kept, and is told to the desk as its own message', async () => {
    const room = await classroom();
    const desk = await opened(room);
    const { student, attemptId } = await begun(room);
    const before = [await room.store.rev(), JSON.stringify(await room.store.list('attempts/'))];
    const later = start + 600_000;
    const present = () => student.ask('POST', `/attempts/${attemptId}/present`, { tabId: 'tab' }, {}, later);
    expect((await present()).body).toMatchObject({ state: 'working', now: later, elsewhere: false });
    expect([await room.store.rev(), JSON.stringify(await room.store.list('attempts/'))]).toEqual(before);
    const told = await desk.ask('GET', `/desk/present?after=${start}`, undefined, {}, later);
    expect(told.body).toEqual({ now: later, seen: [[attemptId, later]] });
    const again = await desk.ask('GET', `/desk/present?after=${later}`, undefined, {}, later);
    expect(again.body).toEqual({ now: later, seen: [] });
    // A tab that it no longer goes on in does not speak for it.
    const elsewhere = await student.ask(
      'POST',
      `/attempts/${attemptId}/present`,
      { tabId: 'other' },
      {},
      later + 1,
    );
    expect(elsewhere.body).toMatchObject({ elsewhere: true });
    const still = await desk.ask('GET', `/desk/present?after=${later}`, undefined, {}, later);
    expect(still.body).toEqual({ now: later, seen: [] });
  });

  it('two starts at once are one attempt', async () => {
    const room = await classroom();
    await opened(room);
    const ids = await Promise.all([0, 1, 2].map(async () => (await begun(room)).attemptId));
    expect(new Set(ids).size).toBe(1);
  });
});

describe('the surroundings', () => {
  it('a secret is drawn once and kept; too short a one, and an address that is none, are named', () => {
    const folder = mkdtempSync(join(tmpdir(), 'gribbet-settings-'));
    const first = settingsFrom({ GRIBBET_DATA: folder });
    expect([first.fresh, first.secret.length]).toEqual([true, 20]);
    expect(settingsFrom({ GRIBBET_DATA: folder })).toEqual({ ...first, fresh: false });
    expect(settingsFrom({ GRIBBET_DATA: folder, GRIBBET_TEACHER_SECRET: 'high water at ten' }).secret).toBe(
      'HIGHWATERATTEN',
    );
    expect(() => settingsFrom({ GRIBBET_DATA: folder, GRIBBET_TEACHER_SECRET: 'ebb' })).toThrow(
      /TEACHER_SECRET/,
    );
    expect(() => settingsFrom({ GRIBBET_DATA: folder, GRIBBET_ORIGIN: 'school' })).toThrow(/GRIBBET_ORIGIN/);
    expect(addressesOf({ origin: 'https://school.example', port: 1 })).toEqual(['https://school.example']);
    for (const address of addressesOf({ origin: null, port: 4321 }))
      expect(address).toMatch(/^http:\/\/[\d.]+:4321$/);
  });

  it('a page’s policy lets in only the scripts that were shipped with it', () => {
    const policy = pagePolicy('<script src="/a.js"></script><script>alert(1)</script>');
    // W3C CSP Level 3, section 2.3.1: a hash source is the Base64 of the SHA-256 of the text; computed with openssl.
    expect(policy).toContain("script-src 'self' 'sha256-bhHHL3z2vDgxUt0W3dWQOrprscmda2Y5pLsLg4GF+pI=';");
    expect(policy).toMatch(/object-src 'none'.*base-uri 'none'.*frame-ancestors 'none'/);
    expect(policy.replace(/style-src[^;]*/, '')).not.toContain('unsafe');
    expect(everywhere['x-content-type-options']).toBe('nosniff');
  });
});

describe('shares of marking', () => {
  const code = 'ABCDE-23456';
  async function withShare() {
    const room = await classroom();
    const desk = await opened(room);
    expect((await desk.ask('PUT', '/desk/shares/share1', { code, text: 'sealed one' })).status).toBe(200);
    await desk.ask('PUT', '/desk/shares/share2', { code: 'FGHJK-34567', text: 'sealed two' });
    return { room, desk, marker: room.device('10.0.0.5') };
  }

  it('a code opens its share and nothing else; the server keeps no code', async () => {
    const { room, marker } = await withShare();
    expect((await marker.ask('POST', '/share', { code: 'abcde 23456' })).body).toEqual({
      id: 'share1',
      text: 'sealed one',
    });
    expect((await marker.ask('POST', '/share', { code: 'ABCDE-23457' })).status).toBe(404);
    expect((await marker.ask('POST', '/share', { code: 'short' })).status).toBe(400);
    for (const path of ['/desk/shares', '/desk/news', '/desk/state'])
      expect((await marker.ask('GET', path)).status).toBe(401);
    const rows = JSON.stringify(await room.store.list(''));
    expect(rows.toLowerCase()).not.toContain('abcde');
    expect(room.lines.join()).not.toContain('ABCDE');
  });

  it('marks come to the desk, the newest in place of those before, and only since it last asked', async () => {
    const { desk, marker } = await withShare();
    expect((await marker.ask('PUT', '/share/marks', { code, text: 'one mark' })).status).toBe(200);
    await marker.ask('PUT', '/share/marks', { code, text: 'two marks' });
    const news = (await desk.ask('GET', '/desk/shares')).body as { rev: number; marks: unknown };
    expect(news.marks).toEqual([{ shareId: 'share1', text: 'two marks' }]);
    const after = (await desk.ask('GET', `/desk/shares?after=${news.rev}`)).body;
    expect(after).toEqual({ rev: news.rev, marks: [] });
    expect((await marker.ask('PUT', '/share/marks', { code: 'ABCDE-23457', text: 'x' })).status).toBe(404);
  });

  it('pulled back it is gone, and what its marker did before stays', async () => {
    const { desk, marker } = await withShare();
    await marker.ask('PUT', '/share/marks', { code, text: 'one mark' });
    await desk.ask('DELETE', '/desk/shares/share1');
    const refused = await marker.ask('PUT', '/share/marks', { code, text: 'two marks' });
    expect([refused.status, refused.body]).toEqual([410, { error: 'pulledBack', place: 'code' }]);
    expect((await marker.ask('POST', '/share', { code })).status).toBe(410);
    const news = (await desk.ask('GET', '/desk/shares')).body as { marks: unknown };
    expect(news.marks).toEqual([{ shareId: 'share1', text: 'one mark' }]);
    await desk.ask('PUT', '/desk/shares/share1', { code, text: 'sealed one' });
    expect((await marker.ask('PUT', '/share/marks', { code, text: 'two marks' })).status).toBe(200);
  });

  it('guessing is stopped', async () => {
    const room = await classroom({}, 3);
    await opened(room);
    const guesser = room.device('10.0.0.6');
    const statuses: number[] = [];
    for (let n = 0; n < 15; n++)
      statuses.push((await guesser.ask('POST', '/share', { code: `ABCDE-2345${n}` })).status);
    expect(statuses.at(-1)).toBe(429);
  });
});

describe('for those who run it', () => {
  const collector = { authorization: 'Bearer measured every minute' };
  const settingsToo = { metricsToken: 'measured every minute' };

  it('says that it is alive, and ready while its store is there and it does not end', async () => {
    const room = await classroom();
    const proxy = room.device();
    expect((await proxy.ask('GET', '/health')).body).toEqual({ is: 'alive' });
    expect(await proxy.ask('GET', '/ready')).toMatchObject({ status: 200, body: { is: 'ready' } });
    vi.spyOn(room.store, 'rev').mockRejectedValueOnce(new Error('gone'));
    expect(await proxy.ask('GET', '/ready')).toMatchObject({ status: 503, body: { is: 'noStore' } });
    room.server.stop();
    expect(await proxy.ask('GET', '/ready')).toMatchObject({ status: 503, body: { is: 'stopping' } });
    expect((await proxy.ask('GET', '/health')).status).toBe(200);
  });

  it('metrics in the open text format, for who has the token, and nobody’s name or code in them', async () => {
    const room = await classroom(settingsToo);
    await opened(room);
    const { student, attemptId } = await begun(room);
    await student.ask('POST', `/attempts/${attemptId}/answers`, answer('west'));
    await student.ask('POST', '/greet', { joinCode: 'ZZZZZZ' });
    expect((await student.ask('GET', '/metrics')).status).toBe(404);
    expect(
      (await student.ask('GET', '/metrics', undefined, { authorization: 'Bearer guessed' })).status,
    ).toBe(404);
    const text = await (await student.open('GET', '/metrics', undefined, collector)).text();
    // The exposition format: each metric with its help and type, then lines of a name, labels and a number (prometheus.io, text format 0.0.4).
    for (const line of text.trim().split('\n'))
      expect(line).toMatch(
        /^(# (HELP|TYPE) [a-zA-Z_:][\w:]* .+|[a-zA-Z_:][\w:]*(\{([a-zA-Z_]\w*="[^"]*",?)*\})? [-+.\deENaInf]+|)$/,
      );
    expect(text).toMatch(/^gribbet_answers_total 1$/m);
    expect(text).toMatch(/^gribbet_wrong_guesses_total\{what="codes"\} 1$/m);
    expect(text).toMatch(
      /^gribbet_request_seconds_count\{method="POST",path="\/api\/exchange\/attempts\/:attemptId\/answers",status="200"\} 1$/m,
    );
    for (const told of [attemptId, 'student0', codeOf(0), 'ZZZ']) expect(text).not.toContain(told);
  });

  it('desks that listen are told to come again when it ends, and nothing is waited for', async () => {
    const room = await classroom();
    const desk = await opened(room);
    const stream = await desk.open('GET', '/desk/stream');
    const words = new Response(stream.body).text();
    room.server.stop();
    expect(await words).toMatch(/retry: 1000\n\n$/);
    expect((await desk.ask('GET', '/desk/stream')).status).toBe(500);
  });
});
