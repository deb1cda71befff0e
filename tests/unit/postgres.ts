import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { appendFileSync, chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer, connect, type Server, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Clusters of PostgreSQL in folders of their own, from Debian's packages. */

const root = '/usr/lib/postgresql';
const versions = existsSync(root) ? readdirSync(root).sort((a, b) => Number(b) - Number(a)) : [];
const bin = versions
  .map((version) => join(root, version, 'bin'))
  .find((path) => existsSync(join(path, 'initdb')));

/** PostgreSQL does not run as root; Debian's package brings a user of its own. */
const asRoot = process.getuid?.() === 0;
const user = asRoot ? spawnSync('id', ['-u', 'postgres'], { encoding: 'utf8' }).stdout.trim() : '';

/** Why no database can be started here; empty where one can. */
export const noPostgres =
  bin === undefined
    ? 'PostgreSQL is not installed here (apt-get install postgresql)'
    : asRoot && !user
      ? 'there is no user postgres, and PostgreSQL does not run as root'
      : '';

export interface Cluster {
  port: number;
  url: string;
  folder: string;
  /** As after a power cut: nothing is finished. */
  kill: () => Promise<void>;
  /** A copy of it that follows it. Afterwards nothing is acknowledged before the copy has it as well. */
  standby: () => Promise<Cluster>;
  promote: () => void;
  sql: (text: string) => string;
  sqlIn: (database: string, text: string) => string;
  /** The address of a database of its own. */
  newDatabase: () => string;
  /** A database as SQL, and such SQL put into one. */
  dump: (database: string) => string;
  restore: (database: string, sql: string) => void;
}

let databases = 0;
const running = new Set<ChildProcess>();
const folders: string[] = [];
process.once('exit', () => {
  for (const child of running) child.kill('SIGKILL');
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

const as = (command: string, args: string[]): [string, string[]] =>
  asRoot
    ? ['setpriv', ['--reuid=postgres', '--regid=postgres', '--clear-groups', command, ...args]]
    : [command, args];

function done(command: string, args: string[], input = ''): string {
  const [program, all] = as(join(bin ?? '', command), args);
  const { status, stdout, stderr } = spawnSync(program, all, {
    ...{ encoding: 'utf8', cwd: '/', input, maxBuffer: 256 * 1024 * 1024 },
  });
  if (status !== 0) throw new Error(`${command}: ${stderr}`);
  return stdout;
}

function newFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'gribbet-postgres-'));
  folders.push(folder);
  if (asRoot) chownSync(folder, Number(user), Number(user));
  return folder;
}

/** A port that nobody has at the moment. */
export async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as { port: number };
  server.close();
  await once(server, 'close');
  return port;
}

/** A new cluster that runs. */
export async function newCluster(): Promise<Cluster> {
  const folder = newFolder();
  done('initdb', ['-D', folder, '-U', 'gribbet', '-A', 'trust', '-E', 'UTF8', '--no-locale', '--no-sync']);
  appendFileSync(
    join(folder, 'postgresql.conf'),
    'wal_level = replica\nmax_wal_senders = 4\nhot_standby = on\nshared_buffers = 64MB\nmax_connections = 100\nlog_min_messages = fatal\n',
  );
  return begin(folder);
}

async function begin(folder: string): Promise<Cluster> {
  const port = await freePort();
  const [command, args] = as(join(bin ?? '', 'postgres'), [
    '-D',
    folder,
    '-p',
    String(port),
    '-h',
    '127.0.0.1',
    '-k',
    folder,
  ]);
  const child = spawn(command, args, { stdio: 'ignore', cwd: '/' });
  running.add(child);
  const addressOf = (database: string) => `postgres://gribbet@127.0.0.1:${port}/${database}`;
  const url = addressOf('postgres');
  const sqlIn = (database: string, text: string) =>
    done('psql', ['-XAtq', '-v', 'ON_ERROR_STOP=1', '-c', text, addressOf(database)]).trim();
  const sql = (text: string) => sqlIn('postgres', text);
  for (;;) {
    if (child.exitCode !== null) throw new Error('PostgreSQL ended at once');
    if (spawnSync(join(bin ?? '', 'pg_isready'), ['-q', '-d', url]).status === 0) break;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return {
    port,
    url,
    folder,
    sql,
    sqlIn,
    newDatabase: () => {
      const name = `test${++databases}`;
      sql(`create database ${name}`);
      return addressOf(name);
    },
    dump: (database) => done('pg_dump', ['-h', '127.0.0.1', '-p', String(port), '-U', 'gribbet', database]),
    restore: (database, text) => {
      done('psql', ['-Xq', '-v', 'ON_ERROR_STOP=1', addressOf(database)], text);
    },
    kill: async () => {
      if (!running.has(child)) return;
      const gone = once(child, 'exit');
      child.kill('SIGKILL');
      await gone;
      running.delete(child);
      // Its own processes end by themselves once they notice.
      spawnSync('pkill', ['-9', '-f', folder]);
    },
    standby: async () => {
      const copy = newFolder();
      done('pg_basebackup', [
        '-D',
        copy,
        '-d',
        `${url}?application_name=standby`,
        '-R',
        '-c',
        'fast',
        '--no-sync',
      ]);
      const follower = await begin(copy);
      sql("alter system set synchronous_standby_names = 'standby'");
      sql('select pg_reload_conf()');
      while (sql("select count(*) from pg_stat_replication where sync_state = 'sync'") !== '1')
        await new Promise((resolve) => setTimeout(resolve, 50));
      return follower;
    },
    promote: () => {
      // Nobody follows it in its turn.
      appendFileSync(join(folder, 'postgresql.auto.conf'), "synchronous_standby_names = ''\n");
      done('pg_ctl', ['-D', folder, '-w', 'promote']);
    },
  };
}

/** One address for whichever cluster is the first at the moment, as an address that moves from machine to machine. */
export class MovingAddress {
  private readonly sockets = new Set<Socket>();
  private constructor(
    private readonly server: Server,
    readonly port: number,
    private target: number,
  ) {}

  static async at(target: number): Promise<MovingAddress> {
    const server = createServer().listen(0, '127.0.0.1');
    await once(server, 'listening');
    const address = new MovingAddress(server, (server.address() as { port: number }).port, target);
    server.on('connection', (socket) => address.pass(socket));
    return address;
  }

  moveTo(target: number): void {
    this.target = target;
    for (const socket of this.sockets) socket.destroy();
  }

  close(): void {
    this.server.close();
    for (const socket of this.sockets) socket.destroy();
  }

  private pass(socket: Socket): void {
    const onward = connect(this.target, '127.0.0.1');
    for (const [one, other] of [
      [socket, onward],
      [onward, socket],
    ] as const) {
      this.sockets.add(one);
      one.setNoDelay(true);
      one.pipe(other);
      one.on('error', () => other.destroy());
      one.on('close', () => {
        this.sockets.delete(one);
        other.destroy();
      });
    }
  }
}
