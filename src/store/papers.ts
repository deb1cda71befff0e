import { sameContent } from '@/core/model/sameContent';
import { done } from '@/words/done';
import { CommandFault } from '@/core/model/commandFault';
import { Paper, PaperContent, type PaperVersion } from '@/core/model/paper';
import { readyToSit } from '@/core/scoring/paperFindings';
import { runCommand, type Recorder } from './command';
import { newId } from './ids';
import { removeOwned } from './owners';
import { desk } from './tables';

export async function createPaper(title: string, now: string) {
  const paper = Paper.parse({
    id: newId(),
    title,
    instructions: '',
    questions: [],
    createdAt: now,
    changedAt: now,
  });
  return runCommand(
    { command: 'createPaper', said: done.paperCreated(title), about: paper.id },
    now,
    async (record) => {
      await record.add('papers', paper);
      return paper.id;
    },
  );
}

/** Puts papers from elsewhere on the desk, all in one step; gives their ids. */
export async function bringPapers(contents: readonly PaperContent[], said: string, now: string) {
  const papers = contents.map((content) =>
    Paper.parse({ ...content, id: newId(), createdAt: now, changedAt: now }),
  );
  return runCommand({ command: 'bringPapers', said }, now, async (record) => {
    await record.addAll('papers', papers);
    return papers.map(({ id }) => id);
  });
}

/**
 * Keeps a changed paper.
 *
 * @param said what was done, in words
 * @param joins names the field typed in, so that a run of typing is one entry in the log
 * @param base as it was when it was opened: what was changed elsewhere since stays
 * @returns what was changed in both places
 */
export async function changePaper(
  paper: Paper,
  said: string,
  joins: string | undefined,
  now: string,
  base?: Paper,
) {
  return runCommand(
    { command: 'changePaper', said, about: paper.id, ...(joins ? { joins } : {}) },
    now,
    (record) => record.putChanged('papers', Paper.parse({ ...paper, changedAt: now }), base),
  );
}

/** Makes a paper again what it was when a version of it was sat: what was changed since is thrown away. */
export async function throwChangesAway(paperId: string, sat: PaperContent, now: string) {
  return runCommand(
    { command: 'changePaper', said: done.changesThrownAway, about: paperId },
    now,
    async (record) => {
      const paper = await desk.papers.get(paperId);
      if (!paper) return;
      const { id, createdAt } = paper;
      await record.put('papers', Paper.parse({ ...PaperContent.parse(sat), id, createdAt, changedAt: now }));
    },
  );
}

export async function deletePaper(id: string, now: string) {
  const paper = await desk.papers.get(id);
  return runCommand(
    { command: 'deletePaper', said: done.paperDeleted(paper?.title ?? ''), about: id },
    now,
    async (record) => {
      if ((await desk.sittings.where('paperId').equals(id).count()) > 0) throw new CommandFault('paperInUse');
      await removeOwned(record, 'papers', id);
      await record.remove('papers', [id]);
    },
  );
}

/** Freezes a paper as it stands: the latest version when nothing has changed since, else a new one. */
export const freezePaper = (
  record: Pick<Recorder, 'add'>,
  paper: Paper,
  now: string,
): Promise<PaperVersion> => freezeContent(record, paper.id, paper, now);

/** The same for other content than the paper has now, as that of a version with one question repaired. */
export async function freezeContent(
  record: Pick<Recorder, 'add'>,
  paperId: string,
  of: PaperContent,
  now: string,
): Promise<PaperVersion> {
  const versions = await desk.paperVersions.where('paperId').equals(paperId).toArray();
  const latest = versions.reduce<PaperVersion | undefined>(
    (a, b) => (a && a.version > b.version ? a : b),
    undefined,
  );
  const content = PaperContent.parse(of);
  if (latest && sameContent(latest, content)) return latest;
  if (!readyToSit(content)) throw new CommandFault('paperNotReady');
  const version = { ...content, paperId, version: (latest?.version ?? 0) + 1, frozenAt: now };
  await record.add('paperVersions', version);
  return version;
}

/** Drops a version of a paper that no sitting is scored with and no attempt has: what a try-out or rehearsal leaves. */
export async function dropUnusedVersion(paperId: string, version: number): Promise<void> {
  const sittings = await desk.sittings.where('paperId').equals(paperId).toArray();
  if (sittings.some((sitting) => sitting.paperVersion === version)) return;
  const sat = await desk.attempts
    .where('sittingId')
    .anyOf(sittings.map(({ id }) => id))
    .filter((attempt) => attempt.paperVersion === version)
    .count();
  if (sat === 0) await desk.paperVersions.delete([paperId, version]);
}
