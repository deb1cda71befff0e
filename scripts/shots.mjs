import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromiumPath, ensureBuilt, ensureChromium, ensureInstalled } from './machine.mjs';

/** `npm run shots`: a picture of every main view at 1280 × 800, from the demo course. */

ensureInstalled();
ensureChromium();
ensureBuilt();

const port = 4391;
const secret = 'high water at ten';
const base = `http://localhost:${port}`;
const server = spawn('node', ['scripts/start.mjs'], {
  env: {
    ...process.env,
    PORT: String(port),
    HOST: '127.0.0.1',
    GRIBBET_DATA: mkdtempSync(join(tmpdir(), 'gribbet-shots-')),
    GRIBBET_TEACHER_SECRET: secret,
  },
  stdio: 'ignore',
});
const flags =
  '--headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync';

try {
  await answering(`${base}/sit`);
  const browser = await chromium.launch({ executablePath: chromiumPath, args: flags.split(' ') });
  await desk(browser, 'light');
  await desk(browser, 'dark');
  await browser.close();
} finally {
  server.kill();
}

async function desk(browser, colorScheme) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    colorScheme,
    locale: 'en-GB',
  });
  const page = await context.newPage();
  const at = async (path, name, prepare) => {
    await page.goto(base + path);
    await page.locator('main :is(h1, h2)').first().waitFor();
    await page.waitForTimeout(500);
    await prepare?.();
    await page.waitForTimeout(300);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
  };
  const marking = async () => {
    await page.getByText(/^\d+ piles, \d+ left alone$/).waitFor();
    for (const key of ['Shift+Enter', 'a', 'c', 'Enter', '1', 'Enter']) {
      await page.keyboard.press(key);
      await page.waitForTimeout(150);
    }
  };
  const photo = async () => {
    await page.locator('[data-row="2"]').click();
    await page.keyboard.press('F9');
    await page.getByRole('application').waitFor();
    const keys = async (...all) => {
      for (const key of all) await page.keyboard.press(key);
    };
    await keys(...Array(8).fill('ArrowDown'), 't', ...Array(5).fill('ArrowDown'));
    await keys('a', ...Array(9).fill('ArrowRight'), 'a', 'n');
    await page.keyboard.type('The stream sets east');
    await keys('Enter');
    await page.getByText('The stream sets east').waitFor();
  };
  if (colorScheme === 'dark') {
    await at('/sittings/rules/devices', 'devices', async () => {
      await page.getByLabel('The teacher’s secret').fill(secret);
      await page.getByRole('button', { name: 'Pair browser' }).click();
      await page.getByRole('button', { name: 'Let students join on their own devices' }).click();
      await page.getByRole('status').filter({ hasText: 'Connected' }).waitFor();
    });
    return context.close();
  }
  await at('/', 'desk');
  await at('/papers/paper-passage', 'write', async () =>
    page.getByRole('button', { name: 'Open question 2', exact: true }).click(),
  );
  await at('/bank', 'bank', async () => {
    await page.getByLabel('Sort by').selectOption('hardest first');
    await page
      .getByRole('region', { name: 'Questions' })
      .getByRole('button', { name: /^What light character does a north/ })
      .click();
  });
  await at('/papers/paper-passage/look', 'look', async () => {
    await page.getByRole('radio', { name: 'On a phone' }).check();
    await page.getByRole('region', { name: 'Question 1' }).getByRole('radio', { name: /False/ }).check();
    await page.getByRole('region', { name: 'Question 2' }).getByRole('textbox').fill('13,8 nautical miles');
    await page.getByLabel('Score these answers').check();
    const plot = page.getByRole('region', { name: 'Question 9' });
    const sheet = plot.getByRole('img', { name: /^Your drawing/ });
    await sheet.scrollIntoViewIfNeeded();
    const box = await sheet.boundingBox();
    for (const [fromX, fromY, toX, toY] of [
      [0.17, 0.81, 0.75, 0.36],
      [0.17, 0.81, 0.36, 0.73],
    ]) {
      await page.mouse.move(box.x + box.width * fromX, box.y + box.height * fromY);
      await page.mouse.down();
      for (let step = 1; step <= 20; step++)
        await page.mouse.move(
          box.x + box.width * (fromX + ((toX - fromX) * step) / 20),
          box.y + box.height * (fromY + ((toY - fromY) * step) / 20),
        );
      await page.mouse.up();
    }
    await plot.evaluate((section) => section.scrollIntoView());
  });
  await at('/papers/paper-tides/give', 'give', async () => {
    await page.getByLabel(/Monday evening/).check();
    await page.getByLabel('Time limit in minutes').fill('75');
    await page.getByLabel('Access code').fill('ebb');
    await page.getByLabel('one at a time, can go back').check();
    await page.getByLabel('Students see something straight away').check();
    await page.evaluate('scrollTo(0, 0)');
  });
  await at('/sittings/rules/run', 'live', async () =>
    page.getByRole('button', { name: 'Last seen', exact: true }).click(),
  );
  await page.goto(`${base}/sittings/rules/run`);
  await page.getByRole('button', { name: '10 working' }).click();
  await page.getByRole('rowheader').nth(2).getByRole('button').click();
  const code = await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent();
  await page.goto(`${base}/groups/group1`);
  await page
    .getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/)
    .first()
    .waitFor();
  const codes = await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).allTextContents();
  await byHand(codes.filter((each) => each !== code)[0] ?? '');
  await at('/sittings/tides/attempts/tides-student29', 'course');
  await at('/sittings/tides/mark', 'mark', marking);
  await at('/sittings/tides/mark?question=t13', 'mark-photo', photo);
  await at('/sittings/tides/markers', 'markers');
  await at('/sittings/lights/fairness', 'fairness');
  await at('/sittings/lights/analyse', 'analyse', async () =>
    page.getByRole('button', { name: /^3 What light/ }).click(),
  );
  await at('/sittings/lights/hand-back', 'hand-back');
  await student(context, code ?? '');
  await at('/papers/paper-passage/give', 'practice', async () => {
    await page.getByLabel(/Monday evening/).check();
    await page.getByRole('button', { name: 'Practice at home', exact: true }).click();
    await page.getByRole('button', { name: /^Give out to/ }).click();
    await page.waitForURL(/run$/);
    await page.setViewportSize({ width: 360, height: 740 });
    await page.goto(`${base}/sit?code=${(code ?? '').replace(' ', '')}`);
    await page.getByRole('button', { name: 'Continue' }).click();
    await page.getByRole('button', { name: 'Yes, this is me' }).click();
    await page.getByRole('button', { name: 'Read the instructions' }).first().click();
    await page.getByRole('button', { name: 'Start' }).click();
    const question = page.getByRole('region', { name: 'Question 2', exact: true });
    await question.getByRole('textbox').fill('12 miles');
    await question.getByRole('button', { name: 'Check answer' }).click();
    await question.getByText(/tries left/).waitFor();
    await question.evaluate((section) => section.scrollIntoView());
  });
  await context.close();

  /** A student sits from a file on another computer; the answers come back twice, once not whole, with a letter beside. */
  async function byHand(joinCode) {
    const saved = async (from, button) => {
      const saving = from.waitForEvent('download');
      await from.getByRole('button', { name: button }).click();
      const file = await saving;
      const buffer = readFileSync(await file.path());
      return { name: file.suggestedFilename(), mimeType: 'application/json', buffer };
    };
    await at('/sittings/rules/by-hand', 'by-hand', async () => {
      await page.getByRole('checkbox', { name: /^Sealed/ }).uncheck();
      const paper = await saved(page, 'Save the paper');
      const away = await browser.newContext();
      const sit = await away.newPage();
      await sit.goto(`${base}/sit`);
      await sit.getByRole('button', { name: /gave you a file/ }).click();
      await sit.locator('input[type=file]').setInputFiles(paper);
      await sit.getByLabel('Your name').fill('Keahi Åberg');
      await sit.getByLabel('Your join code').fill(joinCode);
      await sit.getByRole('button', { name: 'Continue' }).click();
      await sit.getByRole('button', { name: 'Read the instructions' }).click();
      await sit.getByRole('button', { name: 'Start' }).click();
      await sit.getByRole('radio').first().check();
      await sit.getByRole('button', { name: 'Check before handing in' }).click();
      await sit.getByRole('button', { name: /^Hand in/ }).click();
      const answers = await saved(sit, 'Save your answers as a file');
      await away.close();
      const half = { ...answers, name: 'from the mail.json', buffer: answers.buffer.subarray(0, 900) };
      const changed = { ...answers, name: 'opened in an editor.json' };
      changed.buffer = Buffer.from(answers.buffer.toString().replace('Keahi', 'Kea'));
      await page.getByLabel('Choose answer files').setInputFiles([answers, half, changed]);
      await page.getByText('1 file imported').scrollIntoViewIfNeeded();
      await page.getByRole('heading', { name: '2 Import answers' }).evaluate((head) => head.scrollIntoView());
    });
  }

  async function student(within, joinCode) {
    const sit = await within.newPage();
    await sit.goto(`${base}/sit`);
    await sit.getByLabel('Your join code').fill(joinCode);
    await sit.getByRole('button', { name: 'Continue' }).click();
    await sit.getByRole('button', { name: 'Yes, this is me' }).click();
    await sit.getByRole('button', { name: 'Continue' }).click();
    await sit.getByText(/^saved \d/).waitFor();
    await sit.screenshot({ path: 'docs/screenshots/student.png' });
    await sit.setViewportSize({ width: 360, height: 740 });
    await sit.waitForTimeout(300);
    await sit.screenshot({ path: 'docs/screenshots/student-phone.png' });
    await sit
      .getByRole('button', { name: 'Go to your papers' })
      .or(sit.getByRole('button', { name: 'Check and hand in', exact: true }))
      .click();
    await sit.getByRole('button', { name: /^Hand in/ }).click();
    await sit.getByRole('button', { name: 'Go to your papers' }).click();
    await sit.getByRole('button', { name: 'See my result' }).click();
    await sit.getByText(/of 14 points/).waitFor();
    await sit.setViewportSize({ width: 1280, height: 800 });
    await sit.waitForTimeout(300);
    await sit.screenshot({ path: 'docs/screenshots/result.png' });
  }
}

async function answering(url) {
  for (let tries = 0; tries < 240; tries++) {
    if (
      await fetch(url).then(
        (reply) => reply.ok,
        () => false,
      )
    )
      return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error(`${url} does not answer`);
}
