import type { RangeSet } from 'dexie';
import {
  mailboxKeys,
  keyText,
  type MailboxChange,
  type MailboxRow,
  type MailboxTable,
} from '@/core/exchange/mailbox';
import { withoutKeys } from '@/core/formats/packet/paper';
import { assetsIn } from '@/core/basics/fileRules';
import type { PaperVersion } from '@/core/model/paper';
import type { Sealed } from '@/core/formats/packet/sealed';
import type { ScriptPacket } from '@/core/handback/script';
import type { Student } from '@/core/model/people';
import type { Allowance, Sitting } from '@/core/model/sitting';
import { everLetOut, stagesOf, type Invites, type Release, type ReleaseStage } from '@/core/model/release';
import { scriptFor } from '@/core/exchange';
import { deskRepository } from '@/store/deskRepository';
import { keysIn } from '@/store/changes';
import { studentsOf } from '@/store/takingPart';
import { desk } from '../store/tables';

/** What should lie in the server's mailbox, as the desk stands. */

/** Seals a text so that only the server opens it, which has the same secret. */
export type Seal = (text: string) => Promise<Sealed>;

/** A row with the key it lies under. */
export interface WantedRow {
  key: string;
  /** What it is put there as; made only when it has to be. */
  change: () => Promise<MailboxChange>;
  /** What its digest is made of. */
  text: string;
}

function wanted<T extends MailboxTable>(table: T, row: MailboxRow<T>): WantedRow {
  const key = `${table}/${keyText(mailboxKeys[table](row))}`;
  // The table and its row belong together, which the types of a union cannot say.
  return { key, change: async () => ({ table, row }) as unknown as MailboxChange, text: JSON.stringify(row) };
}

/** The sittings that students come into on their own devices. */
export const sittingsOnDevices = () => desk.sittings.filter(({ onDevices }) => onDevices === true).toArray();

/**
 * Every row that should lie in the mailbox, but for attempts and scripts.
 *
 * @param seal seals a text for the server alone
 */
export async function rowsForMailbox(
  sittings: readonly Sitting[],
  seal: Seal,
): Promise<{ rows: WantedRow[]; files: string[] }> {
  const rows: WantedRow[] = [];
  const files = new Set<string>();
  const groups = await desk.groups.bulkGet([...new Set(sittings.flatMap(({ groupIds }) => groupIds))]);
  for (const group of groups) if (group) rows.push(wanted('groups', group));
  for (const student of await studentsOf(sittings)) rows.push(studentRow(student));
  for (const sitting of sittings) {
    for (const paper of await papersOf(sitting)) {
      rows.push(wanted('papers', withoutKeys(paper)));
      // Who sees at once how it went is scored there: with the key, which goes along sealed.
      if (sitting.after || sitting.practice) rows.push(sealedRow(paper, seal));
      for (const id of assetsIn([paper])) files.add(id);
    }
    for (const id of await pagesHandedBack(sitting.id)) files.add(id);
    // The access code lies there sealed, the reasons of exceptions not at all. It goes first: at no moment may a sitting
    // stand there that asks for no code.
    if (sitting.accessCode) rows.push(sealedCode(sitting, seal));
    rows.push(wanted('sittings', { ...sitting, accessCode: '' }));
    for (const allowance of await desk.allowances.where({ sittingId: sitting.id }).toArray())
      rows.push(allowanceRow(allowance));
    for (const request of await desk.requests.where({ sittingId: sitting.id }).toArray())
      rows.push(wanted('requests', request));
  }
  return { rows, files: [...files] };
}

/** The pictures of pages that students see with their results: theirs alone, and none before. */
async function pagesHandedBack(sittingId: string): Promise<string[]> {
  if ((await desk.prints.where({ sittingId }).count()) === 0) return [];
  const back = new Set(
    (await desk.releases.where({ sittingId }).toArray())
      .filter(({ heldBack }) => !heldBack)
      .map(({ studentId }) => studentId),
  );
  const attempts = await desk.attempts.where({ sittingId }).toArray();
  return attempts.flatMap(({ copy, studentId, files = [] }) =>
    copy && back.has(studentId) ? files.map(({ id }) => id) : [],
  );
}

/** With nothing that only the desk needs. */
const studentRow = ({ number: _n, email: _e, fields: _f, ...student }: Student) =>
  wanted('students', student);
