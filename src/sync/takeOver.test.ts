import 'fake-indexeddb/auto';
import { liveQuery, type Dexie } from 'dexie';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { smallDemo } from '../../tests/unit/smallDemo';
import { testStore } from '../../tests/unit/testStore';
import type { Fetch } from '@/carriers/ask';
import { ServerFault } from '@/core/exchange/serverFault';
import type { Side, Topic } from '@/core/formats/backup/twoDesks';
import type { Student } from '@/core/model/people';
import { exchangeServer } from '@/server/exchangeServer';
import type { ExchangeStore } from '@/server/exchangeStore';
import type { ServerSettings } from '@/server/settings';
import { deskContent, emptyTables, replaceDesk } from '@/store/backup';
import { deskElsewhere, leaveDesk } from '@/store/elsewhere';
import { forgetStudent } from '@/store/forget';
import { changeStudent } from '@/store/people';
import { changeSitting } from '@/store/sittings';
import { desk } from '@/store/tables';
import { copyOntoServer, deskId, readServerCopy } from './copies';
import { changeServerPlace, copyPlaces, nameThisComputer, serverPlace, thisComputer } from './copyPlaces';
import { pairDesk, pull, push } from './mailboxSync';
import { serverConnection, type ServerConnection } from './serverConnection';
import { findDesk, followHolds, holdDesk, readAhead, takeDesk } from './takeOver';

const secret = 'ABCDEFGH23456789';
const start = Date.parse('2026-11-26T12:00:00.000Z');
let clock = start;
const now = () => new Date((clock += 1_000)).toISOString();

type Rows = [string, unknown[]][];
const bases: Dexie[] = [desk, copyPlaces];

/** One of two browsers: what it holds is put aside while the other is at work. */
class Browser {
  private held: Rows[] | null = null;
  private cookie = '';
  readonly line: ServerConnection;
  readonly sent: string[] = [];

  constructor(
    private readonly name: string,
    private readonly server: ReturnType<typeof exchangeServer>,
  ) {
    const asked: Fetch = async (address, { method = 'GET', body, headers }) => {
      this.sent.push(`${method} ${address}`);
      const request = new Request(`http://mailbox${address}`, {
        method,
        headers: {
          ...(headers as Record<string, string>),
          ...{ host: 'mailbox', origin: 'http://mailbox', cookie: this.cookie },
        },
        body: (body ?? null) as string | null,
      });
      const response = await this.server.answer(request, '10.0.0.1', clock);
      this.cookie = response.headers.get('set-cookie')?.split(';')[0] ?? this.cookie;
      return response;
    };
    this.line = serverConnection(asked);
  }

  /** Goes on where this browser was left. */
  async sit(before?: Browser): Promise<void> {
    if (before)
      before.held = await Promise.all(
        bases.map((base) =>
          Promise.all(
            base.tables.map(async (table) => [table.name, await table.toArray()] as [string, unknown[]]),
          ),
        ),
      );
    await desk.elsewhere.clear();
    for (const [at, base] of bases.entries())
      for (const table of base.tables) {
        await table.clear();
        const rows = this.held?.[at]?.find(([name]) => name === table.name)?.[1] ?? [];
        if (table.name !== 'elsewhere') await table.bulkAdd(rows);
      }
    const elsewhere = this.held?.[0]?.find(([name]) => name === 'elsewhere')?.[1] ?? [];
    await desk.elsewhere.bulkAdd(elsewhere as never[]);
    if (this.held) return;
    await nameThisComputer(this.name);
    await replaceDesk(emptyTables);
    await pairDesk(this.line, secret);
    await copyPlaces.places.put({
      ...{
        key: 'server',
        secret,
        salt: this.name === 'School' ? 'AAECAwQFBgcICQoLDA0ODw==' : 'Dw4NDAsKCQgHBgUEAwIBAA==',
      },
      ...{ lastAt: null, changedSince: null, fault: null },
    });
  }

  /** As the worker does soon after a change. */
  async send(): Promise<void> {
    const place = await serverPlace();
    if (!place) throw new Error('not paired');
    const [id, at] = [await deskId(), now()];
    await holdDesk(this.line);
    const sent = place.sent?.deskId === id ? place.sent : undefined;
    const { id: computer } = await thisComputer();
    const copy = await copyOntoServer(this.line, place, await deskContent(), id, at, { computer, sent });
    await changeServerPlace({ sent: { deskId: id, at, ...copy }, lastAt: at, changedSince: null });
  }

  async hear() {
    return followHolds(await this.line.holds(), clock);
  }

