import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';

/** What a fresh machine needs, brought in only when it is missing. Node's own modules only: nothing is installed yet. */

const stamps = '.stamps';

/** Runs a command with its output shown; the exit code. */
export function run(command, args, env = {}) {
  const result = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  return result.status ?? 1;
}

export function fail(words) {
  console.error(`\n${words}\n`);
  process.exit(1);
}

export function needNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Gribbet needs Node 20.19 or newer; this is ${process.versions.node}.`);
}

/** Installs the packages when they are not there or the lock file has changed since. */
export function ensureInstalled() {
  const lock = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  if (existsSync('node_modules') && stampOf('installed') === lock) return;
  console.log('Installing packages…');
  if (run('npm', ['ci', '--no-audit', '--no-fund']) !== 0)
    fail('The packages could not be installed. Is the npm registry in reach?');
  setStamp('installed', lock);
}

const built = ['src', 'demo', 'public', 'astro.config.mjs', 'package-lock.json', 'tsconfig.json'];

/** Builds the app when there is no build or a source has changed since. */
export function ensureBuilt() {
  const print = fingerprint(built);
  if (existsSync('dist/server/entry.mjs') && stampOf('built') === print) return;
  console.log('Building…');
  if (run('npx', ['astro', 'build']) !== 0) fail('The build failed; the lines above say where.');
  setStamp('built', print);
}

export const chromiumPath = process.env.CHROMIUM ?? '/usr/bin/chromium';

/** Installs Debian's Chromium when it is not there and we may. */
export function ensureChromium() {
  if (existsSync(chromiumPath)) return;
  const command = 'apt-get update && apt-get install -y --no-install-recommends chromium';
  if (process.getuid?.() !== 0)
    fail(
      `The browser tests need Debian's Chromium, and only root may install it. Run this once, then again:\n\n  sudo sh -c '${command}'`,
    );
  console.log('Installing Chromium…');
  if (run('sh', ['-c', command], { DEBIAN_FRONTEND: 'noninteractive' }) !== 0 || !existsSync(chromiumPath))
    fail(`Chromium could not be installed. Try by hand:\n\n  ${command}`);
}

/** True when something listens on the port already. */
export function portTaken(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(true));
    probe.listen(port, () => probe.close(() => resolve(false)));
  });
}

function stampOf(name) {
  const path = join(stamps, name);
  return existsSync(path) ? readFileSync(path, 'utf8') : '';
}

function setStamp(name, value) {
  mkdirSync(stamps, { recursive: true });
  writeFileSync(join(stamps, name), value);
}

/** Changes when any of the files does, tests aside: names, sizes and times, which is quick to read. */
function fingerprint(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    const stat = statSync(path);
    if (stat.isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name));
    else if (!/\.test\.tsx?$/.test(path)) hash.update(`${path}:${stat.size}:${stat.mtimeMs}\n`);
  };
  for (const path of paths) if (existsSync(path)) add(path);
  return hash.digest('hex');
}
