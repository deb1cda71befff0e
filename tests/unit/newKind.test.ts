// @vitest-environment node
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, sep } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

/** A kind is laid out in a copy of the project, held against everything that is asked of all kinds, and taken away. */

const root = process.cwd();
const left = ['node_modules', '.git', 'dist', 'test-results', '.astro'].map((name) => join(root, name));
let copy = '';
/** @throws with what it said where it fails */
function run(...args: string[]): string {
  const { status, stdout, stderr } = spawnSync(process.execPath, args, {
    cwd: copy,
    encoding: 'utf8',
    env: { ...process.env, FORCE_COLOR: '0' },
  });
  if (status !== 0) throw new Error(`${stdout}${stderr}`.slice(-4_000));
  return stdout;
}

/** The tests that go over the kinds by name, and those of the views: the others have no test of one kind. */
const ofEveryKind = (): string[] =>
  ['src/core/kinds', 'src/core/formats', 'src/core/handback', 'src/islands/kinds'].flatMap((folder) =>
    readdirSync(join(copy, folder), { recursive: true, encoding: 'utf8' })
      .map((name) => join(folder, name))
      .filter((path) => /\.test\.tsx?$/.test(path))
      .filter(
        (path) => path.endsWith('x') || /kindNames|every kind/.test(readFileSync(join(copy, path), 'utf8')),
      ),
  );

beforeAll(() => {
  copy = mkdtempSync(join(tmpdir(), 'gribbet-kind-'));
  cpSync(root, copy, {
    recursive: true,
    filter: (from) => !left.some((path) => from === path || from.startsWith(path + sep)),
  });
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

describe('the kinds of question', () => {
  it('stand in registries that are as the list makes them', () => {
    expect(run('scripts/kinds.mjs', '--check')).toBe('');
  });

  it('are one more with one command: it has its types, its views, its files, and passes what all kinds pass', () => {
    const said = run('scripts/newKind.mjs', 'bearing', 'Bearing');
    expect(said).toContain('src/core/kinds/bearing, src/islands/kinds/bearing');
    // What the bundler makes of styles and pictures: its own types are there only once the project was built.
    writeFileSync(
      join(copy, 'client.d.ts'),
      ['*.module.css', '*.css', '*?inline', '*?url']
        .map((path) => `declare module '${path}' { const is: any; export default is; }`)
        .join('\n'),
    );
    writeFileSync(
      join(copy, 'tsconfig.kinds.json'),
      JSON.stringify({
        extends: './tsconfig.json',
        include: [
          'src/core',
          'src/islands/kinds',
          'src/islands/write',
          'tests/unit/samples.ts',
          'src/ui/oneIcon.d.ts',
          'client.d.ts',
        ],
      }),
    );
    run('node_modules/typescript/bin/tsc', '--noEmit', '-p', 'tsconfig.kinds.json');
    const report = join(copy, 'report.json');
    run(
      'node_modules/vitest/vitest.mjs',
      ...['run', ...ofEveryKind()],
      ...['-t', 'bearing|every kind', '--reporter=json', `--outputFile=${report}`],
    );
    expect(existsSync(report)).toBe(true);
    const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8')) as {
      numPassedTests: number;
      numFailedTests: number;
    };
    expect(numFailedTests).toBe(0);
    expect(numPassedTests).toBeGreaterThan(20);
  }, 600_000);

  it('a name that is taken, or is none, is refused and changes nothing', () => {
    expect(() => run('scripts/newKind.mjs', 'gaps', 'Gaps')).toThrow();
    expect(() => run('scripts/newKind.mjs', 'No Name', 'Gaps')).toThrow();
    expect(existsSync(join(copy, 'src/core/kinds/No Name'))).toBe(false);
  });
});
