import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureInstalled, needNode, run } from './machine.mjs';

/** `npm test`: installs what is missing, then types, lint, unit and end-to-end tests; counts from the runners' reports. */

needNode();
ensureInstalled();
ensureChromium();

const reports = mkdtempSync(join(tmpdir(), 'gribbet-tests-'));
const unitReport = join(reports, 'unit.json');
const e2eReport = join(reports, 'e2e.json');
let passed = 0;
let failed = 0;

/** A check without a report of its own: it counts only when it fails. */
function check(name, command, args) {
  console.log(`\n— ${name}`);
  if (run(command, args) !== 0) failed++;
}

check('types', 'npm', ['run', '--silent', 'typecheck']);
check('lint', 'npm', ['run', '--silent', 'lint']);

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
ensureBuilt();
const e2eCode = run('npx', ['playwright', 'test'], { E2E_REPORT: e2eReport });
countE2e();

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);

function countUnit() {
  const report = existsSync(unitReport) ? JSON.parse(readFileSync(unitReport, 'utf8')) : null;
  passed += report?.numPassedTests ?? 0;
  // A file that could not even be loaded has failed suites without failed tests.
  const lost = report ? Math.max(report.numFailedTests, report.success ? 0 : 1) : 1;
  failed += unitCode === 0 ? lost : Math.max(1, lost);
}

function countE2e() {
  const stats = existsSync(e2eReport) ? JSON.parse(readFileSync(e2eReport, 'utf8')).stats : null;
  passed += stats?.expected ?? 0;
  const lost = (stats?.unexpected ?? 1) + (stats?.flaky ?? 0);
  failed += e2eCode === 0 ? lost : Math.max(1, lost);
}
