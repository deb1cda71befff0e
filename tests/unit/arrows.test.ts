import { mkdir, mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { cruise, type IReporterOutput } from 'dependency-cruiser';
import { describe, expect, it } from 'vitest';
import config from '../../.dependency-cruiser.mjs';

/** The rules that a small house breaks. */
async function broken(files: Record<string, string>): Promise<string[]> {
  const baseDir = await mkdtemp(join(tmpdir(), 'gribbet-arrows-'));
  for (const [path, text] of Object.entries(files)) {
    await mkdir(dirname(join(baseDir, path)), { recursive: true });
    await writeFile(join(baseDir, path), text);
  }
  const { tsConfig: _, ...options } = config.options ?? {};
  const { output }: IReporterOutput = await cruise(['src'], {
    ...options,
    baseDir,
    validate: true,
    ruleSet: config,
  });
  if (typeof output === 'string') throw new Error(output);
  return [...new Set(output.summary.violations.map(({ rule }) => rule.name))];
}

const tables = { 'src/store/tables.ts': 'export const desk = 1;' };

describe('the arrows', () => {
  it('a house that keeps them breaks none', async () => {
    expect(
      await broken({ ...tables, 'src/desk/Strip.tsx': "export { desk } from '../store/tables';" }),
    ).toEqual([]);
  });

  it.each([
    [
      'a student’s page that reaches the tables',
      'student',
      'src/islands/student/A.tsx',
      '../../store/tables',
    ],
    ['the server an island', 'server', 'src/server/a.ts', '../islands/mark/A'],
    ['core the store, by its type alone', 'core', 'src/core/model/a.ts', '../../store/tables'],
    ['a folder of core one above it', 'core-kinds', 'src/core/kinds/a.ts', '../scoring/a'],
    ['a part of the interface the store', 'ui', 'src/ui/A.tsx', '../store/tables'],
    ['one view another', 'one-view-another', 'src/islands/run/A.tsx', '../mark/A'],
  ])('%s is told', async (_, rule, path, to) => {
    const target = join(dirname(path), to);
    const found = await broken({
      ...tables,
      [`${target}.${/A$/.test(to) ? 'tsx' : 'ts'}`]: 'export const desk = 1; export type Desk = 1;',
      [path]: `import type { Desk } from '${to}'; export const a: Desk = 1;`,
    });
    expect(found).toContain(rule);
  });

  it('a student’s page that gets there through a carrier is told, too', async () => {
    const found = await broken({
      ...tables,
      'src/carriers/b.ts': "export { desk } from '../store/tables';",
      'src/islands/student/A.tsx': "export { desk } from '../../carriers/b';",
    });
    expect(found).toEqual(['student']);
  });

  it('two files that import each other are told', async () => {
    const found = await broken({
      'src/core/model/a.ts': "import { b } from './b'; export const a = () => b;",
      'src/core/model/b.ts': "import { a } from './a'; export const b = () => a;",
    });
    expect(found).toEqual(['no-ring']);
  });
});
