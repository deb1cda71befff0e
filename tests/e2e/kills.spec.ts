import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { KilledBrowser } from './killedBrowser';
import { startPaper, storedPaper } from './steps';

/**
 * The browser is killed in the middle of work, again and again: nothing that was called saved is missing afterwards. A
 * short form runs with all tests; `npm run test:faults` has the whole (with the kills of the server, in tests/unit).
 */

const kills = Number(process.env.BROWSER_KILLS ?? 12);
/** So often one profile is killed, before a fresh one goes on. */
const killsOfProfile = 25;
const seed = Number(process.env.SEED ?? Date.now() % 100_000);

/** Numbers from 0 to below 1, the same for the same seed (Park and Miller, 1988). */
let state = seed * 2 + 1;
const chance = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;

/** One sort of work: what a person does over and over, what the page calls saved, and what is there afterwards. */
interface Work {
  /** Opens the page on which it is done, as far as it ever came. */
  open: (context: BrowserContext) => Promise<Page>;
  /** Does a bit; ends with an error when the browser is gone. */
  act: (page: Page) => Promise<void>;
  /** What the page says is saved, right now. */
  saved: (page: Page) => Promise<string>;
  /** Whether what is there after the kill holds what was called saved before. */
  holds: (there: string, saved: string) => boolean;
}

async function killed(work: Work, times: number, args: string[]): Promise<void> {
  let browser: KilledBrowser | null = null;
  let acts = 0;
  try {
    for (let kill = 0; kill < times; kill++) {
      if (kill % killsOfProfile === 0) {
        await browser?.drop();
        browser = new KilledBrowser(process.env.CHROMIUM ?? '/usr/bin/chromium', args);
      }
      const here = browser as KilledBrowser;
      const page = await work.open(await here.open());
      // However busy the machine is, something is done first.
      await work.act(page);
      acts += 1;
      let saved = await work.saved(page);
      let dead = false;
      const dies = new Promise<void>((resolve, reject) =>
        setTimeout(
          () => {
            dead = true;
            here.kill().then(resolve, reject);
          },
          Math.floor(chance() * 900),
        ),
      );
      while (!dead)
        try {
          await work.act(page);
          acts += 1;
          saved = await work.saved(page);
        } catch (error) {
          if (!dead) throw error;
        }
      await dies;
      const again = await work.open(await here.open());
      await expect
        .poll(async () => work.holds(await work.saved(again), saved), {
          message: `kill ${kill + 1}, seed ${seed}: “${saved}” was saved; now “${await work.saved(again)}”`,
        })
        .toBe(true);
      await here.kill();
    }
  } finally {
    await browser?.drop();
  }
  expect(acts).toBeGreaterThanOrEqual(times);
}

const minutesOf = (times: number) => 120_000 + times * 30_000;

test('marking goes on where it was, whenever the browser is killed', async ({ baseURL, launchOptions }) => {
  const times = Math.ceil(kills / 3);
  test.setTimeout(minutesOf(times));
  const marking: Work = {
    open: async (context) => {
      const page = await context.newPage();
      await page.goto(`${baseURL}/sittings/tides/mark`);
      await page.getByRole('list', { name: 'Answers' }).waitFor();
      return page;
    },
    act: async (page) => {
      await page.keyboard.press('1');
      await page.keyboard.press('Enter');
    },
    // How many still wait, over all questions.
    saved: async (page) => {
      const waits = await page
        .getByRole('navigation', { name: /^Stages of/ })
        .getByRole('link', { name: /^Mark/ })
        .textContent();
      return /(\d+) answers? wait/.exec(waits ?? '')?.[1] ?? '0';
    },
    holds: (there, saved) => Number(there) <= Number(saved),
  };
  await killed(marking, times, launchOptions.args ?? []);
});

test('what was written is there, whenever the browser is killed', async ({ baseURL, launchOptions }) => {
  const times = Math.ceil(kills / 3);
  test.setTimeout(minutesOf(times));
  let count = 0;
  const writing: Work = {
    open: async (context) => {
      const page = await context.newPage();
      await page.goto(`${baseURL}/papers/paper-weather`);
      await page.getByRole('textbox', { name: 'Title', exact: true }).waitFor();
      return page;
    },
    act: async (page) => {
      const title = page.getByRole('textbox', { name: 'Title', exact: true });
      await title.focus();
      await page.keyboard.press('End');
      await page.keyboard.type(` ${(count += 1)}`);
    },
    saved: storedTitle,
    holds: (there, saved) => there.startsWith(saved),
  };
  await killed(writing, times, launchOptions.args ?? []);
});

