import { ensureBuilt, ensureChromium, ensureInstalled, ensurePostgres, needNode, run } from './machine.mjs';

/**
 * `npm run test:faults`: 1,000 kills, 400 of the server and 600 of the browser, then 100 of one of three servers that share
 * a database, and of the database. `npm test` has a short form of each.
 */

needNode();
ensureInstalled();
ensureChromium();
ensurePostgres();
const server = run('npx', ['vitest', 'run', 'tests/unit/kills.test.ts', 'tests/unit/faults.test.ts'], {
  SERVER_KILLS: '400',
  SHARED_KILLS: '100',
});
ensureBuilt();
const browser = run('npx', ['playwright', 'test', 'kills.spec.ts'], { BROWSER_KILLS: '600' });
process.exit(server || browser);
