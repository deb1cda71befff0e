import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative, resolve } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { ensureChromium, ensureInstalled, ensurePostgres, needNode, run } from './machine.mjs';

/** `npm test`: installs what is missing, then types, lint, unit and end-to-end tests; counts from the runners' reports. */

needNode();
ensureInstalled();
ensureChromium();
ensurePostgres();

const reports = mkdtempSync(join(tmpdir(), 'gribbet-tests-'));
const unitReport = join(reports, 'unit.json');
const e2eReport = join(reports, 'e2e.json');
let passed = 0;
/** What failed, said once more at the end: the output of a whole run is long, and its middle may be cut off. */
const failures = [];
/** How long each test took, of how long it may. */
const durations = [];

/** Runs a command beside others: what it says is shown when it has ended. */
function beside(name, command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => said.push(part));
    child.on('close', (code) => {
      console.log(`\n— ${name}\n${Buffer.concat(said).toString()}`);
      // A check without a report of its own: it counts only when it fails.
      if (code !== 0) failures.push(name);
      resolve(code);
    });
  });
}

// Each of these keeps one processor busy. What Astro lays out for types is there before anything reads it.
if (run('npx', ['astro', 'sync']) !== 0) failures.push('astro sync');
await Promise.all([
  beside('lint', 'npm', ['run', '--silent', 'lint']),
  beside('types', 'npx', ['tsc', '--noEmit']).then(() => beside('build', 'node', ['scripts/build.mjs'])),
]);

console.log('\n— unit tests');
const unitCode = run('npx', [
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${unitReport}`,
]);
countUnit();

console.log('\n— end-to-end tests');
const e2eCode = run('npx', ['playwright', 'test'], { E2E_REPORT: e2eReport });
countE2e();

console.log('\nThe ten slowest tests:');
for (const { name, ms, limit } of durations.sort((a, b) => b.ms - a.ms).slice(0, 10)) {
  const share = limit ? `, ${Math.round((ms / limit) * 100)} % of its limit` : '';
  console.log(`  ${(ms / 1000).toFixed(1)} s${share}: ${name}`);
}

for (const failure of failures) console.log(`\nfailed: ${failure}`);
console.log(`\n${passed} passed, ${failures.length} failed`);
process.exit(failures.length > 0 ? 1 : 0);

function countUnit() {
  const report = readReport(unitReport);
  const before = failures.length;
  passed += report?.numPassedTests ?? 0;
  for (const file of report?.testResults ?? []) {
    for (const { fullName, duration } of file.assertionResults)
      durations.push({ name: `${relative(process.cwd(), file.name)} › ${fullName}`, ms: duration ?? 0 });
    const tests = file.assertionResults.filter(({ status }) => status === 'failed');
    for (const { fullName, failureMessages } of tests) tell(file.name, fullName, failureMessages.join('\n'));
    // A file that could not even be loaded has no tests.
    if (file.status === 'failed' && tests.length === 0) tell(file.name, 'the file itself', file.message);
  }
  const whole = unitCode === 0 && report?.success;
  if (!whole && failures.length === before) failures.push('unit tests');
}

function countE2e() {
  const report = readReport(e2eReport);
  const before = failures.length;
  passed += report?.stats.expected ?? 0;
  const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)];
  const all = (report?.suites ?? []).flatMap(specs);
  for (const { file, title, tests } of all)
    for (const { results, timeout } of tests)
      for (const { duration } of results)
        durations.push({ name: `tests/e2e/${file} › ${title}`, ms: duration, limit: timeout });
  for (const spec of all.filter(({ ok }) => !ok)) {
    const errors = spec.tests.flatMap(({ results }) => results.flatMap((result) => result.errors ?? []));
    tell(join('tests/e2e', spec.file), spec.title, errors.map(({ message }) => message).join('\n'));
  }
  const whole = e2eCode === 0 && report && report.stats.unexpected + report.stats.flaky === 0;
  if (!whole && failures.length === before) failures.push('end-to-end tests');
}

function readReport(path) {
  return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null;
}

/** Notes one test that failed, with the beginning of what was said. */
function tell(file, title, words = '') {
  const begun = stripVTControlCharacters(words).split('\n').slice(0, 8).join('\n  ');
  failures.push(`${relative(process.cwd(), resolve(file))} › ${title}\n  ${begun}`);
}