const allowanceRow = (allowance: Allowance) => wanted('allowances', { ...allowance, reason: '' });

function sealedRow(paper: PaperVersion, seal: Seal): WantedRow {
  const { paperId, version } = paper;
  const text = JSON.stringify(paper);
  return {
    key: `sealed/${keyText([paperId, String(version)])}`,
    text,
    change: async () => ({ table: 'sealed', row: { paperId, version, seal: await seal(text) } }),
  };
}

function sealedCode({ id: sittingId, accessCode }: Sitting, seal: Seal): WantedRow {
  return {
    key: `access/${keyText([sittingId])}`,
    text: accessCode,
    change: async () => ({ table: 'access', row: { sittingId, seal: await seal(accessCode) } }),
  };
}

/** The versions of its paper that a sitting needs: the one that is sat, and those that were. */
async function papersOf(sitting: Sitting): Promise<PaperVersion[]> {
  const attempts = await desk.attempts.where({ sittingId: sitting.id }).toArray();
  const versions = new Set(attempts.map(({ paperVersion }) => paperVersion));
  if (sitting.paperVersion !== null) versions.add(sitting.paperVersion);
  const found = await Promise.all(
    [...versions].map((version) => desk.paperVersions.get([sitting.paperId, version])),
  );
  return found.filter((paper) => paper !== undefined);
}

/** The scripts of everyone to whom these sittings were handed back, each with what was let out. */
export async function scriptsForMailbox(
  sittings: readonly Sitting[],
  now: number,
  seal: Seal,
): Promise<WantedRow[]> {
  const rows: WantedRow[] = [];
  for (const sitting of sittings)
    for (const release of await desk.releases.where({ sittingId: sitting.id }).toArray())
      rows.push(...(await scriptRows(sitting, release, now, seal)));
  return rows;
}

/** The script of one student; none where nothing is let out to him, now or later. */
async function scriptRows(sitting: Sitting, release: Release, now: number, seal: Seal): Promise<WantedRow[]> {
  const student = await desk.students.get(release.studentId);
  if (!student || student.role === 'tryOut') return [];
  const plan = await desk.releasePlans.get(sitting.id);
  const stages = stagesOf(release, plan);
  const shows = everLetOut(stages, now);
  // Also what is let out only later: the desk may be shut then. Who is held back sees nothing, and that is said too.
  const packet = shows && (await scriptFor(deskRepository, student, sitting, now, shows));
  // Who opened it is noted there; it changes nothing here.
  return packet || release.heldBack
    ? [sealedScript(release, { stages, invites: plan?.invites }, packet, seal)]
    : [];
}

/** The part of the mailbox that a change may touch. */
export interface TouchedRows {
  /** What should lie there now. */
  rows: WantedRow[];
  /** What may lie there and should not. */
  gone: string[];
  attemptIds: string[];
}

/** Under what a row lies there of which only the last part of the key is known. */
const postedBelow = (table: MailboxTable, id: string) =>
  desk.posted
    .where('key')
    .startsWith(`${table}/`)
    .filter(({ key }) => key.endsWith(`/${keyText([id])}`))
    .primaryKeys();

/** The tables from which the rows of the mailbox are made. */
export const mailboxSources = [
  ...['sittings', 'groups', 'paperVersions', 'releasePlans', 'repairs', 'grades'],
  ...['students', 'allowances', 'requests', 'attempts', 'marks', 'releases'],
];
/** Those whose rows say what all the others are about: where one of them changes, everything is looked at. */
const aboutAll = ['sittings', 'groups', 'paperVersions', 'releasePlans', 'repairs', 'grades'];
/** More changed rows than these are not looked at one by one. */
const mostByKey = 400;

/** The first fields of the keys that changed of a table. */
const firstOf = (keys: ReadonlyMap<string, string[][]>, table: string) =>
  keys.get(table)?.map(([id = '']) => id) ?? [];

/**
 * Whose scripts are another one where these rows changed.
 *
 * @returns null where other rows have to go ahead of them
 */
