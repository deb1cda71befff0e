import { createServer, request, type Server } from 'node:http';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type BrowserContext } from '@playwright/test';
import { enterAs } from './steps';

/** A server that can be gone, and have a newer version: it stands before the one of the other tests. */
class Between {
  newer = false;
  private server: Server | null = null;
  port = 0;

  constructor(private readonly behind: URL) {}

  async here(): Promise<void> {
    this.server = createServer((asked, answer) => {
      const { hostname, port } = this.behind;
      const headers = { ...asked.headers, 'accept-encoding': 'identity' };
      if (this.newer) delete headers['if-none-match'];
      const through = request(
        { hostname, port, path: asked.url, method: asked.method, headers },
        (response) => {
          if (!this.newer || asked.url !== '/serviceWorker.js') {
            answer.writeHead(response.statusCode ?? 500, response.headers);
            response.pipe(answer);
            return;
          }
          const parts: Buffer[] = [];
          response.on('data', (part: Buffer) => parts.push(part));
          response.on('end', () => {
            const text = Buffer.concat(parts).toString();
            answer.writeHead(200, { 'content-type': 'text/javascript', 'cache-control': 'no-cache' });
            answer.end(text.replace(/(const \w+=)"[0-9a-f]{12}"/, '$1"a newer one"'));
          });
        },
      );
      through.on('error', () => answer.destroy());
      asked.pipe(through);
    });
    await new Promise<void>((listens) => this.server?.listen(this.port, () => listens()));
    this.port = (this.server?.address() as { port: number }).port;
  }

  async gone(): Promise<void> {
    this.server?.closeAllConnections();
    await new Promise((closed) => this.server?.close(closed));
  }

  get address(): string {
    return `http://localhost:${this.port}`;
  }
}

let between: Between;
let open: () => Promise<BrowserContext>;

test.beforeEach(async ({ playwright, launchOptions, baseURL }) => {
  between = new Between(new URL(baseURL ?? ''));
  await between.here();
  const profile = mkdtempSync(join(tmpdir(), 'gribbet-offline-'));
  open = () =>
    playwright.chromium.launchPersistentContext(profile, {
      ...launchOptions,
      viewport: { width: 1280, height: 800 },
      locale: 'en-GB',
      serviceWorkers: 'allow',
      acceptDownloads: true,
    });
});
test.afterEach(() => between.gone());

/** Asks for the whole desk to be kept, as a teacher does under Help. */
async function keepDesk(context: BrowserContext): Promise<void> {
  const page = await context.newPage();
  await page.goto(between.address);
  await expect(page.getByRole('heading', { name: 'Quiz 2: collision rules' })).toBeVisible();
  await page.getByRole('button', { name: /^Help/ }).click();
  await page.getByRole('button', { name: 'Make it work without a network' }).click();
  await expect(page.getByText('opens in this browser without a network, too')).toBeVisible();
  await page.close();
}

