import { configDefaults, defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** Files that take a minute or more: begun last, they would leave a processor with nothing to do at the end. */
const long = ['newKind', 'kills', 'paper', 'faults', 'takeOver', 'undo', 'copies'];

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const isLong = ({ moduleId }: TestSpecification) =>
      long.some((name) => moduleId.endsWith(`/${name}.test.ts`));
    const sorted = await super.sort(files);
    return [...sorted.filter(isLong), ...sorted.filter((file) => !isLong(file))];
  }
}

const core = 'src/core/**/*.test.{ts,tsx}';

export default defineConfig({
  resolve: { alias: { '@': here('./src'), '@demo': here('./demo') } },
  test: {
    // Property tests and whole pages take their time on a busy machine; what hangs still ends.
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // By itself it would leave one processor of two to nobody.
    maxWorkers: availableParallelism(),
    sequence: { sequencer: LongestFirst },
    setupFiles: ['tests/unit/jsdom.ts'],
    projects: [
      // Core keeps nothing between two calls but what may be thrown away: its tests share what they import.
      { extends: true, test: { name: 'core', include: [core], isolate: false } },
      {
        extends: true,
        test: {
          name: 'rest',
          include: [
            'src/**/*.test.{ts,tsx}',
            'demo/**/*.test.ts',
            'tests/unit/**/*.test.ts',
            'tests/fuzz/*.test.ts',
          ],
          exclude: [...configDefaults.exclude, core],
        },
      },
    ],
  },
});
