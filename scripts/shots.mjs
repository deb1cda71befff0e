import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromiumPath, ensureBuilt, ensureChromium, ensureInstalled } from './machine.mjs';

/** A quiz with a line that nobody understands, and an answer that is none. */
const pasted = `1. Which light shows on the port side? (2 points)
a) green
*b) red
c) white

2. True or false: A masthead light is white.
Answer: True

See the chart on the wall.

3. The stream that comes in is the ____, the other the ____.
Answer: flood, ebb

4. How far in two hours at 6 knots?
Answer: 12 nm

5. Which of these gives way?
A) the vessel on port tack
B) the vessel on starboard tack
Answer: E`;

/** `npm run shots`: a picture of every main view at 1280 × 800, from the demo course. */

ensureInstalled();
ensureChromium();
ensureBuilt();

const port = 4391;
const base = `http://localhost:${port}`;
const server = spawn('node', ['scripts/start.mjs'], {
  env: {
    ...process.env,
    PORT: String(port),
    HOST: '127.0.0.1',
    GRIBBET_DATA: mkdtempSync(join(tmpdir(), 'gribbet-shots-')),
    GRIBBET_TEACHER_SECRET: 'high water at ten',
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
  await elsewhere(browser);
  await browser.close();
} finally {
  server.kill();
}

/** The desk at school after it was taken over at home. */
async function elsewhere(browser) {
  const computer = async (name) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
    const page = await context.newPage();
    await page.goto(base);
    await page.getByRole('heading', { name: 'On the desk' }).waitFor();
    await page.goto(`${base}/computers`);
    await page.getByLabel('The teacher’s secret').fill('high water at ten');
    await page.getByRole('button', { name: 'Pair browser' }).click();
    await page.getByLabel('What it is called').fill(name);
    await page.getByLabel('What it is called').press('Enter');
    await page.getByText(`This computer is called ${name} now`).waitFor();
    return page;
  };
  const school = await computer('School, room 12');
  await school.goto(`${base}/backup`);
  await school.getByText(/with the teacher’s secret: last backup/).waitFor({ timeout: 60_000 });
  const home = await computer('Laptop at home');
  await home.getByRole('button', { name: 'Take this desk over here: School, room 12' }).click();
  await home.getByRole('button', { name: 'Replace permanently' }).click();
  await home.getByText('The desk is here now, no longer on School, room 12').waitFor();
  await school.goto(base);
  await school.getByText(/^This desk is on Laptop at home since/).waitFor({ timeout: 30_000 });
  await school.waitForTimeout(800);
  await school.screenshot({ path: 'docs/screenshots/elsewhere.png' });
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
  const onPaper = async () => {
    await page.getByRole('img', { name: 'Answer on paper' }).first().waitFor();
    await page.keyboard.press('F9');
    await page.getByRole('application').waitFor();
    const keys = async (...all) => {
      for (const key of all) await page.keyboard.press(key);
    };
    await keys(...Array(3).fill('ArrowUp'), ...Array(8).fill('ArrowLeft'), 't');
    await keys(...Array(3).fill('ArrowDown'), ...Array(4).fill('ArrowRight'), 'n');
    await page.keyboard.type('Since when?');
    await keys('Enter');
    await page.getByText('Since when?').waitFor();
  };
  /** A form's answers, with the right ones in a row of their own. */
  const answers = async () => {
    const rows = [
      'When\tName\tStudent number\tWhich stream runs out?\tIs high water before noon?\tHow far in 2 h at 6 kn?\tWhy do springs come late?\tPoints',
      '\t\tKEY\tebb\tTrue\t12\t\t',
      ...[
        'Amara Okafor\t8101\tebb\tTrue\t12\tThe sea needs a day or two to follow sun and moon\t1',
        'Ines Duarte\t8102\tflood\tTrue\t12.0\tThe water answers later than sun and moon pull together\t0.5',
        'Kai Lindqvist\t8103\tebb\tFalse\t24\t\t',
        'Otto Marsh\t8104\tflood\tTrue\t36\tI think that the moon is full then, and so it is high\t4',
        'Ina Berg\t8105\tebb\tFalse\t12\tSun and moon pull in one line and the water follows\t',
      ].map((row, at) => `1${at + 3}/11/2026 18:0${at}\t${row}`),
    ];
    await page.getByRole('textbox', { name: 'Rows of answers' }).fill(rows.join('\n'));
    await page.getByRole('combobox', { name: 'Right answers are in' }).selectOption({ index: 1 });
    await page.getByRole('textbox', { name: 'Name of the sitting' }).fill('Form of week 9');
    await page.getByRole('textbox', { name: 'Name of the new group' }).fill('Week 9');
    await page.getByText('couldn’t be used').waitFor();
    await page
      .getByRole('combobox', { name: 'Right answers are in' })
      .evaluate((node) => node.scrollIntoView());
  };
  if (colorScheme === 'dark') {
    await at('/sittings/lights/class', 'class', async () => {
      await page.getByRole('button', { name: 'Show what was answered' }).click();
      await page.keyboard.press('ArrowRight');
    });
    return context.close();
  }
  await at('/', 'desk');
  await at('/papers/paper-passage', 'write', async () =>
    page.getByRole('button', { name: 'Open question 2:' }).click(),
  );
  await at('/answers', 'answers', answers);
  await at('/sittings/rules/run', 'live', async () =>
    page.getByRole('button', { name: 'Last seen', exact: true }).click(),
  );
  await page.goto(`${base}/sittings/rules/run`);
  await page.getByRole('button', { name: '10 working' }).click();
  await page.getByRole('rowheader').nth(2).getByRole('button').click();
  const code = await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent();
  await at('/sittings/tides/mark', 'mark', marking);
  await at('/sittings/symbols/mark?question=s7', 'mark-paper', onPaper);
  await at('/sittings/symbols/on-paper', 'on-paper', async () => page.waitForTimeout(900));
  await at('/sittings/tides/markers', 'markers');
  await at('/papers/paper-tides/paste', 'paste', async () => {
    await page.getByRole('textbox', { name: 'The quiz as text' }).fill(pasted);
    await page.waitForTimeout(600);
    await page.evaluate('document.activeElement.blur()');
  });
  await at('/sittings/lights/repair?question=l11', 'repair', async () => {
    await page
      .getByRole('button', { name: '“Two all-round lights, red over green” as the key instead' })
      .click();
    await page.getByRole('region', { name: 'What it would do' }).waitFor();
    await page.waitForTimeout(600);
    await page.evaluate('scrollTo(0, 0)');
  });
  await at('/sittings/lights/analyse', 'analyse', async () =>
    page.getByRole('button', { name: '11: Is the key wrong?' }).waitFor(),
  );
  await at('/sittings/tides/hand-back', 'hand-back', async () => page.waitForTimeout(600));
  await at('/sittings/lights/grades', 'grades');
  await at('/mark-books/navigation', 'mark-book', async () => {
    await page.getByText('92 students', { exact: true }).waitFor();
    await page
      .getByRole('row', { name: /Adler, Elif/ })
      .getByRole('button')
      .last()
      .click();
  });
  await at('/sittings/lights/analyse', 'help', async () => {
    await page.keyboard.press('?');
    await page.getByRole('link', { name: 'Read about this page in the guide' }).click();
    await page.getByRole('heading', { name: 'The map' }).waitFor();
    await page.waitForTimeout(900);
  });
  await student(context, code ?? '');
  await context.close();

  /** A student sits from a file on another computer; the answers come back twice, once not whole, with a letter beside. */

  async function student(within, joinCode) {
    const sit = await within.newPage();
    await sit.goto(`${base}/sit`);
    await sit.getByLabel('Your join code').fill(joinCode);
    await sit.getByRole('button', { name: 'Continue' }).click();
    await sit.getByRole('button', { name: 'Yes, this is me' }).click();
    await sit.getByRole('button', { name: 'Continue' }).click();
    await sit.getByText(/^saved \d/).waitFor();
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
    await sit.getByText(/of 15 points/).waitFor();
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
