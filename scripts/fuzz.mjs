import { ensureInstalled, needNode, run } from './machine.mjs';

/** `npm run fuzz`: 10,000 spoilt files over all readers. `npm test` has a short form of it. */

needNode();
ensureInstalled();
process.exit(run('npx', ['vitest', 'run', 'tests/fuzz'], { FUZZ_RUNS: process.env.FUZZ_RUNS ?? '10000' }));
