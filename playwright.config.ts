import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 4399);

/** What the browser does beside the pages: none of it is tested, and two popups of the address bar cost each window two seconds. */
const notInTests = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  // What Playwright turns off by itself: of two lists Chromium reads the last.
  'AimEnabled',
  'AvoidCorsURLLoaderRestartOnRedirect',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsFirstBalancedModeAutoEnable',
  'HttpsUpgrades',
  'LensOverlay',
  'MediaRouter',
  'NetworkTimeServiceQuerying',
  'OptimizationHints',
  'PaintHolding',
  'PreconnectToSearch',
  'ThirdPartyStoragePartitioning',
];

export default defineConfig({
  testDir: 'tests/e2e',
  fullyParallel: true,
  // As many as the smallest machine has processors: a third one made all of them slower (172 s became 220 s).
  workers: 2,
  // The machine may be busy with something else as well; a test that hangs still ends.
  timeout: 180_000,
  // A desk of its own is laid out in four seconds; beside others on a busy machine it took more than thirty.
  expect: { timeout: 60_000 },
  retries: 0,
  reporter: process.env.E2E_REPORT
    ? [['list'], ['json', { outputFile: process.env.E2E_REPORT }]]
    : [['list']],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // What is kept in the browser has a test of its own; elsewhere each page comes from the server.
    serviceWorkers: 'block',
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
        `--disable-features=${notInTests.join(',')}`,
        // A name that is not this computer’s own: a page there is not secure, as on a phone in the classroom.
        '--host-resolver-rules=MAP classroom.test 127.0.0.1',
      ],
    },
  },
  webServer: [server(port, {}), server(port + 1, { GRIBBET_DEMO: '0' })],
});

/** The app on a port, with an exchange folder that nobody used before; the second one has an empty desk. */
function server(onPort: number, env: Record<string, string>) {
  return {
    env: {
      ...env,
      PORT: String(onPort),
      HOST: '127.0.0.1',
      GRIBBET_DATA: mkdtempSync(join(tmpdir(), 'gribbet-e2e-')),
      GRIBBET_TEACHER_SECRET: 'tide tables 2026 for tests',
    },
    command: 'node scripts/start.mjs',
    url: `http://localhost:${onPort}/sit`,
    timeout: 300_000,
    reuseExistingServer: !process.env.CI,
  };
}
