import { fileURLToPath } from 'node:url';
import { defineConfig } from 'astro/config';
import node from '@astrojs/node';
import pwa from '@vite-pwa/astro';
import react from '@astrojs/react';
import { coreIsPure } from './scripts/astro/coreIsPure.mjs';
import { guideLinks } from './scripts/astro/guideLinks.mjs';
import { offline } from './scripts/astro/offline.mjs';
import { preloads } from './scripts/astro/preloads.mjs';

const here = (path) => fileURLToPath(new URL(path, import.meta.url));

/** What is never put into a file with anything else, by the name of its own. */
const apart = {
  // For a page without the browser's own cryptography.
  cryptoLibrary: /@noble\/ciphers|@noble\/hashes\/(pbkdf2|hmac)|cryptoLibrary/,
  guideWords: /\/docs\/guide\//,
};

/** How scripts are put into files. */
const files = {
  // Many small files pack worse than few; but the larger this is, the more of other views comes with each (measured with
  // 0 to 20,000: at 0 the desk is sent a tenth less, and a phone 22 KB more).
  experimentalMinChunkSize: 10_000,
  // But some things are never put together with the rest: they are for whoever asks for them.
  manualChunks: (id) => Object.keys(apart).find((name) => apart[name].test(id)),
  onlyExplicitManualChunks: true,
};

export default defineConfig({
  // Each build in a folder of its own: scripts/machine.mjs.
  outDir: process.env.GRIBBET_BUILD ?? './dist/by-hand',
  output: 'server',
  // scripts/start.mjs gives out the files, and asks Astro for the rest.
  adapter: node({ mode: 'middleware' }),
  integrations: [
    react(),
    // Works without a network once it was opened: src/offline.
    pwa({
      strategies: 'injectManifest',
      srcDir: 'src/offline',
      filename: 'serviceWorker.ts',
      injectRegister: false,
      manifest: {
        id: '/',
        name: 'Gribbet',
        short_name: 'Gribbet',
        description: 'A teacher’s workbench for quizzes and exams',
        start_url: '/',
        display: 'standalone',
        background_color: '#f7f2e7',
        theme_color: '#f7f2e7',
        icons: [
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png', purpose: 'any' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
        ],
      },
      injectManifest: {
        // Fonts in older formats are for browsers that have no service workers.
        globPatterns: ['_astro/**/*.{js,mjs,css,woff2,wasm,svg,png,jpg}', 'icon.svg'],
        maximumFileSizeToCacheInBytes: 20_000_000,
        buildPlugins: { vite: [offline(here('.'), process.env.GRIBBET_SOURCES ?? 'by hand')] },
      },
    }),
  ],
  server: { port: Number(process.env.PORT ?? 4321) },
  devToolbar: { enabled: false },
  telemetry: false,
  // The exchange checks the origin of every change itself, and says so in its own words.
  security: { checkOrigin: false },
  session: { driver: 'memory' },
  image: { service: { entrypoint: here('./scripts/astro/plainImages.mjs') } },
  markdown: { remarkPlugins: [guideLinks], syntaxHighlight: false },
  vite: {
    plugins: [coreIsPure(), preloads()],
    worker: { format: 'es', plugins: () => [coreIsPure()], rollupOptions: { output: files } },
    build: { chunkSizeWarningLimit: 1500, rollupOptions: { output: files } },
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
