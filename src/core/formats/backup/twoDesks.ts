import isDeepEqual from 'fast-deep-equal';
import { deskTableNames, keyOfRow, type DeskTableName } from '../../model/desk';
import type { BackupFault, DeskRows } from './desk';
import { fieldOf, type AnyRows } from './deskPart';
import { piecesOf, unitOf, unitsChanged, type Unit } from './pieces';

/**
 * A desk that was changed on two computers, neither of which knew of the other: what differs, by sitting and paper, and the one
 * desk that is made of both as it was chosen.
 */

export type Side = 'here' | 'there';

/** What can be chosen by itself: a sitting, a paper, or what belongs to neither. */
export type Topic = `sittings/${string}` | `papers/${string}` | RestTopic;
export type RestTopic = keyof typeof restTopics;

/** What belongs to no sitting and no paper, by what a teacher would call it. */
const restTopics = {
  people: ['students', 'groups'],
  markBooks: ['markBooks', 'gradeTemplates'],
  bank: ['bank', 'commentBank', 'templates', 'messageTemplates'],
  settings: ['settings'],
} as const satisfies Record<string, readonly DeskTableName[]>;

const topicOfTable = new Map<string, RestTopic>(
  Object.entries(restTopics).flatMap(([topic, tables]) =>
    tables.map((table) => [table, topic as RestTopic] as const),
  ),
);

/** The topic a unit is shown under; null: it follows from the rest (files), or is history (the log). */
const topicOf = (unit: Unit): Topic | null =>
  unit.startsWith('rest/') ? (topicOfTable.get(unit.slice(5)) ?? null) : (unit as Topic); // it is a sitting or a paper

/** One side of a topic. */
export interface SideFacts {
  /** Whether it is there at all. */
  exists: boolean;
  /** Rows that the other side has otherwise or not at all, by table. */
  differing: Partial<Record<DeskTableName, number>>;
  /** When something in them was done last, as far as they say; null: they don't. */
  lastAt: string | null;
}

/** A topic that is not the same on both sides. */
export interface Difference {
  topic: Topic;
  /** Of a sitting or a paper; '' else. */
  title: string;
  here: SideFacts;
  there: SideFacts;
  /** Where it was changed since both were the same. */
  changed: Side | 'both';
  /** The paper that a sitting goes with: its answers are scored by a version that is not the same on both sides. */
  goesWith: Topic | null;
}

/** Whether it has to be asked which side is taken. */
export const isAsked = ({ changed }: Difference): boolean => changed === 'both';

/** Digests of the pieces of a desk by their keys. */
export type Digests = ReadonlyMap<string, string>;

export const digestsOf = async (rows: DeskRows): Promise<Digests> =>
  new Map((await piecesOf(rows)).map(({ key, digest }) => [key, digest]));

/**
 * What differs between two desks, the sittings first.
 *
 * @param base the pieces of the desk when it was the same on both; null: that is not known, and all that differs was changed on both
 */
export async function differencesOf(
  here: DeskRows,
  there: DeskRows,
  base: Digests | null,
): Promise<Difference[]> {
  const [mine, theirs] = [await digestsOf(here), await digestsOf(there)];
  const changedHere = base && topicsOf(unitsChanged(base, mine));
  const changedThere = base && topicsOf(unitsChanged(base, theirs));
  const rows = { here: byTopic(here), there: byTopic(there) };
  const clashing = papersClashing(here, there);
  const paperOf = new Map([...there.sittings, ...here.sittings].map(({ id, paperId }) => [id, paperId]));
  const found: Difference[] = [];
  for (const topic of topicsOf(unitsChanged(mine, theirs))) {
    const [onHere, onThere] = [rows.here.get(topic) ?? none, rows.there.get(topic) ?? none];
    const facts = { here: factsOf(topic, onHere, onThere), there: factsOf(topic, onThere, onHere) };
    if (isSame(facts.here) && isSame(facts.there)) continue;
    const paperId = topic.startsWith('sittings/') ? paperOf.get(topic.slice(9)) : undefined;
    const onlyHere = changedThere !== null && !changedThere.has(topic);
    const onlyThere = changedHere !== null && !changedHere.has(topic);
    found.push({
      ...{ topic, title: titleOf(topic, here) || titleOf(topic, there), ...facts },
      changed: onlyHere ? 'here' : onlyThere ? 'there' : 'both',
      goesWith: paperId !== undefined && clashing.has(paperId) ? `papers/${paperId}` : null,
    });
  }
  const place = ({ topic }: Difference) => ['sittings', 'papers'].indexOf(topic.split('/')[0] ?? '');
  return found.sort(
    (a, b) => ((place(a) + 3) % 3) - ((place(b) + 3) % 3) || a.title.localeCompare(b.title, 'en'),
  );
}

const topicsOf = (units: ReadonlySet<Unit>): Set<Topic> =>
  new Set([...units].flatMap((unit) => topicOf(unit) ?? []));

type TopicRows = ReadonlyMap<string, { table: DeskTableName; row: object }>;
const none: TopicRows = new Map();

/** The rows of every topic, by table and key. */
function byTopic(rows: DeskRows): Map<Topic, Map<string, { table: DeskTableName; row: object }>> {
  const all = new Map<Topic, Map<string, { table: DeskTableName; row: object }>>();
  for (const table of deskTableNames)
    for (const row of (rows as AnyRows)[table]) {
      const topic = topicOf(unitOf(table, row));
      if (topic === null) continue;
      const own = all.get(topic) ?? new Map<string, { table: DeskTableName; row: object }>();
      if (own.size === 0) all.set(topic, own);
      own.set(`${table} ${keyOfRow(table, row).join(' ')}`, { table, row });
    }
  return all;
}

const isSame = ({ differing }: SideFacts) => Object.keys(differing).length === 0;

