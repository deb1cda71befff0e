import type { BrowserContext, Page } from '@playwright/test';
import { contentOf } from '@/core/formats/backup';
import { backupBytes } from '../tests/unit/savedDesk';
import { bigDesk } from './bigDesk';
import { launched, pressedUntil, row } from './measure';
import { slowNetwork } from './slowNetwork';

/**
 * A desk of 550 attempts × 50 questions on two computers, each with 20 Mbit/s and 20 ms to the server: sent and taken over for the first
 * time, and again after a mark.
 */

const server = new URL(process.argv[2] ?? 'http://127.0.0.1:4390');
const secret = process.argv[3] ?? '';
const line = { bitsPerSecond: 20_000_000, delayMs: 10 };

const browser = await launched();
const open: (() => void)[] = [];
try {
  const school = await computer('School');
  const buffer = Buffer.from(await backupBytes(contentOf(bigDesk()), '2026-11-01T10:00:00.000Z'));
  await school.page.goto('/backup');
  await school.page
    .locator('input[type=file]')
    .setInputFiles({ name: 'big.zip', mimeType: 'application/zip', buffer });
  await school.page.getByRole('button', { name: 'Replace permanently' }).click();
  await school.page.getByText(/is restored$/).waitFor({ timeout: 60_000 });
  await pair(school.page, 'School');
  let before = school.passed();
  let began = performance.now();
  await sent(school.page);
  const up = school.passed().up - before.up;
  row('desk of 550 × 50 sent for the first time', `${seconds(began)}, ${megabytes(up)}`);

  const home = await computer('Home');
  await pair(home.page, 'Home');
  await home.page.getByText('School').first().waitFor();
  await sent(home.page);
  await home.page.goto('/computers');
  before = home.passed();
  began = performance.now();
  await home.page.getByRole('button', { name: 'Take this desk over here: School' }).click();
  await home.page.getByRole('button', { name: 'Replace permanently' }).click();
  await home.page.getByText('The desk is here now, no longer on School').waitFor({ timeout: 120_000 });
  row(
    'taken over for the first time, with the question and the last changes',
    `${seconds(began)}, ${megabytes(home.passed().down - before.down)}`,
  );

  await settle(home.page);
  await mark(home.page);
  await school.page.goto('/computers');
  await school.page.getByText(/^This desk is on Home since/).waitFor({ timeout: 60_000 });
  before = school.passed();
  // A hand does not press in the instant in which the page stands.
  await school.page.waitForTimeout(1_500);
  let took = await pressedUntil(takeHere(school.page), 'The desk is here now, no longer on Home');
  row(
    'taken back a moment after a mark, which is sent first, from the press to the word',
    `${(took / 1000).toFixed(1)} s, ${megabytes(school.passed().down - before.down)}`,
  );

  await settle(school.page);
  await mark(school.page);
  await sent(school.page);
  await school.page.close();
  await new Promise((resolve) => setTimeout(resolve, 15_000));
  await home.page.goto('/computers');
  await home.page.getByText(/^This desk is on School since/).waitFor({ timeout: 60_000 });
  before = home.passed();
  await home.page.waitForTimeout(1_500);
  took = await pressedUntil(takeHere(home.page), 'The desk is here now, no longer on School');
  row(
    'taken over from a computer that is shut off, after a mark, from the press to the word',
    `${(took / 1000).toFixed(1)} s, ${megabytes(home.passed().down - before.down)}`,
  );
} finally {
  for (const close of open) close();
  await browser.close();
}
process.exit(0);

function takeHere(page: Page) {
  return page.getByRole('button', { name: 'Take the desk over here' });
}

async function computer(_name: string) {
  const network = await slowNetwork({ host: server.hostname, port: Number(server.port) }, line);
  open.push(network.close);
  const context: BrowserContext = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: `http://127.0.0.1:${network.port}`,
  });
  context.setDefaultTimeout(60_000);
  const page = await context.newPage();
  await page.goto('/groups');
  await page.getByRole('heading', { level: 1 }).waitFor();
  return { page, passed: network.passed };
}

async function pair(page: Page, name: string): Promise<void> {
  await page.goto('/computers');
  await page.getByLabel('The teacher’s secret').fill(secret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  await page.getByLabel('What it is called').fill(name);
  await page.getByLabel('What it is called').press('Enter');
  await page.getByText(`This computer is called ${name} now`).waitFor();
}

/** Waits until all that was done is on the server. */
async function sent(page: Page): Promise<void> {
  await page.goto('/backup');
  await page
    .getByText('sealed with the teacher’s secret: last backup')
    .filter({ hasText: 'nothing has changed since' })
    .waitFor({ timeout: 180_000 });
}

/** Until its answers were looked through with the server's, after it came. */
async function settle(page: Page): Promise<void> {
  await page.goto('/sittings/big/mark');
  await page.locator('[data-row="0"]').waitFor();
  await page.waitForTimeout(8_000);
}

async function mark(page: Page): Promise<void> {
  await page.goto('/sittings/big/mark');
  await page.locator('[data-row="0"]').waitFor();
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
}

function seconds(began: number): string {
  return `${((performance.now() - began) / 1000).toFixed(1)} s`;
}

function megabytes(bytes: number): string {
  return `${(bytes / 1_000_000).toFixed(2)} MB`;
}
