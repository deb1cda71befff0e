import type { BrowserContext, Page } from '@playwright/test';
import { contentOf, type DeskTables } from '@/core/formats/backup';
import { backupBytes } from '../tests/unit/savedDesk';
import { itemsOf } from '@/core/kinds/items';
import type { PaperVersion } from '@/core/model/paper';
import type { Student } from '@/core/model/people';
import type { Attempt, Sitting } from '@/core/model/sitting';
import { rehearsalPlan } from '@/core/rehearsal/plan';
import { bigDesk } from './bigDesk';
import { launched, middle, row } from './measure';

/**
 * A sitting under way in a real browser: a hundred made-up students at once with the live view open, and the live view
 * of 550 students and 50 questions while one of them answers.
 */

const base = process.argv[2] ?? 'http://localhost:4390';

const browser = await launched();
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
  // tsx wraps named functions in a helper that the pages do not have.
  await context.addInitScript({ content: 'globalThis.__name = (value) => value;' });
  context.setDefaultTimeout(60_000);
  const page = await context.newPage();
  if (process.argv[3] !== 'big') await hundred(page);
  await big(page, context);
} finally {
  await browser.close();
}

/** A hundred students sit the exam of the demo as fast as it goes, seen live. */
async function hundred(page: Page): Promise<void> {
  await page.goto(`${base}/papers/paper-tides/give`);
  await page.getByLabel('Made-up students').fill('100');
  await page.getByRole('button', { name: 'Rehearse with 100' }).click();
  await page.waitForURL(/run$/);
  await page.getByRole('radio', { name: 'all at once' }).check();
  await page.evaluate(watchFrames);
  const began = performance.now();
  await page.getByRole('button', { name: 'Start the class' }).click();
  await page.getByRole('button', { name: 'Continue the class' }).waitFor({ timeout: 300_000 });
  const took = performance.now() - began;
  const frames = await framesOf(page);
  const lost = await lostAnswers(page);
  row(
    '100 students sit 12 questions at once, live view open: until the last is in',
    `${(took / 1000).toFixed(1)} s`,
  );
  row('answers given, and answers lost', `${lost.given}, ${lost.lost}`);
  row('time between two frames meanwhile: median, 95 in 100, longest', frameWords(frames));
  await page.getByRole('button', { name: 'Delete rehearsal' }).click();
  await page.getByRole('heading', { name: 'On the desk' }).waitFor();
  if (lost.lost > 0) throw new Error('answers were lost');
}

/** What the plan of the class says each should have answered, beside what the desk has. */
async function lostAnswers(page: Page): Promise<{ given: number; lost: number }> {
  const [sittings, students, attempts, versions] = await Promise.all([
    rows<Sitting>(page, 'sittings'),
    rows<Student>(page, 'students'),
    rows<Attempt>(page, 'attempts'),
    rows<PaperVersion>(page, 'paperVersions'),
  ]);
  const sitting = sittings.find((each) => each.rehearsal);
  const version = versions.find(
    (each) => each.paperId === sitting?.paperId && each.version === sitting.paperVersion,
  );
  const group = sitting?.groupIds[0] ?? '';
  const people = students
    .filter((student) => student.groupIds.includes(group))
    .sort((a, b) => a.number.localeCompare(b.number));
  const lengthMs = (sitting?.timeLimitMs ?? 0) / 2;
  const wanted = new Map<string, string>();
  for (const step of rehearsalPlan(itemsOf(version?.questions ?? []), people.length, lengthMs, 1))
    if (step.does === 'answer')
      wanted.set(`${people[step.student]?.id} ${step.questionId}`, JSON.stringify(step.response));
  const kept = new Map(
    attempts
      .filter((attempt) => attempt.sittingId === sitting?.id)
      .flatMap((attempt) =>
        Object.entries(attempt.answers).map(([id, { response }]) => [
          `${attempt.studentId} ${id}`,
          JSON.stringify(response),
        ]),
      ),
  );
  const lost = [...wanted].filter(([key, response]) => kept.get(key) !== response);
  return { given: wanted.size, lost: lost.length };
}

