import isDeepEqual from 'fast-deep-equal';
import { deskTableNames, keyOfRow, tableEntry, type DeskTableName } from '../../model/desk';
import { fullName } from '../../model/names';
import type { Group, Student } from '../../model/people';
import type { DeskRows } from './desk';
import { fieldOf, type AnyRows } from './deskPart';

/** Takes a part of another desk into this one: what is new comes in, what is the same stays, what clashes is asked. */

/** Which of two is taken: the one that is here, the one in the file, or both, the file's as one of its own. */
export type ClashChoice = 'mine' | 'theirs' | 'both';

/** Something in the file that this desk has otherwise. */
export interface PartClash {
  /** Of the one in the file. */
  id: string;
  what: 'groups' | 'students' | 'papers' | 'sittings' | 'markBooks';
  /** The same thing that says something else, or another one that seems to be the same. */
  is: 'changed' | 'namesake';
  /** The one that is here. */
  hereId: string;
  here: string;
  theirs: string;
  /** Of a sitting: how many rows differ. */
  differing: number;
  /** What can be chosen; the first is what loses nothing. */
  choices: readonly [ClashChoice, ...ClashChoice[]];
}

/** What taking a part in would do. */
export interface PartPlan {
  /** How many are new here. */
  fresh: Record<PartClash['what'], number>;
  /** How many are here already, and the same. */
  same: Record<PartClash['what'], number>;
  clashes: PartClash[];
}

const asked = ['groups', 'students', 'papers', 'sittings', 'markBooks'] as const;

/** What is new, the same, and otherwise here than in a part. */
export function planOf(here: DeskRows, part: DeskRows): PartPlan {
  const plan: PartPlan = { fresh: zeros(), same: zeros(), clashes: [] };
  const sittingRows = { here: rowsBySitting(here), part: rowsBySitting(part) };
  for (const what of asked) {
    const known = new Map(here[what].map((row) => [row.id, row]));
    for (const theirs of part[what]) {
      const mine = known.get(theirs.id);
      const clash = mine
        ? changedClash(what, mine, theirs, here, part, sittingRows)
        : namesakeClash(what, theirs, here);
      if (clash) plan.clashes.push(clash);
      else if (mine) plan.same[what]++;
      else plan.fresh[what]++;
    }
  }
  return plan;
}

const zeros = () => ({ groups: 0, students: 0, papers: 0, sittings: 0, markBooks: 0 });

type Named = DeskRows[PartClash['what']][number];

const nameOf = (row: Named): string =>
  'familyName' in row ? fullName(row) : 'name' in row ? row.name : row.title;

function changedClash(
  what: PartClash['what'],
  mine: Named,
  theirs: Named,
  here: DeskRows,
  part: DeskRows,
  sittingRows: Record<'here' | 'part', ReadonlyMap<string, OwnedRows>>,
): PartClash | null {
  const found = {
    id: theirs.id,
    what,
    is: 'changed',
    hereId: mine.id,
    here: nameOf(mine),
    theirs: nameOf(theirs),
  } as const;
  if (what === 'sittings') {
    const differing =
      differingRows(sittingRows.here.get(mine.id), sittingRows.part.get(theirs.id)) +
      (isDeepEqual(mine, theirs) ? 0 : 1);
    return differing === 0 ? null : { ...found, differing, choices: ['both', 'mine', 'theirs'] };
  }
  if (what === 'papers' && versionsClash(here, part, mine.id))
    return { ...found, differing: 0, choices: ['both'] };
  if (isDeepEqual(compared(what, mine), compared(what, theirs))) return null;
  const choices =
    what === 'papers' || what === 'markBooks'
      ? (['both', 'mine', 'theirs'] as const)
      : (['mine', 'theirs'] as const);
  return { ...found, differing: 0, choices: [...choices] };
}

/** In which groups a student is follows from both desks; when something was made or touched says nothing of what it is. */
function compared(what: PartClash['what'], row: Named): object {
  if (what === 'students') return { ...row, groupIds: [] };
  return { ...row, createdAt: '', changedAt: '' };
}

/** A version that both have, and that is not the same: its answers would be scored by another paper. */
const versionsClash = (here: DeskRows, part: DeskRows, paperId: string): boolean => {
  const mine = new Map(
    here.paperVersions.flatMap((each) => (each.paperId === paperId ? [[each.version, each] as const] : [])),
  );
  return part.paperVersions.some((theirs) => {
    const same = theirs.paperId === paperId ? mine.get(theirs.version) : undefined;
    return same !== undefined && !isDeepEqual(same, theirs);
  });
};

