import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { secret } from '../tests/unit/serverProcess';
import { seated, share, untilThere } from './load';

/**
 * A class hour of 550 students at 50 questions, squeezed into a minute, against the real server: every answer is handed
 * over by itself and is on disk when it is answered. `npm run bench:server`
 */

const port = 4555;
const origin = `http://127.0.0.1:${port}`;
const folder = mkdtempSync(join(tmpdir(), 'gribbet-bench-'));
const server = spawn(process.execPath, ['scripts/start.mjs'], {
  env: {
    ...process.env,
    PORT: String(port),
    HOST: '127.0.0.1',
    GRIBBET_DATA: folder,
    GRIBBET_TEACHER_SECRET: secret,
  },
  stdio: 'ignore',
});
// However this ends: a server left behind would be measured by the next run.
process.on('exit', () => {
  server.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});
await untilThere(origin);

const load = { students: 550, questions: 50, windowMs: 60_000, origins: [origin] };
const { desk, answer } = await seated(load);
/** How long the same server takes to say that it is there, with nobody else asking. */
const idle: number[] = [];
for (let n = 0; n < 300; n++) {
  const before = performance.now();
  await desk('GET', '/');
  idle.push(performance.now() - before);
}
idle.sort((a, b) => a - b);
const { latencies, tookS, notAcknowledged, lost } = await answer();
const ms = (value: number) => `${value.toFixed(1)} ms`;
console.log(`${load.students} students, ${load.questions} questions, ${cpus().length} processors`);
console.log(
  `${latencies.length} answers in ${tookS.toFixed(1)} s, ${notAcknowledged} not acknowledged, ${lost} lost`,
);
console.log(
  `an answer on disk: median ${ms(share(latencies, 0.5))}, 99 in 100 within ${ms(share(latencies, 0.99))}`,
);
console.log(
  `slowest ${ms(share(latencies, 1))}; the idle server answers "I am there" in ${ms(share(idle, 0.5))}`,
);
console.log(`ratio of the medians: ${(share(latencies, 0.5) / share(idle, 0.5)).toFixed(1)}`);
process.exit(notAcknowledged + lost > 0 ? 1 : 0);
