// @vitest-environment node
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { buildDemo } from '@demo/buildDemo';
import { deskTableNames, keyOfRow, type DeskTableName } from '../../model/desk';
import { checkedDesk, contentOf, DeskRows } from './desk';
import { partOf } from './deskPart';
import { joinOf, planOf, type ClashChoice, type PartJoin } from './joinPart';

const savedAt = '2026-11-23T10:00:00.000Z';
const whole = contentOf(buildDemo(Date.parse(savedAt))).rows;
const empty = Object.fromEntries(deskTableNames.map((table) => [table, []])) as unknown as DeskRows;
const part = partOf(whole, new Set(['tides']));

let made = 0;
const kit = {
  newId: () => `made${++made}`,
  newCode: () => `CODE${++made}`,
  copyTitle: (title: string) => `${title} (copy)`,
};

type Rows = Record<DeskTableName, object[]>;

/** A desk after a part was taken in, as the store does it. */
function applied(here: DeskRows, { add, put, remove }: PartJoin, files: DeskRows): DeskRows {
  const rows = structuredClone(here) as unknown as Rows;
  const at = (table: DeskTableName, key: string[]) =>
    rows[table].findIndex((row) => keyOfRow(table, row).join(' ') === key.join(' '));
  for (const { table, key } of remove) rows[table].splice(at(table, key), 1);
  for (const { table, row } of put) {
    const place = at(table, keyOfRow(table, row));
    if (place < 0) rows[table].push(row);
    else rows[table][place] = row;
  }
  for (const [table, more] of Object.entries(add)) rows[table as DeskTableName].push(...more);
  const known = new Set(here.assets.map(({ id }) => id));
  rows.assets.push(...files.assets.filter(({ id }) => !known.has(id)));
  return rows as unknown as DeskRows;
}

const taken = (here: DeskRows, from: DeskRows, choices: Record<string, ClashChoice> = {}) =>
  applied(here, joinOf(here, from, new Map(Object.entries(choices)), kit), from);

const byKey = (rows: DeskRows, table: DeskTableName) =>
  new Map(rows[table].map((row) => [keyOfRow(table, row).join(' '), row]));

const isDesk = (rows: DeskRows) => checkedDesk({ savedAt, tables: rows }, DeskRows, false);

/** The part with one mark and the title changed. */
function changedPart(): DeskRows {
  const other = structuredClone(part);
  const [mark] = other.marks;
  if (!mark) throw new Error('there are marks');
  mark.comment = 'Said on another desk';
  return other;
}

describe('one sitting out of a desk', () => {
  it('is a desk by itself: its sitting, what hangs on it, and nothing of another one', () => {
    expect(isDesk(part)).not.toHaveProperty('fault');
    expect(part.sittings.map(({ id }) => id)).toEqual(['tides']);
    expect(part.attempts.length).toBe(whole.attempts.filter(({ sittingId }) => sittingId === 'tides').length);
    expect(part.marks.length).toBe(whole.marks.filter(({ sittingId }) => sittingId === 'tides').length);
    expect(part.students.length).toBeGreaterThan(20);
    expect([part.log, part.settings, part.bank, part.templates].map(({ length }) => length)).toEqual([
      ...[0, 0, 0, 0],
    ]);
    const groups = new Set(part.groups.map(({ id }) => id));
    expect(part.students.every(({ groupIds }) => groupIds.every((id) => groups.has(id)))).toBe(true);
  });

  it('of all sittings is the whole course, with its mark book and its files', () => {
    const all = partOf(whole, new Set(whole.sittings.map(({ id }) => id)));
    for (const table of [
      'sittings',
      'attempts',
      'marks',
      'students',
      'markBooks',
      'scans',
      'prints',
    ] as const)
      expect(all[table].length, table).toBe(whole[table].length);
    expect(isDesk(all)).not.toHaveProperty('fault');
  });

  it('taken into an empty desk is there as it was', () => {
    expect(planOf(empty, part).clashes).toEqual([]);
    const after = taken(empty, part);
    for (const table of deskTableNames)
      if (table !== 'assets') expect(byKey(after, table), table).toEqual(byKey(part, table));
  });

  it('taken into the desk it came from changes nothing', () => {
    const plan = planOf(whole, part);
    expect(plan.clashes).toEqual([]);
    expect(plan.same).toMatchObject({ sittings: 1, papers: 1, students: part.students.length });
    expect(joinOf(whole, part, new Map(), kit)).toEqual({ add: {}, put: [], remove: [] });
  });
});

