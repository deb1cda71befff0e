import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { smallDemo } from '../../tests/unit/smallDemo';
import { at } from '../../tests/unit/samples';
import { fullName } from '@/core/model/names';
import { seatsOf } from '@/core/seats/seats';
import { replaceDesk } from './backup';
import { undo } from './command';
import { giveAllowance } from './exceptions';
import { copiesSince, forgetStudent, holdingsOf } from './forget';
import { markAnswers } from './marks';
import { sendMessages } from './outbox';
import { changeStudent } from './people';
import { sittingRecords } from './queries';
import { desk } from './tables';

const start = Date.parse(at);
const who = 'student64';

beforeEach(async () => {
  await desk.delete();
  await desk.open();
  await replaceDesk(smallDemo(start));
});

/** All that stands in the desk's database, as text; of files not their bytes. */
async function everything(): Promise<string> {
  const rows = await Promise.all(
    desk.tables.map(async (table) => [table.name, await table.toArray()] as const),
  );
  return JSON.stringify(Object.fromEntries(rows), (_, value: unknown) =>
    value instanceof Uint8Array ? null : value,
  );
}

const totals = async (sittingId: string) => {
  const records = await sittingRecords(sittingId);
  const seats = records ? seatsOf(records, start) : [];
  return new Map(seats.map(({ student, scorecard }) => [student.id, scorecard?.total]));
};

describe('a student who is forgotten', () => {
  it('is nowhere on the desk any more, not by name, number, address, code or id; of others nothing changes', async () => {
    const student = await desk.students.get(who);
    if (!student) throw new Error('no such student in the demo');
    // What the record of changes and other tables come to hold of somebody.
    await giveAllowance('tides', who, { kind: 'minutes', minutes: 5 }, 'a late bus', at);
    await sendMessages(
      'tides',
      [{ studentId: who, subject: 'Tides', text: `Dear ${student.givenName}` }],
      at,
    );
    await changeStudent({ ...student, email: 'somebody@example.org' }, at);
    const [attempt] = await desk.attempts.where({ studentId: who }).toArray();
    const questionId = attempt?.questionIds[0] ?? '';
    await markAnswers(
      { sittingId: attempt?.sittingId ?? '', questionId, attemptIds: [attempt?.id ?? ''] },
      { points: 1 },
      'Points given',
      at,
    );
    await desk.markBooks.toCollection().modify((book) => {
      for (const column of book.columns) {
        column.excused.push(who);
        if (column.kind === 'typed') column.values[who] = 3;
      }
    });
    const attempts = await desk.attempts.where({ studentId: who }).toArray();
    const sought = [
      ...[
        who,
        student.joinCode,
        `"${student.number}"`,
        student.email,
        'somebody@example.org',
        fullName(student),
      ],
      ...attempts.map(({ id }) => id),
    ].filter(Boolean);
    const before = await everything();
    expect(sought.filter((each) => !before.includes(each))).toEqual([]);
    const was = await totals('tides');
    expect(await holdingsOf(who)).toMatchObject({ attempts: attempts.length, messages: 1 });

    expect((await forgetStudent(who, at)).said).toBe('Student forgotten');

    const after = await everything();
    expect(sought.filter((each) => after.includes(each))).toEqual([]);
    was.delete(who);
    expect(await totals('tides')).toEqual(was);
    expect(await holdingsOf(who)).toEqual({ sittings: 0, attempts: 0, marks: 0, pages: 0, messages: 0 });
    // The pictures of their pages are gone with them, those of others are there.
    expect(await desk.assets.count()).toBeGreaterThan(0);
    expect((await undo(at)).outcome).toBe('nothing');
    expect(await copiesSince()).toBe(at);
  });

  it('takes nothing along that others did: it can still be undone', async () => {
    await giveAllowance('tides', 'student08', { kind: 'minutes', minutes: 5 }, 'a late bus', at);
    await forgetStudent(who, at);
    expect((await undo(at)).outcome).toBe('undone');
  });

  it('who is not there is said, and nothing happens', async () => {
    await expect(forgetStudent('nobody', at)).rejects.toThrow(/studentGone/);
    expect(await copiesSince()).toBeNull();
  });
});
