import { randomBytes } from 'node:crypto';
import type pg from 'pg';

/** Each is done once, in this order, and never changed afterwards. Keys are compared as code points: a prefix is a range. */
const migrations: readonly string[] = [
  `create table gribbet_store (id text not null, rev_offset bigint not null);
   create table gribbet_rows (key text collate "C" primary key, value json not null, rev bigint not null);
   create index gribbet_rows_rev on gribbet_rows (rev);
   create table gribbet_files (id text collate "C" primary key, size integer not null);
   create table gribbet_pieces (id text collate "C", piece integer, bytes bytea not null, primary key (id, piece));
   alter table gribbet_pieces alter column bytes set storage external;
   create table gribbet_guesses (key varchar(255) primary key, points integer not null default 0, expire bigint)`,
];

/** Anybody's number, the same for all servers: only one at a time looks after the tables. */
const migrationLock = 4_321_001;

/**
 * Brings the tables to what this version needs.
 *
 * @returns the id of the store, drawn when it was made
 * @throws where a newer Gribbet made them
 */
export async function migrated(pool: pg.Pool): Promise<string> {
  const client = await pool.connect();
  try {
    await client.query('begin');
    await client.query('select pg_advisory_xact_lock($1)', [migrationLock]);
    await client.query(
      'create table if not exists gribbet_migrations (number integer primary key, at timestamptz not null)',
    );
    const done = await client.query<{ last: number }>(
      'select coalesce(max(number), 0) as last from gribbet_migrations',
    );
    const last = done.rows[0]?.last ?? 0;
    if (last > migrations.length)
      throw new Error(
        `The database was made by a newer Gribbet (step ${last}, known here: ${migrations.length}). Install that version.`,
      );
    for (const [index, sql] of migrations.entries())
      if (index >= last) {
        await client.query(sql);
        await client.query('insert into gribbet_migrations values ($1, now())', [index + 1]);
      }
    const id = await storeId(client);
    await client.query('commit');
    client.release();
    return id;
  } catch (error) {
    client.release(true);
    throw error;
  }
}

/** Numbers of transactions begin anew in another database cluster: after a copy is put back there they count on from the highest. */
async function storeId(client: pg.ClientBase): Promise<string> {
  await client.query('insert into gribbet_store select $1, 0 where not exists (select from gribbet_store)', [
    randomBytes(9).toString('base64url'),
  ]);
  await client.query(
    `update gribbet_store set rev_offset = (select max(rev) from gribbet_rows)
     where (select max(rev) from gribbet_rows) >= rev_offset + pg_snapshot_xmax(pg_current_snapshot())::text::bigint`,
  );
  const { rows } = await client.query<{ id: string }>('select id from gribbet_store');
  return rows[0]?.id ?? '';
}
