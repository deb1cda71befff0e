import { defineConfig } from 'vitest/config';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  resolve: { alias: { '@': here('./src'), '@demo': here('./demo') } },
  test: {
    // Property tests and whole pages take their time on a busy machine; what hangs still ends.
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // By itself it would leave one processor of two to nobody.
    maxWorkers: availableParallelism(),
    include: [
      'src/**/*.test.{ts,tsx}',
      'demo/**/*.test.ts',
      'tests/unit/**/*.test.ts',
      'tests/fuzz/*.test.ts',
    ],
    setupFiles: ['tests/unit/jsdom.ts'],
  },
});