test('what a student typed is there, whenever the browser is killed', async ({ baseURL, launchOptions }) => {
  const times = Math.ceil(kills / 3);
  test.setTimeout(minutesOf(times));
  let count = 0;
  let code = '';
  const sitting: Work = {
    open: async (context) => {
      const page = await context.newPage();
      await page.goto(`${baseURL}/`);
      await page.getByRole('heading', { name: 'Quiz 2: collision rules' }).waitFor();
      // The demo course is the same in every profile.
      code ||= await someStudent(page);
      await page.goto(`${baseURL}/sit`);
      await page.getByLabel('Your join code').fill(code);
      await page.getByRole('button', { name: 'Continue' }).click();
      await page.getByRole('button', { name: 'Yes, this is me' }).click();
      await startPaper(page, 'flood');
      return page;
    },
    act: async (page) => {
      await page.getByRole('textbox').last().focus();
      await page.keyboard.press('Control+End');
      await page.keyboard.type(` ${(count += 1)}`);
    },
    saved: async (page) => page.evaluate(keptAnswer),
    holds: (there, saved) => there.startsWith(saved),
  };
  await killed(sitting, times, launchOptions.args ?? []);
});

/** The title of the paper as it is stored. */
const storedTitle = async (page: Page) =>
  (JSON.parse(await storedPaper(page, 'paper-weather')) as { title: string }).title;

/** The last answer field of the page, once its bar says that all is kept; what was said to be kept last until then. */
function keptAnswer(): string {
  const seen = window as { keptAnswer?: string };
  const words = [...document.querySelectorAll('span')].map((each) => each.textContent ?? '');
  const kept = words.some((each) => /^saved (\d|on this device)/.test(each));
  const fields = document.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>(
    'textarea, input[type="text"]',
  );
  const value = [...fields].at(-1)?.value ?? '';
  if (kept) seen.keptAnswer = value;
  return seen.keptAnswer ?? '';
}

/** The join code of one who may sit the quiz that is on and has not begun. */
async function someStudent(page: Page): Promise<string> {
  return page.evaluate(async () => {
    const opening = indexedDB.open('gribbet-desk');
    const db = await new Promise<IDBDatabase>(
      (resolve) => (opening.onsuccess = () => resolve(opening.result)),
    );
    const all = async <T>(table: string) => {
      const reading = db.transaction(table).objectStore(table).getAll();
      await new Promise((resolve) => (reading.onsuccess = resolve));
      return reading.result as T[];
    };
    const attempts = await all<{ sittingId: string; studentId: string }>('attempts');
    const begun = new Set(
      attempts.filter(({ sittingId }) => sittingId === 'rules').map(({ studentId }) => studentId),
    );
    const students = await all<{ id: string; joinCode: string; groupIds: string[] }>('students');
    db.close();
    return students.find(({ id, groupIds }) => groupIds.includes('group1') && !begun.has(id))?.joinCode ?? '';
  });
}

test('killed while scripts are written as PDFs, the desk is as it was and they are written again', async ({
  baseURL,
  launchOptions,
}) => {
  test.setTimeout(300_000);
  const browser = new KilledBrowser(process.env.CHROMIUM ?? '/usr/bin/chromium', launchOptions.args ?? []);
  const scripts = async () => {
    const page = await (await browser.open()).newPage();
    await page.goto(`${baseURL}/sittings/lights/export?what=scripts`);
    await page.getByRole('button', { name: 'Save 92 PDFs in a zip' }).waitFor();
    return page;
  };
  /** Every row of the tables that a script is made of. */
  const rows = (page: Page) =>
    page.evaluate(
      () =>
        new Promise<string>((resolve, reject) => {
          const opening = indexedDB.open('gribbet-desk');
          opening.onerror = () => reject(opening.error ?? new Error('not opened'));
          opening.onsuccess = () => {
            const all: unknown[] = [];
            const look = opening.result.transaction(['attempts', 'marks', 'releases', 'log'], 'readonly');
            for (const table of ['attempts', 'marks', 'releases', 'log']) {
              const request = look.objectStore(table).getAll();
              request.onsuccess = () => all.push(request.result);
            }
            look.oncomplete = () => {
              opening.result.close();
              resolve(JSON.stringify(all));
            };
          };
        }),
    );
  try {
    const page = await scripts();
    const before = await rows(page);
    await page.getByRole('button', { name: 'Save 92 PDFs in a zip' }).click();
    await expect(page.getByText(/^[1-9]\d* of 92 scripts$/)).toBeVisible();
    await browser.kill();
    const again = await scripts();
    expect(await rows(again)).toBe(before);
    // Nothing goes on by itself, and nothing stands in the way of writing them again.
    await expect(again.getByRole('progressbar')).toHaveCount(0);
    await again.getByRole('button', { name: 'Save 92 PDFs in a zip' }).click();
    await expect(again.getByText(/^[1-9]\d* of 92 scripts$/)).toBeVisible();
  } finally {
    await browser.drop();
  }
});
