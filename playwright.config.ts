import { defineConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 4399);

export default defineConfig({
  testDir: 'tests/e2e',
  fullyParallel: true,
  workers: 2,
  timeout: 60_000,
  expect: { timeout: 8_000 },
  retries: 0,
  reporter: process.env.E2E_REPORT
    ? [['list'], ['json', { outputFile: process.env.E2E_REPORT }]]
    : [['list']],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: [
    { ...server(port), env: { PORT: String(port), HOST: '127.0.0.1' } },
    // The same app with an empty desk.
    { ...server(port + 1), env: { PORT: String(port + 1), HOST: '127.0.0.1', GRIBBET_DEMO: '0' } },
  ],
});

function server(onPort: number) {
  return {
    command: 'node scripts/start.mjs',
    url: `http://localhost:${onPort}/sit`,
    timeout: 300_000,
    reuseExistingServer: !process.env.CI,
  };
}
