import { bigAttempts, bigDesk, fiftyQuestions } from './bigDesk';
import { launched, middle, putRows, row } from './measure';

/** A desk of years: 200 sittings of 92 students and 20 questions, of ten terms; and the desk of the demo beside it. */

const base = process.argv[2] ?? 'http://localhost:4390';
const sittings = Number(process.argv[3] ?? 200);
const students = 92;
const newest = new RegExp(`^Week ${sittings - 1}$`);

const browser = await launched();
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
  // tsx wraps named functions in a helper that the pages do not have.
  await context.addInitScript({ content: 'globalThis.__name = (value) => value;' });
  context.setDefaultTimeout(180_000);
  const page = await context.newPage();
  const stands = async (seen: RegExp) => {
    const began = Date.now();
    await page.goto(`${base}/`, { waitUntil: 'commit' });
    await page.getByRole('heading', { name: seen }).first().waitFor();
    return Date.now() - began;
  };
  await stands(/^Quiz 1/);
  const demo: number[] = [];
  for (let n = 0; n < 5; n++) demo.push(await stands(/^Quiz 1/));
  row('the desk of the demo stands (median of 5)', `${middle(demo).toFixed(0)} ms`);

  const { sittings: one, paperVersions, papers, students: register, groups } = bigDesk(students);
  const questions = fiftyQuestions().slice(0, 20);
  const [sitting] = one;
  const [version] = paperVersions;
  const [paper] = papers;
  const attempts = bigAttempts(questions, students);
  await putRows(page, 'groups', groups);
  await putRows(page, 'students', register);
  for (let n = 0; n < sittings; n++) {
    const at = new Date(Date.UTC(2020, 8, 1) + n * 9 * 86_400_000).toISOString();
    await putRows(page, 'papers', [{ ...paper, id: `p${n}`, title: `Week ${n}`, questions }]);
    await putRows(page, 'paperVersions', [{ ...version, paperId: `p${n}`, title: `Week ${n}`, questions }]);
    await putRows(page, 'sittings', [
      {
        ...sitting,
        id: `s${n}`,
        paperId: `p${n}`,
        title: `Week ${n}`,
        opensAt: at,
        closesAt: at,
        course: 'Coastal navigation',
        term: `Term ${Math.floor(n / 20)}`,
        groupIds: [groups[0]?.id ?? ''],
      },
    ]);
    await putRows(
      page,
      'attempts',
      attempts.map((attempt) => ({ ...attempt, id: `${attempt.id}-${n}`, sittingId: `s${n}` })),
    );
  }
  const first = await stands(newest);
  row(
    `a desk of ${sittings} sittings of ${students} × 20 stands the first time, with nothing kept of it`,
    `${first} ms`,
  );
  const cold: number[] = [];
  for (let n = 0; n < 5; n++) cold.push(await stands(newest));
  row('the same, cold (median of 5)', `${middle(cold).toFixed(0)} ms`);

  const typed: number[] = [];
  for (let n = 0; n < 5; n++) {
    await page.goto(`${base}/papers/p${n}`);
    await page.getByLabel('Title', { exact: true }).fill(`Week ${n} again`);
    await page.getByRole('status').filter({ hasText: 'Title changed' }).waitFor();
    typed.push(await stands(newest));
  }
  row('after a letter typed in one of its papers (median of 5)', `${middle(typed).toFixed(0)} ms`);
} finally {
  await browser.close();
}
