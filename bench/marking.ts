import { register } from 'node:module';
import type { Page } from '@playwright/test';
import { forgiven, forgiveAll } from '@/core/kinds/forgiving';
import type { HandMark } from '@/core/model/mark';
import { launched, row } from './measure';

/**
 * Marks the demo's exam by keys alone as a marker would: scheme lines for one question, points for the others; piles that
 * are worth the same as one. Counts the presses, looks that each answer's own words were on the screen before it was marked,
 * and holds every kept mark against what the answer was made to be worth.
 */

// Pictures are the bundler's; here nobody looks at them.
register(
  `data:text/javascript,${encodeURIComponent(
    'export const load = (url, context, next) => /\\.(png|svg)/.test(url) ? { format: "module", shortCircuit: true, source: "export default \'data:,\'" } : next(url, context);',
  )}`,
);
const { buildDemo, meantMarks } = await import('../demo/buildDemo');
const { tides } = await import('../demo/papers/tides');

const base = process.argv[2] ?? 'http://localhost:4390';
const now = Date.now();
const open = tides.questions.filter(({ question }) => question.kind === 'openText');
/** Marked by its scheme lines; the others by points. */
const byLines = open.at(-1)?.question.id;
const first = open[0]?.question.id;

interface Meant {
  points: number;
  lines: string[];
}
const folded = (text: string) => forgiven(text, forgiveAll).replace(/[\p{Po}\s]+$/u, '');

/** What an answer is worth, by question and words. */
const meant = new Map<string, Meant>();
const answers = new Map<string, string>();
const attempts = new Map(buildDemo(now).attempts.map((attempt) => [attempt.id, attempt]));
for (const mark of meantMarks(now)) {
  if (mark.sittingId !== 'tides') continue;
  const response = attempts.get(mark.attemptId)?.answers[mark.questionId]?.response;
  const text = response && 'text' in response ? response.text : '';
  answers.set(`${mark.attemptId} ${mark.questionId}`, `${mark.questionId} ${folded(text)}`);
  meant.set(`${mark.questionId} ${folded(text)}`, { points: mark.points ?? 0, lines: mark.lines });
}

interface SeenRow {
  text: string;
  blank: boolean;
  current: boolean;
  waits: boolean;
  /** What is put forward: points and letters; null: nothing. */
  like: string | null;
  pile: { head: string; agreed: boolean } | null;
  whole: boolean;
}

/** The rows as they stand on the screen. */
const rowsOn = (page: Page): Promise<SeenRow[]> =>
  page.evaluate(() => {
    const list = document.querySelector('[aria-label="Answers"]')?.parentElement?.getBoundingClientRect();
    let pile: { head: string; agreed: boolean } | null = null;
    return [...document.querySelectorAll<HTMLElement>('[data-row]')].map((element) => {
      const [, answer, state] = element.children;
      const box = element.getBoundingClientRect();
      // Where only what differs is drawn, the whole of it is said.
      const text = (answer?.querySelector('.visuallyHidden') ?? answer?.firstChild)?.textContent ?? '';
      const rest = state?.textContent ?? '';
      const inPile = rest.startsWith('Pile of');
      if (!inPile) pile = null;
      else if (element.parentElement?.querySelector('p'))
        pile = { head: text, agreed: /marked as one/.test(rest) };
      return {
        text,
        blank: /^not answered\b/.test(text),
        current: element.getAttribute('aria-current') === 'true',
        waits: /waits?\b/.test(rest),
        like: /Put forward[a-z ]*:\s+(?:like )?([^?]*)\?/.exec(rest)?.[1] ?? null,
        pile: inPile ? pile : null,
        whole: list !== undefined && box.top >= list.top - 1 && box.bottom <= list.bottom + 1,
      };
    });
  });

