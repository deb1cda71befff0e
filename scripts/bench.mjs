import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureInstalled, run } from './machine.mjs';

/** `npm run bench`: scoring in core, then the views in a browser. Prints the rows of docs/benchmarks.md. */

ensureInstalled();
ensureChromium();
ensureBuilt();
console.log(
  `\n${cpus()[0]?.model ?? 'unknown processor'} × ${cpus().length}, Node ${process.versions.node}\n`,
);
console.log('| what | figure |\n| --- | --- |');
let code =
  run('npx', ['tsx', 'bench/scoring.ts']) ||
  run('npx', ['tsx', 'bench/near.ts']) ||
  run('npx', ['tsx', 'bench/markers.ts']) ||
  run('npx', ['tsx', 'bench/figures.ts']) ||
  run('npx', ['tsx', 'bench/handback.ts']) ||
  run('npx', ['tsx', 'bench/packages.ts']) ||
  run('npx', ['tsx', 'bench/paper.ts', '23']);

const port = 4390;
const secret = { GRIBBET_TEACHER_SECRET: 'tide tables 2026 for the bench' };
const server = spawn('node', ['scripts/start.mjs'], {
  env: {
    ...process.env,
    PORT: String(port),
    HOST: '127.0.0.1',
    GRIBBET_DATA: mkdtempSync(join(tmpdir(), 'gribbet-bench-')),
    ...secret,
  },
  stdio: 'ignore',
});
try {
  for (let tries = 0; tries < 100; tries++) {
    if (
      await fetch(`http://localhost:${port}/sit`).then(
        (reply) => reply.ok,
        () => false,
      )
    )
      break;
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
  code ||= run('npx', ['tsx', 'bench/views.ts', `http://localhost:${port}`]);
  code ||= run('npx', ['tsx', 'bench/marking.ts', `http://localhost:${port}`]);
  code ||= run('npx', ['tsx', 'bench/huge.ts', `http://localhost:${port}`]);
  code ||= run('npx', ['tsx', 'bench/sheet.ts', `http://localhost:${port}`]);
  code ||= run('npx', ['tsx', 'bench/onPaper.ts', `http://localhost:${port}`]);
  code ||= run('npx', ['tsx', 'bench/years.ts', `http://localhost:${port}`]);
  code ||= run('npx', ['tsx', 'bench/running.ts', `http://localhost:${port}`]);
  code ||= run('npx', [
    'tsx',
    'bench/computers.ts',
    `http://127.0.0.1:${port}`,
    secret.GRIBBET_TEACHER_SECRET,
  ]);
  code ||= run('npx', ['tsx', 'bench/phone.ts', `http://localhost:${port}`], secret);
} finally {
  server.kill();
}
process.exit(code);
