import { CommandFault } from '@/core/model/commandFault';
import { deskTableNames } from '@/core/model/desk';
import {
  contentOf,
  isFile,
  noRows,
  type DeskContent,
  type DeskRows,
  type DeskTables,
  type Progress,
} from '@/core/formats/backup';
import type { Asset } from '@/core/basics/asset';
import { desk } from './tables';

/**
 * The whole desk as it is now; its files are read when they are asked for.
 *
 * @param withPages with the pictures of scanned pages, which may be much of it
 */
export async function deskContent(withPages = true): Promise<DeskContent> {
  const rows = await desk.transaction('r', desk.tables, async () => {
    const all: Record<string, unknown[]> = {};
    for (const table of deskTableNames)
      if (table !== 'assets') all[table] = await desk.table(table).toArray();
    // One after another: all of them may be more than memory holds.
    const assets: DeskRows['assets'] = [];
    const left = new Set(withPages ? [] : (await desk.scans.toArray()).map(({ picture }) => picture.id));
    await desk.assets.each(({ bytes: _, ...ref }) => {
      if (!left.has(ref.id)) assets.push(ref);
    });
    return { ...all, assets } as DeskRows; // each table gives its own rows
  });
  const bytes = async (id: string) => {
    const asset = await desk.assets.get(id);
    if (!asset) throw new Error(`No file ${id}`);
    return asset.bytes;
  };
  return { rows, bytes };
}

/**
 * Puts a desk in place of the one that is here: all of it, or nothing. Cannot be undone; the caller asks first.
 *
 * @throws where one of its files is not what it is called, or there is no room; the desk that was here is still there
 */
export async function putInPlace(
  { rows, bytes }: DeskContent,
  progress: Progress = () => undefined,
): Promise<void> {
  const { assets, ...tables } = rows;
  const added: string[] = [];
  try {
    // Before the rest: nothing points to them yet, and together they would not fit into one transaction.
    for (const [index, ref] of assets.entries()) {
      if ((await desk.assets.where('id').equals(ref.id).count()) === 0) {
        const content = await bytes(ref.id);
        if (!(await isFile(ref, content))) throw new CommandFault('fileChanged', ref.name);
        await desk.assets.put({ ...ref, bytes: Uint8Array.from(content) } satisfies Asset);
        added.push(ref.id);
      }
      progress(index / assets.length);
    }
    await desk.transaction('rw', desk.tables, async () => {
      for (const table of desk.tables) if (table.name !== 'assets') await table.clear();
      const named = new Set(assets.map(({ id }) => id));
      await desk.assets.filter(({ id }) => !named.has(id)).delete();
      for (const [table, all] of Object.entries(tables)) await desk.table(table).bulkAdd(all);
    });
  } catch (error) {
    await desk.assets.bulkDelete(added).catch(() => undefined);
    throw error;
  }
  progress(1);
}

/** The same with a desk that is all in memory. */
export const replaceDesk = (tables: DeskTables): Promise<void> => putInPlace(contentOf(tables));

/** A desk with nothing on it, on which the demo course is not laid out again. */
export const emptyTables: DeskTables = {
  ...noRows(),
  settings: [{ key: 'begun', value: 'empty' }],
};
