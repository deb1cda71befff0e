import { fileURLToPath } from 'node:url';
import { defineConfig, passthroughImageService } from 'astro/config';
import node from '@astrojs/node';
import react from '@astrojs/react';
import { coreIsPure } from './scripts/coreIsPure.mjs';
import { guideLinks } from './scripts/guideLinks.mjs';

const here = (path) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  // Each build in a folder of its own: scripts/machine.mjs.
  outDir: process.env.GRIBBET_BUILD ?? './dist/by-hand',
  output: 'server',
  // scripts/start.mjs gives out the files, and asks Astro for the rest.
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  server: { port: Number(process.env.PORT ?? 4321) },
  devToolbar: { enabled: false },
  telemetry: false,
  // The exchange checks the origin of every change itself, and says so in its own words.
  security: { checkOrigin: false },
  session: { driver: 'memory' },
  // The guide: its pictures go out as they are.
  image: { service: passthroughImageService() },
  markdown: { remarkPlugins: [guideLinks], syntaxHighlight: false },
  vite: {
    plugins: [coreIsPure()],
    worker: { format: 'es', plugins: () => [coreIsPure()] },
    build: {
      chunkSizeWarningLimit: 1500,
      rollupOptions: {
        output: {
          // Many small files pack worse than few.
          experimentalMinChunkSize: 20_000,
          // But what only a page without the browser's own cryptography needs is never put together with the rest.
          manualChunks: (id) => (/@noble|cryptoLibrary/.test(id) ? 'cryptoLibrary' : undefined),
        },
      },
    },
    resolve: {
      alias: [
        // The package's own entry looks for copies of itself in the old way; this is the same for browsers of today.
        { find: 'dexie', replacement: here('./node_modules/dexie/dist/modern/dexie.mjs') },
        { find: /^zod$/, replacement: here('./src/jitlessZod.ts') },
        { find: '@', replacement: here('./src') },
        { find: '@demo', replacement: here('./demo') },
      ],
    },
  },
});
