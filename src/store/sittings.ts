import { done } from '@/words/done';
import { Sitting } from '@/core/model/sitting';
import { runCommand } from './command';
import { newId } from './ids';
import { removeOwned } from './owners';
import { freezePaper } from './papers';
import { desk } from './tables';

export type NewSitting = Omit<Sitting, 'id' | 'paperVersion' | 'closedToStartsAt' | 'createdAt'>;

export async function createSitting(settings: NewSitting, now: string) {
  const sitting = Sitting.parse({
    ...settings,
    id: newId(),
    paperVersion: null,
    closedToStartsAt: null,
    createdAt: now,
  });
  return runCommand(
    { command: 'createSitting', said: done.givenOut(sitting.title), about: sitting.id },
    now,
    async (record) => {
      await record.add('sittings', sitting);
      return sitting.id;
    },
  );
}

/** @param base as the sitting was when its form was opened: what was changed elsewhere since stays */
export async function changeSitting(sitting: Sitting, said: string, now: string, base?: Sitting) {
  return runCommand({ command: 'changeSitting', said, about: sitting.id }, now, (record) =>
    record.putChanged('sittings', Sitting.parse(sitting), base),
  );
}

/** Nobody new may start from now on, or may again. Those who are working go on. */
export async function setClosedToStarts(sittingId: string, closed: boolean, now: string) {
  const said = done.startsClosed(closed);
  return runCommand({ command: 'setClosedToStarts', said, about: sittingId }, now, async (record) => {
    const sitting = await desk.sittings.get(sittingId);
    if (sitting) await record.put('sittings', { ...sitting, closedToStartsAt: closed ? now : null });
  });
}

/**
 * Lets students in on their own devices, or no longer. The paper is fixed from then on, as when the first of them starts.
 *
 * @throws when the paper cannot be sat as it stands
 */
export async function setOnDevices(sittingId: string, onDevices: boolean, now: string) {
  const said = done.onDevices(onDevices);
  return runCommand({ command: 'setOnDevices', said, about: sittingId }, now, async (record) => {
    const sitting = await desk.sittings.get(sittingId);
    const paper = sitting && (await desk.papers.get(sitting.paperId));
    if (!sitting || !paper) return;
    const paperVersion = sitting.paperVersion ?? (await freezePaper(record, paper, now)).version;
    await record.put('sittings', { ...sitting, paperVersion, onDevices });
  });
}

/** Scores a sitting with the paper as it stands now. Hand marks stay. */
export async function adoptPaper(sittingId: string, now: string) {
  return runCommand(
    { command: 'adoptPaper', said: done.scoredAnew, about: sittingId },
    now,
    async (record) => {
      const sitting = await desk.sittings.get(sittingId);
      const paper = sitting && (await desk.papers.get(sitting.paperId));
      if (!sitting || !paper) return;
      const { version } = await freezePaper(record, paper, now);
      await record.put('sittings', { ...sitting, paperVersion: version });
    },
  );
}

/** Takes sittings off the desk; they are kept, found, and counted in the bank. */
export async function archiveSittings(ids: readonly string[], now: string) {
  const sittings = (await desk.sittings.bulkGet([...ids])).filter((sitting) => sitting !== undefined);
  const said = done.sittingsArchived(sittings.map(({ title }) => title));
  return runCommand({ command: 'archiveSittings', said }, now, async (record) => {
    for (const sitting of sittings) await record.put('sittings', { ...sitting, archivedAt: now });
  });
}

export async function restoreSitting(id: string, now: string) {
  const sitting = await desk.sittings.get(id);
  const said = done.sittingRestored(sitting?.title ?? '');
  return runCommand({ command: 'restoreSitting', said, about: id }, now, async (record) => {
    const { archivedAt: _, ...rest } = sitting ?? {};
    if (sitting) await record.put('sittings', rest);
  });
}

/** Takes a sitting off the desk for good, with its attempts and marks; the undo brings all of it back. */
export async function deleteSitting(sittingId: string, now: string) {
  const sitting = await desk.sittings.get(sittingId);
  return runCommand(
    { command: 'deleteSitting', said: done.sittingDeleted(sitting?.title), about: sittingId },
    now,
    async (record) => {
      await removeOwned(record, 'sittings', sittingId);
      await record.remove('sittings', [sittingId]);
    },
  );
}