describe('a sitting that both desks have otherwise', () => {
  const other = changedPart();

  it('is named with how much differs', () => {
    expect(planOf(whole, other).clashes).toMatchObject([
      { id: 'tides', what: 'sittings', is: 'changed', differing: 1, choices: ['both', 'mine', 'theirs'] },
    ]);
  });

  it('comes as a copy unless something else is chosen, and what is here stays as it is', () => {
    const after = taken(whole, other);
    expect(isDesk(after)).not.toHaveProperty('fault');
    for (const table of ['sittings', 'attempts', 'marks', 'releases'] as const)
      expect(after[table].slice(0, whole[table].length)).toEqual(whole[table]);
    const copy = after.sittings.at(-1);
    expect(copy?.title).toMatch(/\(copy\)$/);
    const own = after.marks.filter(({ sittingId }) => sittingId === copy?.id);
    expect(own.length).toBe(other.marks.length);
    expect(own.some(({ comment }) => comment === 'Said on another desk')).toBe(true);
    expect(after.papers.length).toBe(whole.papers.length);
  });

  it('is left as it is here, or becomes what it is in the file', () => {
    expect(taken(whole, other, { tides: 'mine' })).toEqual(whole);
    const after = taken(whole, other, { tides: 'theirs' });
    expect(new Set(after.marks)).toEqual(
      new Set([...whole.marks.filter(({ sittingId }) => sittingId !== 'tides'), ...other.marks]),
    );
    expect(after.attempts.length).toBe(whole.attempts.length);
  });
});

it('when a group or a paper was made says nothing: it is the same', () => {
  const other = structuredClone(part);
  for (const row of [...other.groups, ...other.papers]) row.createdAt = '2026-01-01T00:00:00.000Z';
  expect(planOf(whole, other).clashes).toEqual([]);
});

describe('people whom both desks know', () => {
  /** The same class as another desk has it: with ids and codes of its own. */
  function elsewhere(): DeskRows {
    const text = JSON.stringify({ ...part, assets: [] });
    const shared: DeskTableName[] = ['groups', 'papers', 'assets', 'commentBank'];
    const ids = new Set(
      deskTableNames.flatMap((table) =>
        shared.includes(table) ? [] : part[table].flatMap((row) => ('id' in row ? [row.id] : [])),
      ),
    );
    const renamed = text.replaceAll(/"((?:[^"\\]|\\.)*)"/g, (all, id: string) =>
      ids.has(id) ? `"their-${id}"` : all,
    );
    return { ...(JSON.parse(renamed) as DeskRows), assets: part.assets };
  }

  it('are found by their number, and their answers become those of the student who is here', () => {
    const theirs = elsewhere();
    const { clashes } = planOf(whole, theirs);
    const people = clashes.filter(({ what }) => what === 'students');
    expect(people.length).toBe(part.students.filter(({ number, email }) => number || email).length);
    expect(people.every(({ is, id, hereId }) => is === 'namesake' && id === `their-${hereId}`)).toBe(true);
    const after = taken(whole, theirs);
    expect(isDesk(after)).not.toHaveProperty('fault');
    expect(after.students.length).toBe(whole.students.length + part.students.length - people.length);
    const known = new Set(whole.students.map(({ id }) => id));
    const fresh = after.attempts.filter(({ sittingId }) => sittingId === 'their-tides');
    expect(fresh.length).toBe(part.attempts.length);
    expect(fresh.every(({ studentId }) => known.has(studentId))).toBe(true);
  });

  it('can be others all the same: both are kept, each with a code that nobody else has', () => {
    const theirs = elsewhere();
    const choices = Object.fromEntries(
      planOf(whole, theirs).clashes.map(({ id }) => [id, 'both' as ClashChoice]),
    );
    const after = taken(whole, theirs, choices);
    expect(after.students.length).toBe(whole.students.length + part.students.length);
    expect(new Set(after.students.map(({ joinCode }) => joinCode)).size).toBe(after.students.length);
  });
});

describe('whatever is chosen', () => {
  it('the desk is whole afterwards, and nothing of it is lost that was not given up', () => {
    const other = changedPart();
    const [paper] = other.papers;
    const [student] = other.students;
    const [version] = other.paperVersions;
    if (!paper || !student || !version) throw new Error('there are rows');
    paper.title = 'Changed elsewhere';
    student.familyName = 'Otherwise';
    version.title = 'Another version';
    const { clashes } = planOf(whole, other);
    expect(clashes.map(({ what }) => what).sort()).toEqual(['papers', 'sittings', 'students']);
    // A version that is not the same is never put in place of the one that is here.
    expect(clashes.find(({ what }) => what === 'papers')?.choices).toEqual(['both']);
    fc.assert(
      fc.property(fc.array(fc.nat(2), { minLength: clashes.length, maxLength: clashes.length }), (picks) => {
        const choices = Object.fromEntries(
          clashes.map(({ id, choices: can }, at) => [id, can[(picks[at] ?? 0) % can.length] ?? can[0]]),
        );
        const after = taken(whole, other, choices);
        expect(isDesk(after)).not.toHaveProperty('fault');
        expect(after.paperVersions.slice(0, whole.paperVersions.length)).toEqual(whole.paperVersions);
        const others = (rows: DeskRows) => rows.attempts.filter(({ sittingId }) => sittingId !== 'tides');
        expect(others(after).slice(0, others(whole).length)).toEqual(others(whole));
      }),
      { numRuns: 12 },
    );
  });
});