function namesakeClash(what: PartClash['what'], theirs: Named, here: DeskRows): PartClash | null {
  const mine =
    what === 'students'
      ? samePerson(theirs as Student, here.students)
      : what === 'groups'
        ? here.groups.find(({ name }) => name === (theirs as Group).name)
        : undefined;
  if (!mine) return null;
  return {
    ...{ id: theirs.id, what, is: 'namesake', hereId: mine.id, here: nameOf(mine), theirs: nameOf(theirs) },
    ...{ differing: 0, choices: ['mine', 'both'] },
  };
}

/** By number, by email, or by a name where one of the two has neither. */
function samePerson(theirs: Student, here: readonly Student[]): Student | undefined {
  const named = (each: Student) =>
    fullName(each).toLocaleLowerCase() === fullName(theirs).toLocaleLowerCase();
  return (
    here.find(({ number }) => number !== '' && number === theirs.number) ??
    here.find(({ email }) => email !== '' && email.toLowerCase() === theirs.email.toLowerCase()) ??
    here.find((each) => named(each) && (each.number === '' || theirs.number === ''))
  );
}

type OwnedRows = ReadonlyMap<string, object>;

/** The rows that hang on each sitting, by table and key. */
function rowsBySitting(rows: AnyRows): Map<string, Map<string, object>> {
  const all = new Map<string, Map<string, object>>();
  for (const table of ownedTables)
    for (const row of rows[table]) {
      const id = sittingOf(table, row);
      const own = all.get(id) ?? new Map<string, object>();
      own.set(`${table} ${keyOfRow(table, row).join(' ')}`, row);
      all.set(id, own);
    }
  return all;
}

const ownedTables = deskTableNames.filter(
  (table) => table !== 'students' && tableEntry(table).owners?.sittings !== undefined,
);
const sittingOf = (table: DeskTableName, row: object) =>
  String(fieldOf(row, tableEntry(table).owners?.sittings ?? ''));

function differingRows(mine: OwnedRows = new Map(), theirs: OwnedRows = new Map()): number {
  const keys = new Set([...mine.keys(), ...theirs.keys()]);
  return [...keys].filter((key) => !isDeepEqual(mine.get(key), theirs.get(key))).length;
}

/** What has to be done to this desk: rows added, put in place of what is here, and taken away. */
export interface PartJoin {
  add: Partial<Record<DeskTableName, object[]>>;
  put: { table: DeskTableName; row: object }[];
  remove: { table: DeskTableName; key: string[] }[];
}

/** What copies need: ids and codes that nobody has, and what a copy is called. */
export interface JoinKit {
  newId: () => string;
  newCode: (taken: Set<string>) => string;
  copyTitle: (title: string) => string;
}

/**
 * The changes that take a part in as it was chosen.
 *
 * @param choices by the id of the clash; what is not chosen is taken so that nothing is lost
 */
export function joinOf(
  here: DeskRows,
  part: DeskRows,
  choices: ReadonlyMap<string, ClashChoice>,
  kit: JoinKit,
): PartJoin {
  const { clashes } = planOf(here, part);
  const chosen = new Map(clashes.map((clash) => [clash.id, choices.get(clash.id) ?? clash.choices[0]]));
  const clashOf = new Map(clashes.map((clash) => [clash.id, clash]));
  const join: PartJoin = { add: {}, put: [], remove: [] };

  // Who is the same under another id has that id everywhere; a copied paper has one of its own.
  const ids = new Map<string, string>();
  for (const clash of clashes) {
    const choice = chosen.get(clash.id);
    if (clash.is === 'namesake' && choice === 'mine') ids.set(clash.id, clash.hereId);
    if (clash.is === 'changed' && choice === 'both' && clash.what !== 'sittings')
      ids.set(clash.id, kit.newId());
  }
  const renamed = idsChanged(part, ids);
  for (const what of ['groups', 'papers', 'markBooks'] as const)
    for (const [at, row] of renamed[what].entries()) {
      const clash = clashOf.get(part[what][at]?.id ?? '');
      if (!clash) addRow(join, what, row, here);
      else if (clash.is === 'namesake' && chosen.get(clash.id) === 'mine') continue;
      else if (chosen.get(clash.id) === 'theirs') join.put.push({ table: what, row });
      else if (chosen.get(clash.id) === 'both')
        addRow(
          join,
          what,
          clash.is === 'changed' && 'title' in row ? { ...row, title: kit.copyTitle(row.title) } : row,
          here,
        );
    }
  joinStudents(join, here, part, renamed, { clashOf, chosen }, kit);
  joinSittings(join, here, renamed, { clashOf, chosen }, kit);
  const versions = new Set(here.paperVersions.map((row) => keyOfRow('paperVersions', row).join(' ')));
  for (const row of renamed.paperVersions)
    if (!versions.has(keyOfRow('paperVersions', row).join(' '))) addRow(join, 'paperVersions', row, here);
  const comments = new Set(here.commentBank.map(({ id }) => id));
  for (const row of renamed.commentBank) if (!comments.has(row.id)) addRow(join, 'commentBank', row, here);
  return join;
}

