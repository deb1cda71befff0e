import { readdirSync, readFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { newCluster, noPostgres } from '../tests/unit/postgres';
import { startServer } from '../tests/unit/serverProcess';
import { seated, share } from './load';

/**
 * A school of 2,000 students who answer 50 questions each within five minutes, over three servers that share a PostgreSQL
 * database, all on this machine. Says what an answer costs. `npm run bench:school [students] [questions] [seconds] [servers]`
 */

if (noPostgres) {
  console.error(`It cannot be measured: ${noPostgres}.`);
  process.exit(1);
}
const [students = 2_000, questions = 50, seconds = 300, count = 3] = process.argv.slice(2).map(Number);

/** Seconds of processor time that the processes used so far whose command line says so, ended ones aside. */
function processorS(said: RegExp): number {
  let ticks = 0;
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      if (!said.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' '))) continue;
      // proc(5): user and system time, fields 14 and 15 of stat, counted after the name in brackets.
      const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
        .replace(/^.*\)\s/s, '')
        .split(' ');
      ticks += Number(fields[11]) + Number(fields[12]);
    } catch {
      // It ended meanwhile.
    }
  return ticks / 100;
}

const cluster = await newCluster();
// As a school would: what was acknowledged is on its disk.
cluster.sql('alter system set fsync = on');
const servers = await Promise.all(Array.from({ length: count }, () => startServer(cluster.url)));
process.on('exit', () => servers.forEach((server) => server.process.kill('SIGKILL')));
const { answer } = await seated({
  ...{ students, questions, windowMs: seconds * 1000 },
  origins: servers.map(({ origin }) => origin),
});
const figures = () => ({
  servers: processorS(/gribbet\/serve-/),
  database: processorS(/^postgres/),
  clients: process.cpuUsage().user / 1e6 + process.cpuUsage().system / 1e6,
  written: Number(cluster.sql("select pg_wal_lsn_diff(pg_current_wal_lsn(), '0/0')")),
  transactions: Number(cluster.sql("select xact_commit from pg_stat_database where datname = 'postgres'")),
});
const before = figures();
const { latencies, tookS, notAcknowledged, lost } = await answer();
const after = figures();
const each = (name: keyof typeof before) => (after[name] - before[name]) / latencies.length;
const ms = (value: number) => `${value.toFixed(1)} ms`;
console.log(`${students} students, ${questions} questions, ${count} servers, ${cpus().length} processors`);
console.log(
  `${latencies.length} answers in ${tookS.toFixed(1)} s (${Math.round(latencies.length / tookS)} a second), ${notAcknowledged} not acknowledged, ${lost} lost`,
);
console.log(
  `acknowledged: median ${ms(share(latencies, 0.5))}, 99 in 100 within ${ms(share(latencies, 0.99))}, slowest ${ms(share(latencies, 1))}`,
);
console.log(
  `an answer costs ${ms(each('servers') * 1000)} of processor in the servers, ${ms(each('database') * 1000)} in the database (clients here: ${ms(each('clients') * 1000)}), ${Math.round(each('written'))} bytes of log, ${each('transactions').toFixed(1)} transactions`,
);
console.log(
  `kept: ${cluster.sql("select pg_size_pretty(pg_total_relation_size('gribbet_rows'))")} for ${cluster.sql('select count(*) from gribbet_rows')} rows`,
);
await Promise.all(servers.map((server) => server.kill()));
await cluster.kill();
process.exit(notAcknowledged + lost > 0 ? 1 : 0);
