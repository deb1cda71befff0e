import { afterAll, it } from 'vitest';
import { openPostgresStore } from '@/server/postgresStore';
import { newCluster, noPostgres } from './postgres';
import { tryWith } from './testStore';

/** All that holds of the classroom server, the walk over its endpoints too, holds of it with a database. */
if (noPostgres) it.skip(`the server with PostgreSQL: not tried, as ${noPostgres}`, () => undefined);
else {
  const cluster = await newCluster();
  afterAll(() => cluster.kill());
  tryWith(() => openPostgresStore(cluster.newDatabase(), () => undefined));
  await import('../../src/server/exchangeServer.test');
}
