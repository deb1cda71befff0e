import { packedAsset, unpackedAsset } from '@/core/model/asset';
import type { Backup, DeskTables } from '@/core/formats/backup';
import { desk } from './tables';

/** Every row of the desk. */
export async function deskTables(): Promise<DeskTables> {
  return desk.transaction('r', desk.tables, async () => ({
    students: await desk.students.toArray(),
    groups: await desk.groups.toArray(),
    papers: await desk.papers.toArray(),
    paperVersions: await desk.paperVersions.toArray(),
    sittings: await desk.sittings.toArray(),
    allowances: await desk.allowances.toArray(),
    attempts: await desk.attempts.toArray(),
    marks: await desk.marks.toArray(),
    releases: await desk.releases.toArray(),
    openings: await desk.openings.toArray(),
    assets: (await desk.assets.toArray()).map(packedAsset),
    bank: await desk.bank.toArray(),
    requests: await desk.requests.toArray(),
    outbox: await desk.outbox.toArray(),
    templates: await desk.templates.toArray(),
    settings: await desk.settings.toArray(),
    log: await desk.log.toArray(),
  }));
}

/** Puts a desk in place of the one that is here: all of it, or nothing. Cannot be undone; the caller asks first. */
export async function replaceDesk(tables: Backup['tables']): Promise<void> {
  await desk.transaction('rw', desk.tables, async () => {
    for (const table of desk.tables) await table.clear();
    await desk.students.bulkAdd(tables.students);
    await desk.groups.bulkAdd(tables.groups);
    await desk.papers.bulkAdd(tables.papers);
    await desk.paperVersions.bulkAdd(tables.paperVersions);
    await desk.sittings.bulkAdd(tables.sittings);
    await desk.allowances.bulkAdd(tables.allowances);
    await desk.attempts.bulkAdd(tables.attempts);
    await desk.marks.bulkAdd(tables.marks);
    await desk.releases.bulkAdd(tables.releases);
    await desk.openings.bulkAdd(tables.openings);
    await desk.assets.bulkAdd(tables.assets.map(unpackedAsset));
    await desk.bank.bulkAdd(tables.bank);
    await desk.requests.bulkAdd(tables.requests);
    await desk.outbox.bulkAdd(tables.outbox);
    await desk.templates.bulkAdd(tables.templates);
    await desk.settings.bulkAdd(tables.settings);
    await desk.log.bulkAdd(tables.log);
  });
}

/** A desk with nothing on it, on which the demo course is not laid out again. */
export const emptyTables: DeskTables = {
  students: [],
  groups: [],
  papers: [],
  paperVersions: [],
  sittings: [],
  allowances: [],
  attempts: [],
  marks: [],
  releases: [],
  openings: [],
  assets: [],
  bank: [],
  requests: [],
  outbox: [],
  templates: [],
  settings: [{ key: 'begun', value: 'empty' }],
  log: [],
};
