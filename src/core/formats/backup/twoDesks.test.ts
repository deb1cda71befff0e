import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { smallDemo } from '../../../../tests/unit/smallDemo';
import { deskTableNames, keyOfRow } from '../../model/desk';
import { checkedDesk, contentOf, DeskRows } from '.';
import { piecesOf, rowsByTable, rowsOfPieces, unitOfPiece, unitsChanged } from './pieces';
import { differencesOf, digestsOf, oneDesk, type Side, type Topic } from './twoDesks';

const at = '2026-11-26T12:00:00.000Z';
const demo = contentOf(smallDemo(Date.parse(at))).rows;
const copy = (rows: DeskRows): DeskRows => structuredClone(rows);

/** Things a teacher does on one of two computers, by what it touches. */
const acts: Record<string, (rows: DeskRows, who: string) => void> = {
  'sittings/tides': ({ marks }, who) => {
    const mark = marks.find(({ sittingId }) => sittingId === 'tides');
    if (mark) mark.comment = `From ${who}`;
  },
  'sittings/lights': ({ sittings }, who) => {
    for (const each of sittings) if (each.id === 'lights') each.title = `Lights, ${who}`;
  },
  'papers/paper-weather': ({ papers }, who) => {
    for (const each of papers) if (each.id === 'paper-weather') each.title = `Weather, ${who}`;
  },
  people: ({ groups, students }, who) => {
    const [group] = groups;
    const [student] = students;
    if (group && student) {
      groups.push({ ...group, id: `group-${who}`, name: `Of ${who}` });
      students.push({
        ...student,
        id: `student-${who}`,
        joinCode: who === 'here' ? 'HERE23' : 'THERE2',
        number: who,
        email: '',
      });
    }
  },
};
const names = Object.keys(acts) as Topic[];

describe('pieces of a desk', () => {
  it('have all rows in them, and are the same for the same rows', async () => {
    const pieces = await piecesOf(demo);
    const read = rowsOfPieces(pieces.map(({ text }) => text));
    expect(rowsByTable(pieces.flatMap(({ rows }) => rows))).toEqual(read);
    for (const table of deskTableNames) {
      const sorted = (rows: readonly object[]) =>
        rows.map((row) => JSON.stringify([keyOfRow(table, row), row])).sort();
      expect(sorted(read[table])).toEqual(sorted(demo[table]));
    }
    expect(await piecesOf(copy(demo))).toEqual(pieces);
    expect(new Set(pieces.map(({ key }) => key)).size).toBe(pieces.length);
    // Large units are cut, so that a change of one row does not move all of it.
    expect(Math.max(...pieces.map(({ text }) => text.length))).toBeLessThan(1_000_000);
  });

  it('one mark changes one piece', async () => {
    const changed = copy(demo);
    acts['sittings/tides']?.(changed, 'home');
    const [before, after] = [await digestsOf(demo), await digestsOf(changed)];
    const other = [...after].filter(([key, digest]) => before.get(key) !== digest).map(([key]) => key);
    expect(other.map(unitOfPiece)).toEqual(['sittings/tides']);
    expect([...unitsChanged(before, after)]).toEqual(['sittings/tides']);
  });
});