  async take(id: string, choices: [Topic, Side][] = []) {
    const found = await findDesk(id, { line: this.line, now, patient: false });
    if ('fault' in found) throw new Error(found.fault.code);
    return { found, outcome: await takeDesk(found, new Map(choices), { line: this.line, now }) };
  }
}

let store: ExchangeStore;
let school: Browser;
let home: Browser;
let id: string;

beforeEach(async () => {
  clock = start;
  store = await testStore();
  const settings: ServerSettings = {
    folder: '',
    secret,
    fresh: false,
    origin: null,
    port: 4321,
    log: 'plain',
  };
  const server = exchangeServer(store, settings, () => undefined);
  school = new Browser('School', server);
  home = new Browser('Home', server);
  await school.sit();
  await replaceDesk(smallDemo(start));
  await pairDesk(school.line, secret);
  id = await deskId();
  await school.send();
});
afterEach(() => store.close());

const renameSitting = async (sittingId: string, title: string, at: string) => {
  const sitting = await desk.sittings.get(sittingId);
  if (!sitting) throw new Error(sittingId);
  await changeSitting({ ...sitting, title }, 'Renamed', at, sitting);
};
const titleOf = async (sittingId: string) => (await desk.sittings.get(sittingId))?.title;
/** Without what tells the time of the page. */
const rowsHere = async () => (await deskContent()).rows;

