import { defineConfig } from 'astro/config';
import node from '@astrojs/node';
import react from '@astrojs/react';

export default defineConfig({
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
  vite: {
    worker: { format: 'es' },
    build: { chunkSizeWarningLimit: 1500 },
    resolve: {
      alias: {
        '@': new URL('./src', import.meta.url).pathname,
        '@demo': new URL('./demo', import.meta.url).pathname,
      },
    },
  },
});
