import { ensureBuilt, ensureChromium, ensureInstalled, needNode, run } from './machine.mjs';

/** `npm run test:kills`: 1,000 kills, 400 of the server and 600 of the browser. `npm test` has a short form of both. */

needNode();
ensureInstalled();
ensureChromium();
const server = run('npx', ['vitest', 'run', 'tests/unit/kills.test.ts'], { SERVER_KILLS: '400' });
ensureBuilt();
const browser = run('npx', ['playwright', 'test', 'kills.spec.ts'], { BROWSER_KILLS: '600' });
process.exit(server || browser);