describe('a desk on two computers', () => {
  it('is taken over whole, files too; the other is for reading only, and says where it is', async () => {
    const before = await rowsHere();
    await home.sit(school);
    const paired: boolean[] = [];
    const watched = liveQuery(() => desk.pairing.count()).subscribe((count) => paired.push(count > 0));
    const { found, outcome } = await home.take(id);
    watched.unsubscribe();
    expect(outcome).toBeNull();
    // Had it not been for a moment, the workers would have thrown the secret away, and the key drawn from it.
    expect(paired.length).toBeGreaterThan(1);
    expect(paired).not.toContain(false);
    expect(await copyPlaces.seals.get(found.copy.salt)).toBeDefined();
    expect(found.same).toBe(false);
    expect(await rowsHere()).toEqual(before);
    for (const { id: file, size } of before.assets)
      expect((await desk.assets.get(file))?.bytes.length).toBe(size);
    expect(await home.hear()).toMatchObject({ here: true });
    await renameSitting('tides', 'Tides at home', now());
    await home.send();

    await school.sit(home);
    expect(await school.hear()).toMatchObject({ here: false });
    expect(await deskElsewhere()).toMatchObject({ computer: 'Home', why: 'taken' });
    await expect(renameSitting('tides', 'Tides at school', now())).rejects.toThrow('deskElsewhere Home');
    expect(await titleOf('tides')).not.toBe('Tides at school');
    await expect(school.send()).rejects.toMatchObject({ why: 'elsewhere' });

    // Back at school, where it was read before it was asked for: only what changed is fetched.
    await readAhead();
    school.sent.length = 0;
    const again = await school.take(id);
    expect(again.found.differences).toEqual([]);
    expect(
      school.sent.filter((each) => each.startsWith('GET') && each.includes('/parts/')).length,
    ).toBeLessThan(6);
    expect(await titleOf('tides')).toBe('Tides at home');
    expect(await school.hear()).toMatchObject({ here: true });
    await renameSitting('tides', 'Tides at school', now());
    await school.send();
    await home.sit(school);
    expect(await home.hear()).toMatchObject({ here: false });
    // What was read at school was read of another time.
    await home.take(id);
    await renameSitting('tides', 'Tides at home again', now());
    await home.send();
    await school.sit(home);
    expect(await school.hear()).toMatchObject({ here: false });
    expect((await school.take(id)).found.differences).toEqual([]);
    expect(await titleOf('tides')).toBe('Tides at home again');
  });

  it('a network that breaks for a moment does not end it', async () => {
    await home.sit(school);
    let asked = 0;
    const line: ServerConnection = {
      ...home.line,
      part: async (part) => {
        asked += 1;
        if (asked % 5 === 1) throw new ServerFault('unreachable');
        return home.line.part(part);
      },
    };
    const found = await findDesk(id, { line, now, patient: false });
    expect(found).toMatchObject({ answer: 'away', same: false });
    // One that stays away does.
    line.part = () => Promise.reject(new ServerFault('unreachable'));
    await expect(findDesk(id, { line, now, patient: false })).rejects.toMatchObject({ why: 'unreachable' });
  }, 60_000);

  it('whoever takes it asks for the last changes, and they come', async () => {
    await home.sit(school);
    const asking = home.line.hold({ act: 'ask', deskId: id, computer: await thisComputer() });
    await asking;
    await school.sit(home);
    const heard = await school.hear();
    expect(heard).toMatchObject({ asked: { name: 'Home' } });
    await renameSitting('tides', 'The last change', now());
    await school.send();
    await school.line.hold({ act: 'give', deskId: id, computer: await thisComputer() });
    await home.sit(school);
    expect((await home.line.holds())[0]).toMatchObject({ given: true, computer: { name: 'School' } });
    await home.take(id);
    expect(await titleOf('tides')).toBe('The last change');
  });

  it('giving it that was broken off by leaving the page goes on when it is asked for again', async () => {
    await home.sit(school);
    const ask = async () => home.line.hold({ act: 'ask', deskId: id, computer: await thisComputer() });
    await ask();
    await school.sit(home);
    await school.hear();
    await leaveDesk({ computer: 'Home', since: now(), sentAt: null, why: 'giving' });
    // The page was left there; opened again, it hears that it is still wanted.
    expect(await school.hear()).toMatchObject({ here: false, asked: { name: 'Home' } });
    await school.line.hold({ act: 'give', deskId: id, computer: await thisComputer() });
    expect(await school.hear()).toEqual({ here: false, asked: null });
    // Whoever asked thought about it, and asks once more.
    await home.sit(school);
    await ask();
    await school.sit(home);
    expect(await school.hear()).toMatchObject({ here: false, asked: { name: 'Home' } });
    clock += 120_000;
    expect(await school.hear()).toEqual({ here: true, asked: null });
  });

  it('computers are called what they are called now, whatever they were when they last said that they hold it', async () => {
    const before = await thisComputer();
    const named = await nameThisComputer('Staff room');
    await school.line.nameComputer(named);
    // Sent before it was named, and come after.
    await school.line.hold({ act: 'begin', deskId: id, computer: before });
    expect((await school.line.holds()).map(({ computer }) => computer)).toEqual([named]);
    await home.sit(school);
    const asking = await nameThisComputer('Kitchen');
    await home.line.hold({ act: 'ask', deskId: id, computer: asking });
    await home.line.nameComputer({ ...asking, name: 'Kitchen table' });
    const [told] = await home.line.holds();
    expect([told?.computer.name, told?.asked?.computer.name]).toEqual(['Staff room', 'Kitchen table']);
  });

  it('a name given while it is being paired is the one that it has', async () => {
    const line: ServerConnection = {
      ...school.line,
      pair: async (...said) => {
        const mailbox = await school.line.pair(...said);
        await nameThisComputer('Staff room');
        return mailbox;
      },
    };
    await pairDesk(line, secret);
    expect((await school.line.computers()).map(({ name }) => name)).toEqual(['Staff room']);
  });

  it('one of two that take it at once gets it', async () => {
    await home.sit(school);
    const found = await findDesk(id, { line: home.line, now, patient: false });
    if ('fault' in found) throw new Error(found.fault.code);
    await school.sit(home);
    await renameSitting('tides', 'Newer', now());
    await school.send();
    await home.sit(school);
    expect(await takeDesk(found, new Map(), { line: home.line, now })).toEqual({
      fault: { code: 'takenElsewhere' },
    });
    expect(await desk.sittings.count()).toBe(0);
    await home.take(id);
    expect(await titleOf('tides')).toBe('Newer');
  });

  it('both changed without a network: shown by sitting and paper, one of each taken, both kept as they were', async () => {
    await home.sit(school);
    await home.take(id);
    await renameSitting('tides', 'Tides at home', now());
    await renameSitting('lights', 'Lights at home', now());
    await home.send();
    await school.sit(home);
    // It does not know yet that the desk was taken over.
    await renameSitting('tides', 'Tides at school', now());
    await renameSitting('rules', 'Rules at school', now());
    await changeServerPlace({ changedSince: now() });
    expect(await school.hear()).toMatchObject({ here: false });
    expect((await serverPlace())?.changedSince).not.toBeNull();

    const found = await findDesk(id, { line: school.line, now, patient: false });
    if ('fault' in found) throw new Error(found.fault.code);
    const told = found.differences.map(({ topic, changed }) => [topic, changed]);
    expect(told).toEqual(
      expect.arrayContaining([
        ['sittings/tides', 'both'],
        ['sittings/lights', 'there'],
        ['sittings/rules', 'here'],
      ]),
    );
    expect(told).toHaveLength(3);
    expect(
      await takeDesk(found, new Map([['sittings/tides', 'here']]), { line: school.line, now }),
    ).toBeNull();
    expect(await Promise.all(['tides', 'lights', 'rules'].map(titleOf))).toEqual([
      'Tides at school',
      'Lights at home',
      'Rules at school',
    ]);
    const kept = (await school.line.copies()).filter((copy) => copy.kept);
    expect(kept.map((copy) => copy.kept?.computer).sort()).toEqual(['Home', 'School']);
    const titles = await Promise.all(
      kept.map(async (copy) => {
        const read = await readServerCopy(school.line, secret, copy);
        if ('fault' in read) throw new Error(read.fault.code);
        return [copy.kept?.computer, read.backup.rows.sittings.find((each) => each.id === 'tides')?.title];
      }),
    );
    expect(Object.fromEntries(titles)).toEqual({ Home: 'Tides at home', School: 'Tides at school' });
    // They stay, however many copies come after them.
    for (let times = 0; times < 8; times++) await school.send();
    expect((await school.line.copies()).filter((copy) => copy.kept)).toHaveLength(2);
  });

  it('a student who was forgotten on one of them does not come back with the other’s desk, nor from the server', async () => {
    await home.sit(school);
    await home.take(id);
    await renameSitting('lights', 'Lights at home', now());
    const person = await desk.students.get('student64');
    await changeStudent({ ...(person as Student), email: 'changed@example.org' }, now());
    await desk.sittings.update('tides', { onDevices: true });
    await push(home.line, clock);
    await home.send();
    const lies = async () => JSON.stringify(await store.list(''));
    const everything = async () => JSON.stringify(await Promise.all(desk.tables.map((t) => t.toArray())));
    const before = await lies();
    expect(before).toContain('student64');
    await school.sit(home);
    // Without a network.
    await forgetStudent('student64', now());
    await changeServerPlace({ changedSince: now() });
    expect(await school.hear()).toMatchObject({ here: false });
    const found = await findDesk(id, { line: school.line, now, patient: false });
    if ('fault' in found) throw new Error(found.fault.code);
    expect(found.forgotten).toBe(1);
    const all = new Map(found.differences.map(({ topic }) => [topic, 'there' as const]));
    expect(await takeDesk(found, all, { line: school.line, now })).toBeNull();
    expect(await titleOf('lights')).toBe('Lights at home');
    expect(await desk.students.get('student64')).toBeUndefined();
    expect(await desk.attempts.where({ studentId: 'student64' }).count()).toBe(0);
    expect(await desk.marks.count()).toBeGreaterThan(0);

    await pull(school.line);
    await push(school.line, clock);
    await pull(school.line);
    expect(await desk.attempts.where({ studentId: 'student64' }).count()).toBe(0);
    expect(await lies()).not.toContain('student64');
    expect(await lies()).toContain('student57');
    expect(await everything()).not.toContain('student64');
    // The next copy takes those along that held them, also the two that were kept.
    await school.send();
    expect((await school.line.copies()).filter((copy) => copy.kept)).toEqual([]);
  }, 60_000);

  it('a lost computer is forgotten by the secret: it gets nothing any more, and is told so', async () => {
    await home.sit(school);
    await home.take(id);
    const all = await home.line.computers();
    expect(all.map(({ name, here }) => [name, here]).sort()).toEqual([
      ['Home', true],
      ['School', false],
    ]);
    const lost = all.find(({ name }) => name === 'School');
    if (!lost) throw new Error('none');
    await expect(home.line.forgetComputer('WRONGSECRET12345', lost.id)).rejects.toMatchObject({
      why: 'wrongSecret',
    });
    await home.line.forgetComputer(secret, lost.id);
    expect((await home.line.computers()).map(({ name }) => name)).toEqual(['Home']);
    await expect(school.line.copies()).rejects.toMatchObject({ why: 'forgotten' });
    await expect(school.line.holds()).rejects.toMatchObject({ why: 'forgotten' });
    await expect(home.line.forgetComputer(secret, lost.id)).rejects.toMatchObject({ why: 'notFound' });
  });

  it('whoever is stopped while it is put in place takes it over again', async () => {
    await home.sit(school);
    await home.take(id);
    await renameSitting('tides', 'Tides at home', now());
    await home.send();
    await school.sit(home);
    await school.hear();
    const found = await findDesk(id, { line: school.line, now, patient: false });
    if ('fault' in found) throw new Error(found.fault.code);
    // The server has it here already; the tab was closed before it was in place.
    await desk.elsewhere.update('now', { why: 'taking' });
    await school.line.hold({
      ...{ act: 'take', deskId: id, computer: await thisComputer() },
      ...{ turn: found.hold?.turn ?? 0, copyAt: found.copy.at },
    });
    expect(await school.hear()).toMatchObject({ here: false });
    await school.take(id);
    expect(await school.hear()).toMatchObject({ here: true });
    expect(await titleOf('tides')).toBe('Tides at home');
  });
});
