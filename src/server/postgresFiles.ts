import type pg from 'pg';

/** Files in the database, by pieces: none is too large for one row, and each is there whole or not at all. */

export type Ask = Pick<pg.ClientBase, 'query'>;

const pieceBytes = 1024 * 1024;

/** Keeps a file in a transaction of its own; one that is there already stays. */
export async function putFile(client: Ask, id: string, bytes: Uint8Array): Promise<void> {
  const there = await client.query('select from gribbet_files where id = $1', [id]);
  if (there.rowCount) return;
  try {
    await client.query('begin');
    for (let from = 0, piece = 0; from < bytes.length; from += pieceBytes, piece++)
      await client.query(
        'insert into gribbet_pieces (id, piece, bytes) values ($1, $2, $3) on conflict do nothing',
        [id, piece, Buffer.from(bytes.subarray(from, from + pieceBytes))],
      );
    const values = [id, bytes.length];
    await client.query('insert into gribbet_files (id, size) values ($1, $2) on conflict do nothing', values);
    await client.query('commit');
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    throw error;
  }
}

/** Null where it is not there. */
export async function fileBytes(ask: Ask, id: string): Promise<Uint8Array | null> {
  const found = await ask.query('select from gribbet_files where id = $1', [id]);
  if (!found.rowCount) return null;
  const { rows } = await ask.query<{ bytes: Buffer }>(
    'select bytes from gribbet_pieces where id = $1 order by piece',
    [id],
  );
  return Buffer.concat(rows.map(({ bytes }) => bytes));
}

export async function dropFile(ask: Ask, id: string): Promise<void> {
  await ask.query(
    'with file as (delete from gribbet_files where id = $1) delete from gribbet_pieces where id = $1',
    [id],
  );
}

/** The ids of all files, in their order. */
export async function fileIds(ask: Ask): Promise<string[]> {
  const { rows } = await ask.query<{ id: string }>('select id from gribbet_files order by id');
  return rows.map(({ id }) => id);
}
