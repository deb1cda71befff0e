import { execSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launched, row } from './measure';

/** Scans of a made-up class read in the browser's worker: two pages each, by themselves, while the page is looked at. */

const base = process.argv[2] ?? 'http://localhost:4390';
const copies = Number(process.argv[3] ?? 184);

const browser = await launched();
try {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    acceptDownloads: true,
  });
  context.setDefaultTimeout(1_200_000);
  const making = await context.newPage();
  let page = making;
  await page.goto(base);
  await page.getByRole('heading', { name: 'On the desk' }).waitFor();
  await page.goto(`${base}/sittings/lights/on-paper`);
  await page.getByRole('radio', { name: 'Alike, with a field for the name' }).check();
  await page.getByRole('textbox', { name: 'How many' }).fill(String(copies));
  await page.getByRole('checkbox', { name: /^With boxes for the student number/ }).uncheck();
  let began = Date.now();
  let [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: `Make ${copies} papers as PDF` }).click(),
  ]);
  row(`${copies} answer papers as PDF, in the browser`, `${((Date.now() - began) / 1000).toFixed(1)} s`);
  [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Let a made-up class fill them in' }).click(),
  ]);
  const scans = join(mkdtempSync(join(tmpdir(), 'gribbet-bench-')), 'scans.pdf');
  await saved.saveAs(scans);
  // A page that made nothing yet: what the stand-in took is none of it.
  page = await context.newPage();
  await making.close();
  await page.goto(`${base}/sittings/lights/on-paper`);
  await page.getByRole('heading', { name: /papers scanned/ }).waitFor();
  // How long the page stands still, at most, between two frames.
  await page.evaluate(`
    window.seen = { last: performance.now(), worst: 0, at: '' };
    const look = () => {
      const now = performance.now();
      if (now - seen.last > seen.worst) {
        seen.worst = now - seen.last;
        seen.at = document.querySelector('[role=status]')?.textContent ?? '';
      }
      seen.last = now;
      requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  `);
  let most = 0;
  const sampling = setInterval(() => (most = Math.max(most, largestRenderer())), 1_000);
  began = Date.now();
  await page.getByLabel('Scanned files').setInputFiles(scans);
  const said = page.getByText(/^scans\.pdf: \d+ pages imported/);
  await said.waitFor();
  clearInterval(sampling);
  const seconds = (Date.now() - began) / 1000;
  const words = (await said.textContent()) ?? '';
  const [, pages = '0'] = /(\d+) pages imported/.exec(words) ?? [];
  row(
    `${pages} scanned pages read and kept in a worker (wanted: 368 in 3 min)`,
    `${seconds.toFixed(0)} s, ${((1000 * seconds) / Number(pages)).toFixed(0)} ms a page`,
  );
  row('memory of the largest process of the browser meanwhile (wanted: 700 MB)', `${most.toFixed(0)} MB`);
  const worst = Number(await page.evaluate('seen.worst'));
  const at = String(await page.evaluate('seen.at'));
  row('longest time between two frames of the page meanwhile', `${worst.toFixed(0)} ms (${at})`);
  row('pages asked about', /(\d+) asked/.exec(words)?.[1] ?? '0');
  const asked = await page.getByRole('heading', { name: /to look at: what is ticked/ }).allTextContents();
  row('rows of ticks asked about', /^(\d+)/.exec(asked[0] ?? '0')?.[1] ?? '0');
  // Named at once in the order of the register, a question is opened whose answers are written.
  const naming = page.getByRole('button', { name: /^Name \d+ papers in the order/ });
  const named = /\d+/.exec((await naming.textContent()) ?? '')?.[0] ?? '';
  await naming.click();
  await page.getByText(`${named} papers named in the order of the register`).waitFor();
  await page.goto(`${base}/sittings/lights/mark`);
  const questions = page.getByRole('navigation', { name: 'Questions' }).getByRole('button');
  await questions.first().waitFor();
  // What runs this file names inner functions by a helper that the page does not have.
  await page.evaluate('globalThis.__name = (it) => it');
  const times: number[] = [];
  for (let at = 0; at < (await questions.count()); at++) {
    const ms = await questions.nth(at).evaluate(opened);
    if (ms !== null) times.push(ms);
  }
  times.sort((a, b) => a - b);
  row(
    `regions of a question there to be marked, ${named} papers, median of ${times.length} questions (wanted: 500 ms)`,
    `${times[Math.floor(times.length / 2)]?.toFixed(0)} ms, at most ${times.at(-1)?.toFixed(0)} ms`,
  );
} finally {
  await browser.close();
}

/** Opens a question; ms until all pictures of answers in sight are drawn, null where it has none within a second. */
function opened(button: Element): Promise<number | null> {
  const began = performance.now();
  (button as HTMLElement).click();
  return new Promise((resolve) => {
    const look = () => {
      const all = [...document.querySelectorAll('img[alt="Answer on paper"]')] as HTMLImageElement[];
      const seen = all.filter((each) => {
        const { top, bottom } = each.parentElement?.getBoundingClientRect() ?? { top: 0, bottom: 0 };
        return bottom > 0 && top < innerHeight;
      });
      const waited = performance.now() - began;
      if (seen.length > 0 && seen.every((each) => each.complete && each.naturalWidth > 0)) resolve(waited);
      else if (waited > 1000) resolve(seen.length > 0 ? waited : null);
      else requestAnimationFrame(look);
    };
    // What the question before left is gone by the next frame but one.
    requestAnimationFrame(() => requestAnimationFrame(look));
  });
}

/** MB of the process that has most, of those that run pages. */
function largestRenderer(): number {
  const list = execSync('ps -eo rss,args', { encoding: 'utf8' });
  const sizes = list
    .split('\n')
    .filter((line) => line.includes('--type=renderer'))
    .map((line) => Number(line.trim().split(/\s+/)[0]) / 1024);
  return Math.max(0, ...sizes);
}