function factsOf(topic: Topic, own: TopicRows, other: TopicRows): SideFacts {
  const differing: Partial<Record<DeskTableName, number>> = {};
  let lastAt: string | null = null;
  for (const [name, { table, row }] of own) {
    if (isDeepEqual(other.get(name)?.row, row)) continue;
    differing[table] = (differing[table] ?? 0) + 1;
    const at = lastOf(row);
    if (at !== null && (lastAt === null || at > lastAt)) lastAt = at;
  }
  const exists = topic.includes('/') ? own.has(`${topic.replace('/', ' ')}`) : own.size > 0;
  return { exists, differing, lastAt };
}

/** When a row was changed last, as far as it says. */
function lastOf(row: object): string | null {
  const all = ['changedAt', 'at', 'handedInAt', 'endedAt'].flatMap((field) => {
    const value = fieldOf(row, field);
    return typeof value === 'string' ? [value] : [];
  });
  return all.sort().at(-1) ?? null;
}

function titleOf(topic: Topic, { sittings, papers }: DeskRows): string {
  const [what, id] = topic.split('/');
  const all = what === 'sittings' ? sittings : what === 'papers' ? papers : [];
  return all.find((each) => each.id === id)?.title ?? '';
}

/** The papers of which the sides have another version under the same number. */
function papersClashing(here: DeskRows, there: DeskRows): Set<string> {
  const name = ({ paperId, version }: { paperId: string; version: number }) => `${paperId} ${version}`;
  const mine = new Map(here.paperVersions.map((row) => [name(row), row]));
  return new Set(
    there.paperVersions
      .filter((row) => mine.has(name(row)) && !isDeepEqual(mine.get(name(row)), row))
      .map(({ paperId }) => paperId),
  );
}

/**
 * One desk of two, as it was chosen. What a chosen sitting needs and the other side alone has comes along: its students, its
 * paper, versions of it, files. Students, comments and the like that are on one side alone stay, where both sides changed them.
 *
 * @param choices what is not in it is taken from there, unless it was changed here alone
 */
export function oneDesk(
  here: DeskRows,
  there: DeskRows,
  differences: readonly Difference[],
  choices: ReadonlyMap<Topic, Side>,
): DeskRows {
  const sides = new Map(differences.map((each) => [each.topic, sideOf(each, choices)]));
  const both = new Set(differences.filter(isAsked).map(({ topic }) => topic));
  const all = { here: here as AnyRows, there: there as AnyRows };
  // The record of changes cannot be made one: it is that of there, unless all is taken from here.
  const taken = [...sides.values()];
  const history: Side = taken.length > 0 && taken.every((side) => side === 'here') ? 'here' : 'there';
  const one = Object.fromEntries(
    deskTableNames.map((table) => {
      if (table === 'log' || table === 'logChanges') return [table, [...all[history][table]]];
      const rows = new Map<string, object>();
      const left = new Map<string, object>();
      for (const side of ['there', 'here'] as const)
        for (const row of all[side][table]) {
          const key = keyOfRow(table, row).join(' ');
          const topic = topicOf(unitOf(table, row));
          if (topic === null || (sides.get(topic) ?? 'there') === side) rows.set(key, row);
          else if (!topic.includes('/') && both.has(topic) && table !== 'settings') left.set(key, row);
        }
      for (const [key, row] of left) if (!rows.has(key)) rows.set(key, row);
      return [table, [...rows.values()]];
    }),
  ) as unknown as Record<DeskTableName, object[]>; // every table there is
  bringAlong(one, here, there);
  return one as unknown as DeskRows; // rows of both sides, table by table
}

/** From where a topic is taken. */
export function sideOf({ topic, changed, goesWith }: Difference, choices: ReadonlyMap<Topic, Side>): Side {
  const own = choices.get(topic) ?? (changed === 'here' ? 'here' : 'there');
  return goesWith === null ? own : (choices.get(goesWith) ?? own);
}

/** What is named and not there comes from the side that has it. */
function bringAlong(one: Record<DeskTableName, object[]>, here: DeskRows, there: DeskRows): void {
  const named = (table: DeskTableName, field: string) =>
    new Set(one[table].map((row) => String(fieldOf(row, field))));
  const bring = (table: DeskTableName, wanted: (row: object) => boolean) => {
    const known = new Set(one[table].map((row) => keyOfRow(table, row).join(' ')));
    for (const row of [...(there as AnyRows)[table], ...(here as AnyRows)[table]]) {
      const key = keyOfRow(table, row).join(' ');
      if (known.has(key) || !wanted(row)) continue;
      known.add(key);
      one[table].push(row);
    }
  };
  const papers = named('sittings', 'paperId');
  bring('papers', (row) => papers.has(String(fieldOf(row, 'id'))));
  const all = named('papers', 'id');
  bring('paperVersions', (row) => all.has(String(fieldOf(row, 'paperId'))));
  const students = new Set(
    deskTableNames.flatMap((table) =>
      table === 'students' ? [] : one[table].map((row) => String(fieldOf(row, 'studentId') ?? '')),
    ),
  );
  bring('students', (row) => students.has(String(fieldOf(row, 'id'))));
  const groups = new Set(
    [...one.sittings, ...one.students, ...one.markBooks].flatMap(
      (row) => (fieldOf(row, 'groupIds') as string[] | undefined) ?? [],
    ),
  );
  bring('groups', (row) => groups.has(String(fieldOf(row, 'id'))));
}

/** Why a desk can't be taken over from another computer. */
export type TakeOverFault =
  /** There is no copy of it on the server. */
  | { code: 'nothingThere' }
  /** Another computer took it at the same moment, or a newer copy of it came. */
  | { code: 'takenElsewhere' }
  | BackupFault;
