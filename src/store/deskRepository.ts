import type { Table } from 'dexie';
import type { ExchangeKeep, ExchangeRepository, Keeps } from '@/core/exchange/repository';
import { Student } from '@/core/model/people';
import { stagesOf } from '@/core/model/release';
import { readyToSit } from '@/core/scoring/paperFindings';
import { dropProgress } from './command';
import { newId, newJoinCode } from './ids';
import { freezePaper } from './papers';
import { classTotals } from './classTotals';
import { paperOf } from './queries';
import { tellSeen } from './live/presence';
import { desk } from './tables';

/** What is held while a student's side keeps something, with what is looked at meanwhile: everything else goes on. */
const held: Record<Keeps, Table[]> = {
  attempt: [desk.attempts, desk.progress],
  file: [desk.attempts, desk.progress, desk.assets],
  opening: [desk.openings, desk.progress],
  request: [desk.requests, desk.attempts],
  guest: [desk.students],
  any: [
    desk.students,
    desk.papers,
    desk.paperVersions,
    desk.sittings,
    desk.allowances,
    desk.attempts,
    desk.progress,
  ],
};

const keep: ExchangeKeep = {
  attempt: async (attempt) => {
    await desk.attempts.put(attempt);
    await dropProgress(desk, attempt.sittingId);
  },
  guest: async (guest) => {
    const taken = new Set((await desk.students.toArray()).map(({ joinCode }) => joinCode));
    const student = Student.parse({ ...guest, joinCode: newJoinCode(taken) });
    await desk.students.add(student);
    return student;
  },
  request: async (request) => void (await desk.requests.add(request)),
  opened: async ({ sittingId, studentId }, at) => {
    const before = await desk.openings.get([sittingId, studentId]);
    await desk.openings.put({ sittingId, studentId, at: [...(before?.at ?? []), at] });
    await dropProgress(desk, sittingId);
  },
  file: async (file) => void (await desk.assets.put(file)),
  freeze: async (sitting, at, lasting) => {
    const paper = await desk.papers.get(sitting.paperId);
    if (!paper || !readyToSit(paper)) return null;
    const frozen = await freezePaper(
      { add: async (table, row) => void (await desk.table(table).add(row)) },
      paper,
      at,
    );
    if (lasting) await desk.sittings.update(sitting.id, { paperVersion: frozen.version });
    return frozen;
  },
};

/** The desk as the exchange knows it: for students in the same browser. */
export const deskRepository: ExchangeRepository = {
  studentWith: (joinCode) => desk.students.where('joinCode').equals(joinCode).first(),
  groups: async (ids) => (await desk.groups.bulkGet([...ids])).filter((group) => group !== undefined),
  sitting: (id) => desk.sittings.get(id),
  sittingsOf: (groupIds) =>
    desk.sittings
      .where('groupIds')
      .anyOf([...groupIds])
      .distinct()
      .toArray(),
  guestSittings: () => desk.sittings.filter(({ guests }) => guests === true).toArray(),
  guestsOf: (sittingId) => desk.students.filter(({ onlySittingId }) => onlySittingId === sittingId).count(),
  attemptsOf: (studentId, sittingId) =>
    sittingId === undefined
      ? desk.attempts.where({ studentId }).toArray()
      : desk.attempts.where({ sittingId, studentId }).toArray(),
  allowancesOf: (studentId, sittingId) => desk.allowances.where({ sittingId, studentId }).toArray(),
  requestsOf: (studentId, sittingId) => desk.requests.where({ sittingId, studentId }).toArray(),
  releaseOf: async (studentId, sittingId) => {
    const release = await desk.releases.get([sittingId, studentId]);
    const plan = release && (await desk.releasePlans.get(sittingId));
    if (!release) return undefined;
    // What is shown by itself follows no plan.
    const unfinished = release.shows || !plan?.whole ? [] : (plan.unfinished ?? []);
    return { ...release, stages: stagesOf(release, plan), unfinished, invites: plan?.invites };
  },
  marksOf: (attemptIds) =>
    desk.marks
      .where('attemptId')
      .anyOf([...attemptIds])
      .toArray(),
  repairsOf: (sittingId) => desk.repairs.where({ sittingId }).toArray(),
  gradesOf: async (sittingId) => (await desk.grades.get(sittingId)) ?? null,
  classTotals,
  paperOf,
  paperVersion: (paperId, version) => desk.paperVersions.get([paperId, version]),
  file: (id) => desk.assets.get(id),
  newId,
  seen: ({ id }, now) => tellSeen([[id, now]]),
  within: (_studentId, keeps, work) => desk.transaction('rw', held[keeps], async () => work(keep)),
};