/** The live view at 550 × 50: how it scrolls, and how soon an answer of a student is seen. */
async function big(page: Page, context: BrowserContext): Promise<void> {
  const desk = bigDesk();
  const [first] = desk.attempts;
  if (!first) throw new Error('no attempt');
  const { q0: _, ...answers } = first.answers;
  desk.attempts[0] = { ...first, handedInAt: null, answers };
  await putInPlace(page, desk);
  await page.goto(`${base}/sittings/big/run`);
  await page.getByRole('rowheader').first().waitFor();
  await page.waitForTimeout(1500);

  await page.evaluate(watchFrames);
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const scroller = document.querySelector('[data-scroller]');
        const end = performance.now() + 4000;
        const step = () => {
          if (scroller) scroller.scrollTop += 40;
          if (performance.now() < end) requestAnimationFrame(step);
          else resolve();
        };
        step();
      }),
  );
  row(
    'live view 550 × 50 scrolled: time between two frames, median, 95 in 100, longest',
    frameWords(await framesOf(page)),
  );

  await page.getByRole('button', { name: '1 working' }).click();
  const student = await context.newPage();
  await student.goto(`${base}/sit?code=${desk.students[0]?.joinCode ?? ''}`);
  await student.getByRole('button', { name: 'Continue' }).click();
  await student.getByRole('button', { name: 'Yes, this is me' }).click();
  await student.getByRole('button', { name: 'Continue' }).click();
  const question = student.getByRole('region', { name: 'Question 1', exact: true });
  await question.waitFor();
  await student.waitForTimeout(2000);
  const times: number[] = [];
  // The right option is B; wrong and right by turns, as the grid shows it.
  for (const [option, words] of [
    [1, '100% of the points'],
    [0, '0% of the points'],
    [1, '100% of the points'],
    [2, '0% of the points'],
    [1, '100% of the points'],
  ] as const) {
    const seen = page.evaluate(
      (label) =>
        new Promise<number>((resolve, reject) => {
          const until = Date.now() + 20_000;
          const look = () => {
            if (Date.now() > until) return reject(new Error(`never saw ${label}`));
            const cells = document.querySelectorAll('tbody tr td svg[role=img]');
            if (cells[0]?.getAttribute('aria-label') === label) resolve(Date.now());
            else setTimeout(look, 10);
          };
          setTimeout(look, 50);
        }),
      words,
    );
    await student.waitForTimeout(100);
    await question.getByRole('radio').nth(option).click();
    const pressed = Date.now();
    times.push((await seen) - pressed);
    await student.waitForTimeout(1200);
  }
  row(
    'from a student’s answer to the live view of 550 × 50 (0.4 s of it wait for the last key)',
    `${middle(times).toFixed(0)} ms`,
  );

  await page.bringToFront();
  await page.goto(`${base}/groups/all`);
  await page.getByRole('checkbox', { name: 'Select Given0 Family0' }).waitFor();
  const typed: number[] = [];
  for (let count = 0; count < 10; count++) {
    await page.getByRole('button', { name: /^Number of Given0 Family0/ }).click();
    const took = await page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          const from = performance.now();
          document.addEventListener(
            'input',
            () => requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - from))),
            { once: true },
          );
          document.execCommand('insertText', false, '7');
        }),
    );
    typed.push(took);
    await page.keyboard.press('Escape');
  }
  row('a letter in the table of 550 students', `${middle(typed).toFixed(0)} ms`);
}

async function putInPlace(page: Page, desk: DeskTables): Promise<void> {
  await page.goto(`${base}/backup`);
  const buffer = Buffer.from(await backupBytes(contentOf(desk), '2026-11-01T10:00:00.000Z'));
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'big.zip', mimeType: 'application/zip', buffer });
  await page.getByRole('button', { name: 'Replace permanently' }).click();
  await page.getByText(/is restored$/).waitFor({ timeout: 60_000 });
}

/** All rows of a table of the desk, read past the app. */
function rows<T>(page: Page, table: string): Promise<T[]> {
  return page.evaluate(
    (name) =>
      new Promise<unknown[]>((resolve, reject) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onerror = () => reject(new Error('no desk'));
        opening.onsuccess = () => {
          const reading = opening.result.transaction(name).objectStore(name).getAll();
          reading.onsuccess = () => {
            resolve(reading.result as unknown[]);
            opening.result.close();
          };
        };
      }),
    table,
  ) as Promise<T[]>;
}

/** Runs in the page: notes the time between frames. */
function watchFrames(): void {
  const frames: number[] = [];
  let last = performance.now();
  const next = () => {
    const now = performance.now();
    frames.push(now - last);
    last = now;
    requestAnimationFrame(next);
  };
  requestAnimationFrame(next);
  Object.assign(window, { frames });
}

function framesOf(page: Page): Promise<number[]> {
  return page.evaluate(() => (window as unknown as { frames: number[] }).frames);
}

function frameWords(frames: readonly number[]): string {
  const sorted = [...frames].sort((a, b) => a - b);
  const at = (share: number) => (sorted[Math.floor((sorted.length - 1) * share)] ?? 0).toFixed(0);
  return `${at(0.5)}, ${at(0.95)}, ${at(1)} ms`;
}