test('with the server gone and the browser started anew, desk and students’ page work', async () => {
  let context = await open();
  await keepDesk(context);
  await context.close();
  await between.gone();

  context = await open();
  const page = await context.newPage();
  const failed: string[] = [];
  page.on('pageerror', ({ message }) => failed.push(message));
  await page.goto(between.address);
  await expect(page.getByRole('heading', { name: 'Quiz 2: collision rules' })).toBeVisible();

  // Written.
  await page.goto(`${between.address}/papers/paper-weather`);
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('Quiz 3: weather, without a network');
  await expect(page.getByRole('status').filter({ hasText: 'Title changed' })).toBeVisible();

  // Marked, and there after a reload.
  await page.goto(`${between.address}/sittings/tides/mark?question=p10`);
  const current = page.getByRole('list', { name: 'Answers' }).locator('[aria-current=true]');
  await expect(current).toBeFocused();
  await page.keyboard.press('*');
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeVisible();

  // Rehearsed by the made-up class.
  await page.goto(`${between.address}/papers/paper-tides/give`);
  await page.getByRole('button', { name: /^Rehearse with/ }).click();
  await expect(page.getByRole('heading', { name: /^Rehearsal: / })).toBeVisible();

  // Carried in files.
  await page.goto(`${between.address}/sittings/rules/by-hand`);
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: /^Save the paper/ })
      .first()
      .click(),
  ]);
  expect(saved.suggestedFilename()).not.toBe('');

  // Read in the guide, with its pictures.
  await page.goto(`${between.address}/guide/mark`);
  const picture = page.getByRole('img', { name: 'Marking one question' });
  await expect(picture).toBeVisible();
  const width = () => picture.evaluate((image) => (image as HTMLImageElement).naturalWidth);
  await expect.poll(width).toBeGreaterThan(1000);

  // Sat, in the same browser.
  await page.goto(`${between.address}/groups/group1`);
  const code = await page
    .getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/)
    .first()
    .textContent();
  await (await enterAs(context, code ?? '', between.address)).close();

  // What was never kept says so.
  await page.goto(`${between.address}/nowhere`);
  await expect(page.getByRole('heading', { name: 'No connection' })).toBeVisible();
  expect(failed).toEqual([]);
  await context.close();
});

test('a student’s page that was opened once opens again without a network', async () => {
  let context = await open();
  let page = await context.newPage();
  await page.goto(`${between.address}/sit`);
  await expect(page.getByLabel('Your join code')).toBeVisible();
  // Kept once the worker has taken over the page.
  await page.evaluate('navigator.serviceWorker.ready');
  await context.close();
  await between.gone();
  context = await open();
  page = await context.newPage();
  await page.goto(`${between.address}/sit`);
  await expect(page.getByLabel('Your join code')).toBeVisible();
  // Where a file of the paper would be opened: its code is here too.
  await page.getByRole('button', { name: /Open it$/ }).click();
  await expect(page.getByRole('heading', { name: 'A file from your teacher' })).toBeVisible();
  await context.close();
});

test('a new version waits while something is written in another tab, says so, and begins when told to', async () => {
  const context = await open();
  await keepDesk(context);
  const writing = await context.newPage();
  await writing.goto(`${between.address}/papers/paper-weather`);
  await expect(writing.getByRole('textbox', { name: 'Title', exact: true })).toBeVisible();
  between.newer = true;
  const page = await context.newPage();
  await page.goto(`${between.address}/groups`);
  await expect(page.getByText(/^A new version of Gribbet is here/)).toBeVisible();
  const start = page.getByRole('button', { name: 'Start the new version' });
  await start.click();
  await expect(page.getByText(/still being written, marked or sat in another tab/)).toBeVisible();
  await writing.close();
  await Promise.all([page.waitForEvent('load'), start.click()]);
  await expect(page.getByRole('heading', { name: 'Groups', level: 1 })).toBeVisible();
  await expect(start).toBeHidden();
  // The desk that was kept is kept in the newer version, too.
  const kept = await page.evaluate(() => caches.keys());
  expect(kept.filter((name) => name.startsWith('gribbet '))).toContain('gribbet a newer one');
  await context.close();
});

test('what could not be kept is said, and can be tried again', async () => {
  const context = await open();
  const page = await context.newPage();
  await page.goto(between.address);
  await expect(page.getByRole('heading', { name: 'Quiz 2: collision rules' })).toBeVisible();
  await page.evaluate('navigator.serviceWorker.ready');
  await between.gone();
  await page.getByRole('button', { name: /^Help/ }).click();
  const keep = page.getByRole('button', { name: 'Make it work without a network' });
  await keep.click();
  await expect(page.getByText('Not everything could be fetched')).toBeVisible();
  await between.here();
  await keep.click();
  await expect(page.getByText('opens in this browser without a network, too')).toBeVisible();
  await context.close();
});
