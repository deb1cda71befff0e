import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

/** What a fresh machine needs, brought in only when it is missing. Node's own modules only: nothing is installed yet. */

/** Where a relative path in the surroundings is meant from; all else is found from the folder of the app. */
export const startedIn = process.cwd();
process.chdir(fileURLToPath(new URL('..', import.meta.url)));
if (process.env.GRIBBET_DATA) process.env.GRIBBET_DATA = resolve(startedIn, process.env.GRIBBET_DATA);

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

/** The same as `engines` in package.json: what the packages that we stand on run on. */
export function needNode() {
  if (process.platform === 'win32')
    fail('Gribbet runs on Linux and macOS. On Windows, use it within the Windows Subsystem for Linux.');
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  const runs = (major === 20 && minor >= 19) || (major === 22 && minor >= 12) || major >= 24;
  if (!runs) fail(`Gribbet needs Node 20.19, 22.12, 24 or newer; this is ${process.versions.node}.`);
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

const sources = [
  'src',
  'demo',
  'public',
  'scripts/astro',
  'docs/guide',
  'docs/screenshots',
  'astro.config.mjs',
  'package-lock.json',
  'tsconfig.json',
];
const builds = 'dist';
/** So many older builds stay: a server that runs goes on with the one it was started with. */
const olderBuilds = 2;

/**
 * Builds the app when there is no build of these sources.
 *
 * @returns the folder of the build; what is in it never changes
 */
export function ensureBuilt() {
  const name = fingerprint(sources).slice(0, 12);
  const build = join(builds, name);
  if (existsSync(join(build, 'server/entry.mjs'))) return build;
  const free = lockBuilds();
  try {
    // Another start may have built it meanwhile.
    if (existsSync(join(build, 'server/entry.mjs'))) return build;
    console.log('Building…');
    const next = join(builds, `next-${process.pid}`);
    const astro = join('node_modules', 'astro', 'astro.js');
    // With little room for what is new a fifth of the time goes into tidying it (Node, "--max-semi-space-size").
    const command = ['--max-semi-space-size=128', astro, 'build'];
    if (run(process.execPath, command, { GRIBBET_BUILD: next, GRIBBET_SOURCES: name }) !== 0) {
      rmSync(next, { recursive: true, force: true });
      fail('The build failed; the lines above say where.');
    }
    compressAll(join(next, 'client'));
    renameSync(next, build);
    dropOlder(build);
    return build;
  } finally {
    free();
  }
}

/** Waits until no other start builds, and keeps others waiting until it is given free. */
function lockBuilds() {
  mkdirSync(builds, { recursive: true });
  const lock = join(builds, 'building');
  const held = () => {
    try {
      process.kill(Number(readFileSync(lock, 'utf8')), 0);
      return true;
    } catch {
      return false;
    }
  };
  for (let told = false; ; told = true) {
    try {
      writeFileSync(lock, String(process.pid), { flag: 'wx' });
      return () => rmSync(lock, { force: true });
    } catch (error) {
      if (error.code !== 'EEXIST') fail(`The build cannot be written (${error.message}).`);
    }
    // Its process ended without giving it free.
    if (!held()) rmSync(lock, { force: true });
    else if (!told) console.log('Another start builds already; waiting for it…');
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 400);
  }
}

function dropOlder(build) {
  const all = readdirSync(builds)
    .map((name) => join(builds, name))
    .filter((path) => path !== build && statSync(path).isDirectory())
    .sort((a, b) => statSync(b).mtimeMs - statSync(a).mtimeMs);
  for (const path of all.slice(olderBuilds)) rmSync(path, { recursive: true, force: true });
}

/** What is worth being sent packed; fonts and pictures are already. */
const packable = /\.(js|css|svg|html|json|wasm|txt)$/;
const leastBytes = 1024;
/** Beyond this the best brotli takes long for little. */
const bestUpTo = 160 * 1024;

/** Puts a `.br` (RFC 7932) and a `.gz` (RFC 1952) beside each file that gets smaller by it. */
function compressAll(folder) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) compressAll(path);
    else if (packable.test(name) && statSync(path).size > leastBytes) {
      const bytes = readFileSync(path);
      const quality = bytes.length > bestUpTo ? 9 : 11;
      writeFileSync(
        `${path}.br`,
        brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }),
      );
      writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
    }
  }
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

/**
 * Installs Debian's PostgreSQL when it is not there and we may; its package starts no database of its own then. Without it
 * the tests that need it are skipped, and say so.
 */
export function ensurePostgres() {
  if (existsSync('/usr/lib/postgresql') || process.getuid?.() !== 0) return;
  console.log('Installing PostgreSQL…');
  const command = [
    'mkdir -p /etc/postgresql-common',
    'echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.conf',
    'apt-get update',
    'apt-get install -y --no-install-recommends postgresql',
  ].join(' && ');
  if (run('sh', ['-c', command], { DEBIAN_FRONTEND: 'noninteractive' }) !== 0)
    console.log('PostgreSQL could not be installed: the tests that need it are skipped.');
}

const otherBrowsers = ['firefox-esr', 'libwebkit2gtk-4.1-0', 'webkit2gtk-driver', 'xvfb'];

/** Installs the browsers of Debian that are not Chromium, and what they need to be driven, when they are not there and we may. */
export function ensureOtherBrowsers() {
  const there = ['firefox-esr', 'WebKitWebDriver', 'Xvfb'].every((name) => existsSync(`/usr/bin/${name}`));
  if (there) return;
  const command = `apt-get update && apt-get install -y --no-install-recommends ${otherBrowsers.join(' ')}`;
  if (process.getuid?.() !== 0)
    fail(`Only root may install the browsers. Run this once:\n\n  sudo sh -c '${command}'`);
  if (run('sh', ['-c', command], { DEBIAN_FRONTEND: 'noninteractive' }) !== 0)
    fail(`The browsers could not be installed. Try by hand:\n\n  ${command}`);
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

/** Changes when any of the files does, tests aside, and stays the same for a copy of the folder. */
function fingerprint(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name));
    else if (!/\.test\.tsx?$/.test(path)) hash.update(`${path}\n`).update(readFileSync(path));
  };
  for (const path of paths) if (existsSync(path)) add(path);
  return hash.digest('hex');
}
