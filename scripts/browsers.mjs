import { ensureBuilt, ensureInstalled, ensureOtherBrowsers, needNode, run } from './machine.mjs';

/** `npm run test:browsers`: a student's path, marking and the live grid in Firefox and in WebKit. */

needNode();
ensureInstalled();
ensureOtherBrowsers();
ensureBuilt();
process.exit(run('npx', ['vitest', 'run', '--config', 'tests/browsers/vitest.config.ts']));
