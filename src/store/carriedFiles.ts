import { done } from '@/words/done';
import {
  intakeOf,
  oddTime,
  paperFile,
  sittingInFile,
  type Intake,
  type OddTime,
} from '@/core/exchange/carriedFiles';
import type { AnswersFile } from '@/core/formats/packet/packetFile';
import type { PacketFor } from '@/core/formats/packet/packetZip';
import type { PackedAsset } from '@/core/basics/asset';
import { packedAsset, unnamed, unpackedAsset } from '@/core/basics/assetBytes';
import { assetsIn } from '@/core/basics/fileRules';
import type { PaperVersion } from '@/core/model/paper';
import type { Student } from '@/core/model/people';
import { byRegister } from '@/core/model/names';
import type { Sitting } from '@/core/model/sitting';
import { termsFor } from '@/core/attempts/terms';
import { keepAsset } from './assets';
import { scriptOf, studentsOf } from './takingPart';
import { runCommand } from './command';
import { freezePaper } from './papers';
import { letOutAt, stagesOf, type Release, type ReleasePlan, type Shows } from '@/core/model/release';
import { desk } from './tables';

/** What leaves the desk as a file, and what comes back to it so. */

/**
 * The paper of a sitting as packets: one for everyone, or one for each student with what he may have beyond the rules. The
 * paper is fixed from then on, as when the first student starts.
 *
 * @throws when the paper cannot be sat as it stands
 */
export async function paperPackets(sittingId: string, forEach: boolean, now: string): Promise<PacketFor[]> {
  const fixed = await fixedPaper(sittingId, now);
  if (!fixed) return [];
  const { sitting, paper } = fixed;
  const pictures = (await packedAssets(assetsIn([paper]))).map(unnamed);
  if (!forEach)
    return [{ student: null, packet: { kind: 'paper', content: paperFile(sitting, paper, pictures) } }];
  const students = (await studentsOf([sitting])).sort(byRegister);
  return Promise.all(
    students.map(async (student): Promise<PacketFor> => {
      const allowances = await desk.allowances.where({ sittingId, studentId: student.id }).toArray();
      const content = paperFile(sitting, paper, pictures, student, allowances);
      return { student, packet: { kind: 'paper', content } };
    }),
  );
}

async function fixedPaper(
  sittingId: string,
  now: string,
): Promise<{ sitting: Sitting; paper: PaperVersion } | null> {
  const name = { command: 'paperPacket', said: done.paperFixed, about: sittingId } as const;
  await runCommand(name, now, async (record) => {
    const sitting = await desk.sittings.get(sittingId);
    const paper = sitting && (await desk.papers.get(sitting.paperId));
    if (!sitting || !paper || sitting.paperVersion !== null) return;
    const { version } = await freezePaper(record, paper, now);
    await record.put('sittings', { ...sitting, paperVersion: version });
  });
  const sitting = await desk.sittings.get(sittingId);
  const version = sitting?.paperVersion ?? null;
  const paper =
    version === null ? undefined : await desk.paperVersions.get([sitting?.paperId ?? '', version]);
  return sitting && paper ? { sitting, paper } : null;
}

/** The scripts of a sitting, for those to whom it was handed back: each with only what was let out. */
export async function scriptPackets(sittingId: string, now: number): Promise<PacketFor[]> {
  const sitting = await desk.sittings.get(sittingId);
  if (!sitting) return [];
  const made: (PacketFor & { student: Student })[] = [];
  const plan = await desk.releasePlans.get(sittingId);
  for (const release of await desk.releases.where({ sittingId }).toArray()) {
    const student = await desk.students.get(release.studentId);
    const script = student && student.role !== 'tryOut' ? await scriptOf(sitting, student, now) : null;
    if (!student || !script) continue;
    const { joinCode, familyName, givenName } = student;
    const attempts = await desk.attempts.where({ sittingId, studentId: student.id }).toArray();
    const text = JSON.stringify(script);
    const own = attempts.flatMap(({ files }) => files ?? []).filter(({ id }) => text.includes(id));
    const content = {
      sitting: sittingInFile(sitting),
      student: { joinCode, familyName, givenName },
      release: { ...release, shows: letOutNow(release, plan, now), packet: script },
      pictures: [
        ...(await packedAssets(assetsIn([script]))).map(unnamed),
        ...(await packedAssets(own.map(({ id }) => id))),
      ],
    };
    made.push({ student, packet: { kind: 'script', content } });
  }
  return made.sort((a, b) => byRegister(a.student, b.student));
}