interface Chosen {
  clashOf: ReadonlyMap<string, PartClash>;
  chosen: ReadonlyMap<string, ClashChoice>;
}

/** Adds a row, unless the desk has it as it is. */
function addRow(join: PartJoin, table: DeskTableName, row: object, here: AnyRows): void {
  const id = fieldOf(row, 'id');
  if (tableEntry(table).key.join() === 'id' && here[table].some((each) => fieldOf(each, 'id') === id)) return;
  (join.add[table] ??= []).push(row);
}

function joinStudents(
  join: PartJoin,
  here: DeskRows,
  part: DeskRows,
  renamed: DeskRows,
  { clashOf, chosen }: Chosen,
  { newCode }: JoinKit,
): void {
  const mine = new Map(here.students.map((student) => [student.id, student]));
  const codes = new Set(here.students.map(({ joinCode }) => joinCode));
  for (const [at, student] of renamed.students.entries()) {
    const clash = clashOf.get(part.students[at]?.id ?? '');
    const own = mine.get(student.id);
    if (!own) {
      const joinCode = codes.has(student.joinCode) ? newCode(codes) : student.joinCode;
      codes.add(joinCode);
      (join.add.students ??= []).push({ ...student, joinCode });
      continue;
    }
    const kept =
      clash?.is === 'changed' && chosen.get(clash.id) === 'theirs'
        ? { ...student, joinCode: own.joinCode }
        : own;
    const next = { ...kept, groupIds: [...new Set([...own.groupIds, ...student.groupIds])] };
    if (!isDeepEqual(next, own)) join.put.push({ table: 'students', row: next });
  }
}

function joinSittings(
  join: PartJoin,
  here: DeskRows,
  renamed: DeskRows,
  { clashOf, chosen }: Chosen,
  { newId, copyTitle }: JoinKit,
): void {
  const mine = rowsBySitting(here);
  const theirs = rowsBySitting(renamed);
  const known = new Set(here.sittings.map(({ id }) => id));
  for (const sitting of renamed.sittings) {
    const clash = clashOf.get(sitting.id);
    const choice = clash && chosen.get(clash.id);
    const own = theirs.get(sitting.id) ?? new Map<string, object>();
    if (known.has(sitting.id) && (!clash || choice === 'mine')) continue;
    if (choice === 'theirs') {
      for (const [name, row] of mine.get(sitting.id) ?? [])
        if (!own.has(name)) {
          const table = tableNamed(name);
          join.remove.push({ table, key: keyOfRow(table, row) });
        }
      join.put.push({ table: 'sittings', row: sitting });
      for (const [name, row] of own) join.put.push({ table: tableNamed(name), row });
      continue;
    }
    const rows = [...own].map(([name, row]) => ({ table: tableNamed(name), row }));
    const ids = new Map<string, string>();
    if (choice === 'both') {
      ids.set(sitting.id, newId());
      for (const { table, row } of rows)
        if (tableEntry(table).key.join() === 'id') ids.set(String(fieldOf(row, 'id')), newId());
    }
    const copy = idsIn(sitting, ids);
    (join.add.sittings ??= []).push(choice === 'both' ? { ...copy, title: copyTitle(copy.title) } : copy);
    for (const { table, row } of rows) (join.add[table] ??= []).push(idsIn(row, ids));
  }
}

const tableNamed = (name: string): DeskTableName => name.slice(0, name.indexOf(' ')) as DeskTableName; // as it was put together

/** Rows in which every id that is known by another one has that one, also where it names a field. */
const idsChanged = (rows: DeskRows, ids: ReadonlyMap<string, string>): DeskRows =>
  ids.size === 0 ? rows : { ...idsIn({ ...rows, assets: [] }, ids), assets: rows.assets };

function idsIn<T>(value: T, ids: ReadonlyMap<string, string>): T {
  const walk = (each: unknown): unknown => {
    if (typeof each === 'string') return ids.get(each) ?? each;
    if (Array.isArray(each)) return each.map(walk);
    if (each === null || typeof each !== 'object') return each;
    return Object.fromEntries(
      Object.entries(each).map(([name, inside]) => [ids.get(name) ?? name, walk(inside)]),
    );
  };
  // The same shape: texts became other texts.
  return ids.size === 0 ? value : (walk(value) as T);
}
