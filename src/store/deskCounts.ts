import { desk } from './tables';

/** How many students, groups, papers, sittings and attempts are on the desk. */
export const deskCounts = (): Promise<number[]> =>
  Promise.all(
    [desk.students, desk.groups, desk.papers, desk.sittings, desk.attempts].map((table) => table.count()),
  );