/** What a file holds of a result is what is let out when it is saved. */
const letOutNow = (release: Release, plan: ReleasePlan | undefined, now: number): Shows | undefined =>
  letOutAt({ ...release, stages: stagesOf(release, plan) }, now)?.shows;

async function packedAssets(ids: Iterable<string>): Promise<PackedAsset[]> {
  const assets = await desk.assets.bulkGet([...new Set(ids)]);
  return assets.filter((asset) => asset !== undefined).map(packedAsset);
}

/** One answers packet that came in. */
export interface Arrived {
  file: AnswersFile;
  /** Whose the teacher said it is; null: whose its join code is. */
  studentId: string | null;
}

/** What became of a packet, and whose it is on this desk. */
export type TakenIn = Intake & { student: Student | null; odd: OddTime | null };

/**
 * Takes answers packets in, as one step: what can be is taken, what cannot is told apart and changes nothing.
 *
 * @returns what became of each, in their order
 */
export async function takeInAnswers(
  sittingId: string,
  arrived: readonly Arrived[],
  now: string,
): Promise<TakenIn[]> {
  const looked = await intakes(sittingId, arrived, now);
  for (const [index, { file }] of arrived.entries())
    if ('attempts' in (looked[index] ?? {}))
      for (const asset of file.files) await keepAsset(unpackedAsset(asset));
  const students = new Set(looked.flatMap((each) => ('attempts' in each ? (each.student?.id ?? []) : [])));
  const said = done.answersImported(students.size);
  const { result } = await runCommand(
    { command: 'takeInAnswers', said, about: sittingId },
    now,
    async (record) => {
      // Once more, with nobody else writing meanwhile.
      const taken = await intakes(sittingId, arrived, now);
      for (const each of taken)
        if ('attempts' in each) for (const attempt of each.attempts) await record.put('attempts', attempt);
      return taken;
    },
  );
  return result;
}

async function intakes(sittingId: string, arrived: readonly Arrived[], now: string): Promise<TakenIn[]> {
  const sitting = await desk.sittings.get(sittingId);
  if (!sitting) return [];
  const papers = await desk.paperVersions.where('paperId').equals(sitting.paperId).toArray();
  const here = new Map(
    (await desk.attempts.where({ sittingId }).toArray()).map((attempt) => [attempt.id, attempt]),
  );
  const found: TakenIn[] = [];
  for (const { file, studentId } of arrived) {
    const known =
      studentId === null
        ? await desk.students.where('joinCode').equals(file.student.joinCode).first()
        : await desk.students.get(studentId);
    const student = known ?? null;
    for (const attempt of await desk.attempts.bulkGet(file.attempts.map(({ id }) => id)))
      if (attempt && !here.has(attempt.id)) here.set(attempt.id, attempt);
    const intake = intakeOf(
      file,
      { sitting, papers, student, attempts: [...here.values()] },
      studentId !== null,
    );
    // A second file with the same in it is a double.
    if ('attempts' in intake) for (const attempt of intake.attempts) here.set(attempt.id, attempt);
    found.push({ ...intake, student, odd: await oddTimeOf(sitting, student, file, now) });
  }
  return found;
}

async function oddTimeOf(
  sitting: Sitting,
  student: Student | null,
  file: AnswersFile,
  now: string,
): Promise<OddTime | null> {
  if (!student) return null;
  const allowances = await desk.allowances.where({ sittingId: sitting.id, studentId: student.id }).toArray();
  return oddTime(file, termsFor(student, sitting, allowances, Date.parse(now)), Date.parse(now));
}

/** The titles of all sittings on the desk, by id. */
export async function sittingTitles(): Promise<Map<string, string>> {
  return new Map((await desk.sittings.toArray()).map(({ id, title }) => [id, title]));
}
