import Dexie from 'dexie';
import type { Question } from '@/core/kinds';
import { keptProgress, type KeptProgress } from '@/core/analysis/keptProgress';
import { scoredQuestions } from '@/core/repair/scoredQuestions';
import type { Paper, PaperContent } from '@/core/model/paper';
import { sameContent } from '@/core/model/sameContent';
import type { Repair } from '@/core/model/repair';
import type { Group, Student } from '@/core/model/people';
import { byRegister } from '@/core/model/names';
import type { Sitting } from '@/core/model/sitting';
import type { SittingRecords } from '@/core/seats/seats';
import type { ReleasePlan } from '@/core/model/release';
import { newId } from './ids';
import { desk } from './tables';

/** The paper a sitting is scored with: its frozen version, or the paper as it stands while nobody has started. */
export async function paperOf(sitting: Sitting): Promise<PaperContent | undefined> {
  return sitting.paperVersion === null
    ? desk.papers.get(sitting.paperId)
    : desk.paperVersions.get([sitting.paperId, sitting.paperVersion]);
}

/** What a sitting's rows hang on: its paper, groups and students. */
export interface SittingFrame {
  sitting: Sitting;
  paper: PaperContent;
  /** What it is scored and marked as: working apart from its question. */
  questions: Question[];
  groups: Group[];
  /** In the order of a register; whoever sat it stays in the list after leaving the group. */
  students: Student[];
  /** How the results are let out; null: there is no plan. */
  plan: ReleasePlan | null;
  /** Whether the paper was changed since it was sat, and it is not scored with that. */
  pending: boolean;
  /** What was repaired since it was sat, in no order. */
  repairs: Repair[];
}

/** The students who are in any of these groups, each once; who was archived is in none. */
export async function studentsIn(groupIds: readonly string[]): Promise<Student[]> {
  // Group by group: of one key all rows are read at once, of several they are stepped through.
  const all = await Promise.all(groupIds.map((id) => desk.students.where('groupIds').equals(id).toArray()));
  const each = new Map(all.flat().map((student) => [student.id, student]));
  return [...each.values()].filter((student) => student.archivedAt === undefined);
}

/**
 * The frame of one sitting; null when there is no such sitting.
 *
 * @param sat whose attempts there are, for callers that have read them
 */
export async function sittingFrame(
  sittingId: string,
  sat?: ReadonlySet<string>,
): Promise<SittingFrame | null> {
  const sitting = await desk.sittings.get(sittingId);
  const paper = sitting && (await paperOf(sitting));
  if (!sitting || !paper) return null;
  const [listed, groups, have, repairs] = await Promise.all([
    studentsIn(sitting.groupIds),
    desk.groups.bulkGet(sitting.groupIds),
    sat ? [...sat] : studentsWhoSat(sittingId),
    desk.repairs.where({ sittingId }).toArray(),
  ]);
  const known = new Set(listed.map((student) => student.id));
  const left = (await desk.students.bulkGet(have.filter((id) => !known.has(id)))).filter(
    (each) => each !== undefined && each.role !== 'tryOut',
  ) as Student[];
  return {
    sitting,
    paper,
    pending: isPending(paper, await desk.papers.get(sitting.paperId)),
    questions: scoredQuestions(paper, repairs),
    repairs,
    groups: groups.filter((group) => group !== undefined).sort((a, b) => a.name.localeCompare(b.name)),
    students: [...listed, ...left].sort(byRegister),
    plan: (await desk.releasePlans.get(sitting.id)) ?? null,
  };
}

/** Whether a paper was changed since a version of it was frozen; false for what is no version. */
function isPending(sat: PaperContent, paper: Paper | undefined): boolean {
  if (!paper || !('frozenAt' in sat) || typeof sat.frozenAt !== 'string') return false;
  // A repair changes both at once: then they are held against each other.
  return paper.changedAt >= sat.frozenAt && !sameContent(sat, paper);
}

