import { expose } from 'comlink';
import type { Progress } from '@/core/formats/backup';
import type { Side, Topic } from '@/core/formats/backup/twoDesks';
import { findDesk, readAhead, takeDesk, type TakeOverKit } from '@/sync/takeOver';
import { serverConnection } from '@/sync/serverConnection';
import type { DeskFound, TakeOverOutcome } from './takeOver';

/** A desk that another computer holds is fetched, held against what is here, and put in its place here. */

const line = serverConnection();
const kit = (progress: Progress): TakeOverKit => ({ line, now: () => new Date().toISOString(), progress });

let found: Extract<Awaited<ReturnType<typeof findDesk>>, { backup: object }> | null = null;

const takeOverWorker = {
  find: async (deskId: string, progress: Progress): Promise<DeskFound> => {
    const read = await findDesk(deskId, kit(progress));
    if ('fault' in read) return read;
    found = read;
    const { differences, answer, forgotten, hold, copy, same } = read;
    const { students, groups, papers, sittings, attempts } = read.backup.rows;
    const counts = [students, groups, papers, sittings, attempts].map(({ length }) => length);
    return { differences, answer, forgotten, same, from: hold?.computer.name ?? '', sentAt: copy.at, counts };
  },
  take: async (choices: [Topic, Side][], progress: Progress): Promise<TakeOverOutcome> => {
    if (!found) throw new Error('Nothing was found');
    return takeDesk(found, new Map(choices), kit(progress));
  },
};
export type TakeOverWorker = typeof takeOverWorker;

expose(takeOverWorker);
void readAhead();
