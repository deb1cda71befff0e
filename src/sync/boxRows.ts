import { boxKeys, keyText, type BoxChange, type BoxRow, type BoxTable } from '@/core/exchange/box';
import { withoutKeys } from '@/core/formats/packet/paper';
import { assetsIn } from '@/core/basics/fileRules';
import type { PaperVersion } from '@/core/model/paper';
import type { Sealed } from '@/core/formats/packet/sealed';
import type { ScriptPacket } from '@/core/handback/script';
import type { Sitting } from '@/core/model/sitting';
import { everLetOut, stagesOf, type Release, type ReleaseStage } from '@/core/model/release';
import { scriptFor } from '@/core/exchange';
import { deskPlace } from '@/store/deskPlace';
import { studentsOf } from '@/store/takingPart';
import { desk } from '../store/tables';

/** What should lie in the server's box, as the desk stands. */

/** Seals a text so that only the server opens it, which has the same secret. */
export type Seal = (text: string) => Promise<Sealed>;

/** A row with the key it lies under. */
export interface WantedRow {
  key: string;
  /** What it is put there as; made only when it has to be. */
  change: () => Promise<BoxChange>;
  /** What its digest is made of. */
  text: string;
}

function wanted<T extends BoxTable>(table: T, row: BoxRow<T>): WantedRow {
  const key = `${table}/${keyText(boxKeys[table](row))}`;
  // The table and its row belong together, which the types of a union cannot say.
  return { key, change: async () => ({ table, row }) as unknown as BoxChange, text: JSON.stringify(row) };
}

/** The sittings that students come into on their own devices. */
export const sittingsOnDevices = () => desk.sittings.filter(({ onDevices }) => onDevices === true).toArray();

/**
 * Every row that should lie in the box, but for attempts and scripts.
 *
 * @param seal seals a text for the server alone
 */
export async function rowsForBox(
  sittings: readonly Sitting[],
  seal: Seal,
): Promise<{ rows: WantedRow[]; files: string[] }> {
  const rows: WantedRow[] = [];
  const files = new Set<string>();
  const groups = await desk.groups.bulkGet([...new Set(sittings.flatMap(({ groupIds }) => groupIds))]);
  for (const group of groups) if (group) rows.push(wanted('groups', group));
  for (const { number: _n, email: _e, fields: _f, ...student } of await studentsOf(sittings))
    rows.push(wanted('students', student));
  for (const sitting of sittings) {
    for (const paper of await papersOf(sitting)) {
      rows.push(wanted('papers', withoutKeys(paper)));
      // Who sees at once how it went is scored there: with the key, which goes along sealed.
      if (sitting.after || sitting.practice) rows.push(sealedRow(paper, seal));
      for (const id of assetsIn([paper])) files.add(id);
    }
    // The access code lies there sealed, the reasons of exceptions not at all. It goes first: at no moment may a sitting
    // stand there that asks for no code.
    if (sitting.accessCode) rows.push(sealedCode(sitting, seal));
    rows.push(wanted('sittings', { ...sitting, accessCode: '' }));
    for (const allowance of await desk.allowances.where({ sittingId: sitting.id }).toArray())
      rows.push(wanted('allowances', { ...allowance, reason: '' }));
    for (const request of await desk.requests.where({ sittingId: sitting.id }).toArray())
      rows.push(wanted('requests', request));
  }
  return { rows, files: [...files] };
}

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
export async function scriptsForBox(
  sittings: readonly Sitting[],
  now: number,
  seal: Seal,
): Promise<WantedRow[]> {
  const rows: WantedRow[] = [];
  for (const sitting of sittings)
    for (const release of await desk.releases.where({ sittingId: sitting.id }).toArray()) {
      const student = await desk.students.get(release.studentId);
      if (!student || student.role === 'tryOut') continue;
      const stages = stagesOf(release, await desk.releasePlans.get(sitting.id));
      const shows = everLetOut(stages, now);
      // Also what is let out only later: the desk may be shut then. Who is held back sees nothing, and that is said too.
      const packet = shows && (await scriptFor(deskPlace, student, sitting, now, shows));
      // Who opened it is noted there; it changes nothing here.
      if (packet || release.heldBack) rows.push(sealedScript(release, stages, packet, seal));
    }
  return rows;
}

function sealedScript(
  release: Release,
  stages: ReleaseStage[],
  packet: ScriptPacket | null,
  seal: Seal,
): WantedRow {
  // Since when it is seen the stage says.
  const text = packet && JSON.stringify({ ...packet, handedBackAt: release.releasedAt });
  const { heldBack: _h, ...rest } = release;
  const row: BoxRow<'releases'> = { ...rest, stages, openedAt: [] };
  return {
    key: `releases/${keyText(boxKeys.releases(row))}`,
    text: JSON.stringify(row) + (text ?? ''),
    change: async () => ({
      table: 'releases',
      row: text === null ? row : { ...row, seal: await seal(text) },
    }),
  };
}