/** The students of a sitting's attempts, read from the index alone. */
async function studentsWhoSat(sittingId: string): Promise<string[]> {
  const keys = await desk.attempts
    .where('[sittingId+studentId]')
    .between([sittingId, Dexie.minKey], [sittingId, Dexie.maxKey])
    .uniqueKeys();
  return keys.map((key) => String((key as unknown as string[])[1])); // a compound key is an array of its parts
}

/** Everything of one sitting that its views are computed from; null when there is no such sitting. */
export async function sittingRecords(sittingId: string): Promise<(SittingRecords & SittingFrame) | null> {
  const [allowances, attempts, marks, releases, openings] = await Promise.all([
    desk.allowances.where({ sittingId }).toArray(),
    desk.attempts.where({ sittingId }).toArray(),
    desk.marks.where({ sittingId }).toArray(),
    desk.releases.where({ sittingId }).toArray(),
    desk.openings.where({ sittingId }).toArray(),
  ]);
  const frame = await sittingFrame(sittingId, new Set(attempts.map(({ studentId }) => studentId)));
  return frame && { ...frame, allowances, attempts, marks, releases, openings };
}

/** How a sitting stands, from the cache while it holds; `computed` says that the cache did not have it. */
export async function progress(
  sitting: Sitting,
  now: number,
): Promise<{ progress: KeptProgress; computed: boolean } | null> {
  const cached = await desk.progress.get(sitting.id);
  if (cached && (cached.validUntil === null || cached.validUntil > now))
    return { progress: cached, computed: false };
  const records = await sittingRecords(sitting.id);
  return records && { progress: keptProgress(records, now), computed: true };
}

/** Puts it into the cache. Apart from `progress`, which live queries call and which must only read. */
export async function keepProgress(kept: readonly KeptProgress[]): Promise<void> {
  await desk.progress.bulkPut(kept.map((each) => ({ ...each, key: newId() })));
}

/** One sitting on the desk. */
export interface SittingRow {
  sitting: Sitting;
  paper: PaperContent;
  /** Null for an archived one. */
  progress: KeptProgress | null;
  /** True when the progress came from the rows and not from the cache, which may keep it. */
  computed: boolean;
  groups: Group[];
  /** Whether its paper was changed since it was sat, and it is not scored with that. */
  pending: boolean;
}

/** What lies on the desk: every sitting with how it stands, every paper not given out yet, every group. */
export async function deskRows(now: number) {
  const [all, papers, groups] = await Promise.all([
    desk.sittings.toArray(),
    desk.papers.orderBy('changedAt').reverse().toArray(),
    desk.groups.orderBy('name').toArray(),
  ]);
  const given = new Set(all.filter((sitting) => !sitting.rehearsal).map((sitting) => sitting.paperId));
  // All at once: one after the other, hundreds of sittings would wait for each other.
  const papersById = new Map(papers.map((paper) => [paper.id, paper]));
  const rows = await Promise.all(
    all.map(async (sitting): Promise<SittingRow | null> => {
      const archived = sitting.archivedAt !== undefined;
      const [paper, stands] = await Promise.all([
        paperOf(sitting),
        archived ? { progress: null, computed: false } : progress(sitting, now),
      ]);
      const ofSitting = groups.filter((group) => sitting.groupIds.includes(group.id));
      const pending = paper !== undefined && isPending(paper, papersById.get(sitting.paperId));
      return paper && stands ? { sitting, paper, ...stands, groups: ofSitting, pending } : null;
    }),
  );
  const lasting = groups.filter((group) => !group.rehearsal);
  const sizes = await Promise.all(lasting.map(async (group) => (await studentsIn([group.id])).length));
  return {
    sittings: rows.filter((row) => row !== null),
    papers: papers.filter((paper) => !given.has(paper.id)),
    groups: lasting.map((group, index) => ({ ...group, students: sizes[index] ?? 0 })),
  };
}

/** Every group with its number of students and of sittings, by name. */
export async function groupRows() {
  const groups = (await desk.groups.orderBy('name').toArray()).filter((group) => !group.rehearsal);
  return Promise.all(
    groups.map(async (group) => ({
      group,
      students: (await studentsIn([group.id])).length,
      sittings: await desk.sittings.where('groupIds').equals(group.id).count(),
    })),
  );
}
