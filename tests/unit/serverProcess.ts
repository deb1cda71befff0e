import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { build } from 'esbuild';
import { request, type Dispatcher } from 'undici';

export const secret = 'SECRETFORTESTS23';

export interface ServerProcess {
  port: number;
  origin: string;
  process: ChildProcess;
  /** What it wrote so far. */
  said: () => string;
  kill: () => Promise<void>;
}

let built: Promise<string> | null = null;

/** The server as one file, made once: it is up at once, however often it is started. Its packages stay where they are. */
async function bundled(): Promise<string> {
  const outfile = resolve(`node_modules/.cache/gribbet/serve-${process.pid}.mjs`);
  await build({
    entryPoints: ['tests/server/serve.ts'],
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    outfile,
    logLevel: 'error',
  });
  process.once('exit', () => rmSync(outfile, { force: true }));
  return outfile;
}

/** Starts the classroom server as a process of its own, on a folder or a database. */
export async function startServer(store: string, port = 0): Promise<ServerProcess> {
  built ??= bundled();
  const child = spawn(process.execPath, [await built], {
    env: {
      ...process.env,
      [store.startsWith('postgres:') ? 'GRIBBET_STORE' : 'GRIBBET_DATA']: store,
      GRIBBET_TEACHER_SECRET: secret,
      PORT: String(port),
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  const listening = new Promise<number>((resolve, reject) => {
    child.stdout.on('data', (chunk) => {
      said += String(chunk);
      const found = /^port (\d+)$/m.exec(said)?.[1];
      if (found) resolve(Number(found));
    });
    child.stderr.on('data', (chunk) => (said += String(chunk)));
    child.once('exit', () => reject(new Error(`The server ended: ${said}`)));
  });
  const found = await listening;
  return {
    port: found,
    origin: `http://127.0.0.1:${found}`,
    process: child,
    said: () => said,
    kill: async () => {
      if (child.exitCode !== null || child.signalCode !== null) return;
      const gone = once(child, 'exit');
      child.kill('SIGKILL');
      await gone;
    },
  };
}

const patienceMs = 10_000;

/** A browser as far as HTTP knows one: keeps what cookies it is given, each for its path. */
export function browser(origin: () => string) {
  const cookies = new Map<string, string>();
  return async (method: string, path: string, body?: unknown) => {
    const whole = `/api/exchange${path}`;
    const cookie = [...cookies].flatMap(([where, value]) => (whole.startsWith(where) ? [value] : []));
    const to = origin();
    // The plain client of undici: what is measured with it is the server, not the client.
    const reply = await request(to + whole, {
      method: method as Dispatcher.HttpMethod,
      headers: { origin: to, 'content-type': 'application/json', cookie: cookie.join('; ') },
      ...(body !== undefined && { body: JSON.stringify(body) }),
      headersTimeout: patienceMs,
      bodyTimeout: patienceMs,
    });
    for (const set of [reply.headers['set-cookie'] ?? []].flat())
      cookies.set(/Path=([^;]*)/.exec(set)?.[1] ?? '', set.split(';')[0] ?? '');
    return { status: reply.statusCode, body: await reply.body.json() };
  };
}