const browser = await launched();
let presses = 0;
const unseen: string[] = [];
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${base}/`);
  await page.getByRole('heading', { name: 'Quiz 2: collision rules' }).waitFor();
  const seen = new Set<string>();
  // The page itself goes on to the next question that waits.
  let asked = '';
  let idle = 0;
  const press = async (key: string) => {
    presses++;
    await page.keyboard.press(key);
  };
  /** Where the marker is, and what of the pile there. */
  const place = () =>
    page.evaluate(() => {
      const here = document.querySelector('[data-row][aria-current]');
      const label = here?.textContent ?? '';
      return `${location.search} ${here?.getAttribute('data-row')} ${/marked as one/.test(label)}`;
    });
  /** Waits until the marker is somewhere else, or the pile is marked as one. */
  const settled = (before: string) =>
    page
      .waitForFunction(
        (was) => {
          const here = document.querySelector('[data-row][aria-current]');
          const label = here?.textContent ?? '';
          return (
            `${location.search} ${here?.getAttribute('data-row')} ${/marked as one/.test(label)}` !== was
          );
        },
        before,
        { timeout: 3_000 },
      )
      // The very last one goes nowhere.
      .catch(() => undefined);
  /** Waits until these are drawn with their marks. */
  const drawn = (labels: string[]) =>
    page.waitForFunction(
      (all) =>
        ![...document.querySelectorAll('[data-row]')].some((each) =>
          all.some((text) => {
            const [, answer, state] = each.children;
            const said = answer?.querySelector('.visuallyHidden') ?? answer?.firstChild;
            return said?.textContent === text && /waits?\b/.test(state?.textContent ?? '');
          }),
        ),
      labels,
      { timeout: 10_000 },
    );
  await page.goto(`${base}/sittings/tides/mark?question=${first}`);
  await page.locator('[data-row="0"]').waitFor();
  await press('F4');
  await page.getByRole('switch', { name: /Points go on/, checked: true }).waitFor();
  await press('F8');
  await page.getByRole('switch', { name: /Only what still wants you/, checked: true }).waitFor();
  for (;;) {
    const at = new URL(page.url()).searchParams.get('question') ?? '';
    const question = open.find((each) => each.question.id === at)?.question;
    if (!question) break;
    const letters = (lines: readonly string[]) =>
      question.kind === 'openText'
        ? lines.map((id) => String.fromCharCode(97 + question.scheme.findIndex((line) => line.id === id)))
        : [];
    if (asked !== at) {
      await page.getByText(/left alone/).waitFor();
      asked = at;
    }
    const rows = await rowsOn(page);
    for (const { text, whole } of rows) if (whole) seen.add(`${question.id} ${folded(text)}`);
    const current = rows.find((each) => each.current);
    if (!current?.waits) {
      // What was given last may not be drawn yet, nor the next question.
      if (++idle > 20) break;
      await page.waitForTimeout(100);
      continue;
    }
    idle = 0;
    const key = `${question.id} ${folded(current.text)}`;
    const before = await place();
    if (current.blank) {
      await press('Enter');
      await settled(before);
      await drawn([current.text]);
      continue;
    }
    const worth = meant.get(key);
    if (!worth) throw new Error(`No meaning for ${key}`);
    const pile = current.pile
      ? rows.filter((each) => each.pile?.head === current.pile?.head && each.pile !== null)
      : [];
    const sameWorth = (each: SeenRow) =>
      JSON.stringify(meant.get(`${question.id} ${folded(each.text)}`)) === JSON.stringify(worth);
    // For two wordings it saves nothing.
    if (current.pile && !current.pile.agreed && pile[0] === current && pile.length > 2) {
      if (pile.every((each) => each.whole && sameWorth(each))) {
        await press('Shift+Enter');
        await settled(before);
        continue;
      }
    }
    const fits = (each: SeenRow) => {
      const is = meant.get(`${question.id} ${folded(each.text)}`);
      const wanted = is && [is.points, ...(question.id === byLines ? letters(is.lines) : [])].join(' ');
      return each.like !== null && each.like.toLowerCase() === wanted;
    };
    const forward = rows.filter((each) => each.whole && each.like !== null);
    // What is put forward comes last: then it is taken together.
    const together = current.like !== null && forward.length > 1 && forward.every(fits);
    for (const each of together ? forward : current.pile?.agreed ? pile : [current])
      if (!seen.has(`${question.id} ${folded(each.text)}`)) unseen.push(each.text);
    if (together) await press('Shift+Space');
    else if (fits(current)) await press('=');
    else if (question.id === byLines) {
      if (worth.lines.length === 0) await press('0');
      else {
        // The last one goes on.
        const all = letters(worth.lines);
        for (const [index, letter] of all.entries())
          await press(index < all.length - 1 ? letter : `Shift+${letter.toUpperCase()}`);
      }
    } else for (const key of String(worth.points).replace('.5', '/')) await press(key);
    if (!together) await settled(before);
    await drawn(together ? forward.map(({ text }) => text) : [current.text]);
  }
  await page.waitForTimeout(1_000);
  const kept = (await page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onerror = () => reject(opening.error ?? new Error('not opened'));
        opening.onsuccess = () => {
          const asking = opening.result.transaction('marks').objectStore('marks').getAll();
          asking.onsuccess = () => resolve(asking.result);
        };
      }),
  )) as HandMark[];
  // The question with photos came marked, in part by a colleague.
  const texts = new Set(open.map(({ question }) => question.id));
  const exam = kept.filter(({ sittingId, questionId }) => sittingId === 'tides' && texts.has(questionId));
  const wrong = exam.filter((mark) => {
    const is = answers.get(`${mark.attemptId} ${mark.questionId}`) ?? '';
    const wanted = meant.get(is);
    if (is.endsWith(' ')) return mark.points !== 0;
    const lines = mark.questionId === byLines && wanted?.points !== 0 ? wanted?.lines : mark.lines;
    return wanted?.points !== mark.points || JSON.stringify(lines) !== JSON.stringify(mark.lines);
  });
  const different = new Set(answers.values()).size;
  row(
    'Answers of the exam marked by keys, of them different',
    `${exam.length} of ${answers.size}, ${different}`,
  );
  row('Key presses an answer', (presses / answers.size).toFixed(2));
  row('Marks that are not what was meant', String(wrong.length));
  row('Answers marked before their words were on the screen', String(unseen.length));
  if (wrong.length > 0)
    console.log(
      wrong
        .slice(0, 5)
        .map((mark) => [
          answers.get(`${mark.attemptId} ${mark.questionId}`),
          mark.points,
          meant.get(answers.get(`${mark.attemptId} ${mark.questionId}`) ?? ''),
        ]),
    );
} finally {
  await browser.close();
}
