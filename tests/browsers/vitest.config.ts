import { defineConfig } from 'vitest/config';
import usual from '../../vitest.config';

/** Browsers that are not Chromium: one after the other, on the machine’s own programs. */
export default defineConfig({
  resolve: usual.resolve ?? {},
  test: { include: ['tests/browsers/*.test.ts'], fileParallelism: false },
});