async function scriptsTouched(
  keys: ReadonlyMap<string, string[][]>,
  here: ReadonlyMap<string, Sitting>,
): Promise<Map<string, { sittingId: string; studentId: string }> | null> {
  const scripts = new Map<string, { sittingId: string; studentId: string }>();
  const scriptOf = ({ sittingId, studentId }: { sittingId: string; studentId: string }) =>
    scripts.set(`${sittingId} ${studentId}`, { sittingId, studentId });
  for (const [sittingId = '', studentId = ''] of keys.get('releases') ?? [])
    scriptOf({ sittingId, studentId });
  for (const id of new Set([...firstOf(keys, 'attempts'), ...firstOf(keys, 'marks')])) {
    const attempt = (await desk.attempts.get(id)) ?? (await desk.carried.get(id));
    const sitting = attempt && here.get(attempt.sittingId);
    if (!attempt || !sitting) continue;
    scriptOf(attempt);
    // Another version of the paper, or a student who is there only by this attempt, goes ahead of it.
    const needs = [
      `papers/${keyText([sitting.paperId, String(attempt.paperVersion)])}`,
      `students/${keyText([attempt.studentId])}`,
    ];
    const posted = await desk.posted.bulkGet(needs);
    if (posted.some((row) => row === undefined)) return null;
  }
  for (const id of firstOf(keys, 'students'))
    for (const release of await desk.releases.where({ studentId: id }).toArray()) scriptOf(release);
  return scripts;
}

/**
 * What of the mailbox has to be looked at where only these rows changed: it is found by their keys.
 *
 * @returns null where all of it has to be
 */
export async function rowsTouched(
  changed: ReadonlyMap<string, RangeSet>,
  sittings: readonly Sitting[],
  now: number,
  seal: Seal,
): Promise<TouchedRows | null> {
  const keys = new Map<string, string[][]>();
  for (const [table, ranges] of changed) {
    const some = aboutAll.includes(table) ? null : keysIn(ranges, mostByKey);
    if (some === null) return null;
    keys.set(
      table,
      some.map((key) => (Array.isArray(key) ? key.map(String) : [String(key)])),
    );
  }
  const ids = (table: string) => firstOf(keys, table);
  const here = new Map(sittings.map((sitting) => [sitting.id, sitting]));
  const touched: TouchedRows = { rows: [], gone: [], attemptIds: ids('attempts') };
  const put = (row: WantedRow | undefined, ...keys: string[]) =>
    row ? void touched.rows.push(row) : void touched.gone.push(...keys);
  const ofSitting = <T extends { sittingId: string }>(row: T | undefined) =>
    row && here.has(row.sittingId) ? row : undefined;

  for (const id of ids('allowances')) {
    const row = ofSitting(await desk.allowances.get(id));
    put(row && allowanceRow(row), ...(row ? [] : await postedBelow('allowances', id)));
  }
  for (const id of ids('requests')) {
    const row = ofSitting(await desk.requests.get(id));
    put(row && wanted('requests', row), ...(row ? [] : await postedBelow('requests', id)));
  }
  if (ids('students').length > 0) {
    const takingPart = new Map((await studentsOf(sittings)).map((student) => [student.id, student]));
    for (const id of ids('students')) {
      const student = takingPart.get(id);
      put(student && studentRow(student), `students/${keyText([id])}`);
    }
  }
  const scripts = await scriptsTouched(keys, here);
  if (scripts === null) return null;
  // Pages on paper go along with their results: all files are looked at.
  for (const { sittingId } of scripts.values())
    if ((await desk.prints.where({ sittingId }).count()) > 0) return null;
  for (const { sittingId, studentId } of scripts.values()) {
    const sitting = here.get(sittingId);
    const release = sitting && (await desk.releases.get([sittingId, studentId]));
    const [row] = release ? await scriptRows(sitting, release, now, seal) : [];
    put(row, `releases/${keyText([studentId, sittingId])}`);
  }
  return touched;
}

function sealedScript(
  release: Release,
  open: { stages: ReleaseStage[]; invites: Invites | undefined },
  packet: ScriptPacket | null,
  seal: Seal,
): WantedRow {
  // Since when it is seen the stage says.
  const text = packet && JSON.stringify({ ...packet, handedBackAt: release.releasedAt });
  const { heldBack: _h, ...rest } = release;
  const { stages, invites } = open;
  const row: MailboxRow<'releases'> = { ...rest, stages, ...(invites && { invites }), openedAt: [] };
  return {
    key: `releases/${keyText(mailboxKeys.releases(row))}`,
    text: JSON.stringify(row) + (text ?? ''),
    change: async () => ({
      table: 'releases',
      row: text === null ? row : { ...row, seal: await seal(text) },
    }),
  };
}