describe('a desk that was changed on two computers', () => {
  it('whatever was done where: each difference is told once, and what is chosen is what is taken', async () => {
    const some = fc.subarray(names);
    await fc.assert(
      fc.asyncProperty(
        some,
        some,
        fc.array(fc.constantFrom<Side>('here', 'there'), { minLength: 4, maxLength: 4 }),
        async (here, there, sides) => {
          const [mine, theirs] = [copy(demo), copy(demo)];
          for (const name of here) acts[name]?.(mine, 'here');
          for (const name of there) acts[name]?.(theirs, 'there');
          const found = await differencesOf(mine, theirs, await digestsOf(demo));
          expect(new Set(found.map(({ topic }) => topic))).toEqual(new Set([...here, ...there]));
          for (const { topic, changed } of found)
            expect(changed).toBe(here.includes(topic) ? (there.includes(topic) ? 'both' : 'here') : 'there');
          const choices = new Map(names.map((topic, index) => [topic, sides[index] ?? 'there'] as const));
          const open = new Map(
            found
              .filter(({ changed }) => changed === 'both')
              .map(({ topic }) => [topic, choices.get(topic) ?? 'there'] as const),
          );
          const one = oneDesk(mine, theirs, found, open);
          expect(checkedDesk({ savedAt: at, tables: one }, DeskRows, false)).not.toHaveProperty('fault');
          // Held against each side: nothing differs but what was taken from the other one.
          for (const { topic } of await differencesOf(one, mine, null))
            if (topic !== 'people') {
              const taken = open.get(topic) ?? (here.includes(topic) ? 'here' : 'there');
              expect(taken).toBe('there');
            }
          // New students and groups of both stay, whichever side is taken.
          for (const who of [here.includes('people') && 'here', there.includes('people') && 'there'])
            if (who) expect(one.students.some(({ id }) => id === `student-${who}`)).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  }, 120_000);

  it('the same on both sides, nothing is told', async () => {
    expect(await differencesOf(demo, copy(demo), null)).toEqual([]);
  });

  it('where it is not known what both had, all that differs is asked', async () => {
    const mine = copy(demo);
    acts['sittings/lights']?.(mine, 'here');
    expect((await differencesOf(mine, demo, null)).map(({ topic, changed }) => [topic, changed])).toEqual([
      ['sittings/lights', 'both'],
    ]);
  });

  it('a sitting that was deleted on the other side is there or not, as chosen', async () => {
    const theirs = copy(demo);
    theirs.sittings = theirs.sittings.filter(({ id }) => id !== 'tides');
    for (const table of [
      'attempts',
      'marks',
      'releases',
      'allowances',
      'openings',
      'outbox',
      'piles',
      'repairs',
      'releasePlans',
      'grades',
      'requests',
      'shares',
      'scans',
      'prints',
    ] as const)
      (theirs[table] as { sittingId: string }[]) = (theirs[table] as { sittingId: string }[]).filter(
        ({ sittingId }) => sittingId !== 'tides',
      );
    const found = await differencesOf(demo, theirs, null);
    const [only] = found;
    expect(only).toMatchObject({ topic: 'sittings/tides', there: { exists: false }, here: { exists: true } });
    const take = (side: Side) => oneDesk(demo, theirs, found, new Map([['sittings/tides', side]]));
    expect(take('here').attempts.some(({ sittingId }) => sittingId === 'tides')).toBe(true);
    expect(take('there').attempts.some(({ sittingId }) => sittingId === 'tides')).toBe(false);
    for (const side of ['here', 'there'] as const)
      expect(checkedDesk({ savedAt: at, tables: take(side) }, DeskRows, false)).not.toHaveProperty('fault');
  });

  it('what a sitting needs comes along: its students, its paper, and the versions it is scored by', async () => {
    const [mine, theirs] = [copy(demo), copy(demo)];
    // There the student was deleted for good; here the student sat meanwhile.
    const attempt = mine.attempts.find(({ sittingId }) => sittingId === 'lights');
    const gone = attempt?.studentId ?? '';
    theirs.students = theirs.students.filter(({ id }) => id !== gone);
    for (const table of ['attempts', 'releases', 'allowances', 'openings', 'outbox', 'requests'] as const)
      (theirs[table] as { studentId: string }[]) = (theirs[table] as { studentId: string }[]).filter(
        ({ studentId }) => studentId !== gone,
      );
    const left = new Set(theirs.attempts.map(({ id }) => id));
    theirs.marks = theirs.marks.filter(({ attemptId }) => left.has(attemptId));
    for (const each of mine.marks) if (each.sittingId === 'lights') each.comment = 'Here';
    const found = await differencesOf(mine, theirs, null);
    const choices = new Map<Topic, Side>(
      found.map(({ topic }) => [topic, topic === 'people' ? 'there' : 'here']),
    );
    const one = oneDesk(mine, theirs, found, choices);
    expect(checkedDesk({ savedAt: at, tables: one }, DeskRows, false)).not.toHaveProperty('fault');
    expect(one.students.some(({ id }) => id === gone)).toBe(true);
  });

  it('two versions under one number tie a sitting to its paper', async () => {
    const [mine, theirs] = [copy(demo), copy(demo)];
    const paperId = mine.sittings.find(({ id }) => id === 'lights')?.paperId ?? '';
    for (const [rows, who] of [
      [mine, 'here'],
      [theirs, 'there'],
    ] as const) {
      for (const each of rows.paperVersions) if (each.paperId === paperId) each.instructions = who;
      acts['sittings/lights']?.(rows, who);
    }
    const found = await differencesOf(mine, theirs, await digestsOf(demo));
    const sitting = found.find(({ topic }) => topic === 'sittings/lights');
    expect(sitting?.goesWith).toBe(`papers/${paperId}`);
    const one = oneDesk(
      mine,
      theirs,
      found,
      new Map<Topic, Side>([
        [`papers/${paperId}`, 'here'],
        ['sittings/lights', 'there'],
      ]),
    );
    expect(one.sittings.find(({ id }) => id === 'lights')?.title).toBe('Lights, here');
    expect(one.paperVersions.find((each) => each.paperId === paperId)?.instructions).toBe('here');
  });
});
