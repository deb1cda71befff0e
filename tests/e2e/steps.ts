import { expect, type BrowserContext, type Page } from '@playwright/test';

/** What teachers and students do again and again, by role and name as a person would. */

const demoPort = Number(process.env.E2E_PORT ?? 4399);

/** The address of the app that starts with an empty desk. */
export const emptyDesk = `http://localhost:${demoPort + 1}`;

/** What the servers of the tests are paired with. */
export const teacherSecret = 'tide tables 2026 for tests';

/** Waits until what was typed in Write is kept: the quiet line names it. */
export async function kept(page: Page, said: string | RegExp): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: said })).toBeVisible();
}

export async function makeGroup(page: Page, name: string): Promise<void> {
  await page.goto(`${emptyDesk}/groups`);
  await page.getByLabel('Group name').fill(name);
  await page.getByRole('button', { name: 'Create group' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

/** Brings students in by pasting, all good. */
export async function pasteStudents(page: Page, rows: string[]): Promise<void> {
  await page.getByLabel('List of students').fill(rows.join('\n'));
  const bring = page.getByRole('button', { name: /^Import \d+ student/ });
  await bring.click();
  // The table of what was understood is there before; it goes with its button once all is kept.
  await expect(bring).toBeHidden();
  await expect(page.getByRole('table')).toBeVisible();
}

/** The join code beside a name on the group page. */
export async function joinCodeOf(page: Page, name: string): Promise<string> {
  const row = page.getByRole('row').filter({ hasText: name });
  const code = await row.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent();
  return code ?? '';
}

export async function beginPaper(page: Page, title: string): Promise<void> {
  await page.goto(emptyDesk);
  await page.getByLabel('Title of the new paper').fill(title);
  await page.getByRole('button', { name: 'Start writing' }).click();
  // On the desk, too, there is a field for a title.
  await page.waitForURL('**/papers/*');
  await expect(page.getByRole('textbox', { name: 'Title', exact: true })).toHaveValue(title);
}

/** A one choice question, with the right option first. */
export async function writeChoice(
  page: Page,
  number: number,
  stem: string,
  options: string[],
): Promise<void> {
  await page.getByRole('group', { name: 'New question' }).getByRole('button', { name: 'One choice' }).click();
  await page.getByLabel(`Text of question ${number}`).fill(stem);
  for (const [index, text] of options.entries())
    await page.getByLabel(`Option ${'ABCD'.charAt(index)}`, { exact: true }).fill(text);
  for (const letter of 'ABCD'.slice(options.length).split('').reverse())
    await page.getByRole('button', { name: `Remove option ${letter}` }).click();
  await page.getByRole('radio', { name: 'A is right' }).check();
}

export async function writeOpen(
  page: Page,
  number: number,
  stem: string,
  model: string,
  line: string,
): Promise<void> {
  await page.getByRole('group', { name: 'New question' }).getByRole('button', { name: 'Open text' }).click();
  await page.getByLabel(`Text of question ${number}`).fill(stem);
  await page.getByLabel('Model answer').fill(model);
  await page.getByLabel('Scheme line A').fill(line);
  await page.getByLabel('Points for line A').fill('3');
}

/** Gives the open paper to the students of a group. */
export async function givePaper(page: Page, group: string, students = 1): Promise<void> {
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByRole('checkbox', { name: new RegExp(group) }).check();
  await page
    .getByRole('button', { name: `Give out to ${students} student${students === 1 ? '' : 's'}` })
    .click();
  await expect(page).toHaveURL(/\/run$/);
}

/** Opens the student's side in a tab of its own and goes in with a code. */
export async function enterAs(context: BrowserContext, code: string, base = emptyDesk): Promise<Page> {
  const page = await context.newPage();
  await page.goto(`${base}/sit`);
  await goIn(page, code);
  return page;
}

/** Waits until the sitting is on the server: how to join is not said before. */
export const studentsCanJoin = (page: Page) =>
  expect(page.getByRole('region', { name: 'How students join' })).toBeVisible();

/** Goes in with a code on the students' page. */
export async function goIn(page: Page, code: string): Promise<void> {
  await page.getByLabel('Your join code').fill(code);
  await page.getByRole('button', { name: 'Continue' }).click();
  await page.getByRole('button', { name: 'Yes, this is me' }).click();
  await expect(page.getByRole('heading', { name: 'Your papers' })).toBeVisible();
}

/** Reads the instructions and starts; what was begun is gone on with at once. */
export async function startPaper(page: Page, accessCode?: string): Promise<void> {
  await expect(page.getByRole('heading', { name: 'Your papers' })).toBeVisible();
  const button = page.getByRole('button', { name: /Read the instructions|Continue/ });
  const begun = (await button.textContent()) === 'Continue';
  await button.click();
  if (!begun && accessCode) await page.getByLabel('Access code').fill(accessCode);
  if (!begun) await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'Questions' })).toBeVisible();
}

/** Takes the last look and hands in. */
export async function handIn(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Check before handing in' }).click();
  await page.getByRole('button', { name: /^Hand in/ }).click();
  await expect(page.getByRole('heading', { name: 'Handed in' })).toBeVisible();
}

/** Goes to a stage of the sitting by its strip. */
export async function stage(
  page: Page,
  name: 'Write' | 'Run' | 'Mark' | 'Analyse' | 'Hand back',
): Promise<void> {
  await page
    .getByRole('navigation', { name: /^Stages of/ })
    .getByRole('link', { name: new RegExp(`^${name}`) })
    .first()
    .click();
}

/** Hands the open sitting back to all that are ready. */
export async function handBack(page: Page): Promise<void> {
  await stage(page, 'Hand back');
  const button = page.getByRole('button', { name: /^Hand back to/ }).first();
  await expect(button).toBeVisible();
  // Where others may still sit the paper, the teacher says yes to what that gives away.
  const yes = page.getByRole('checkbox', { name: /^Yes, show / });
  if (await button.isDisabled()) await yes.check();
  await button.click();
}

/** Goes from the receipt to what came back. */
export async function seeResult(student: Page): Promise<void> {
  await student.getByRole('button', { name: 'Go to your papers' }).click();
  await student.getByRole('button', { name: 'See my result' }).click();
}

/** Writes in one cell of the table of students. */
export async function writeCell(page: Page, label: string, value: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${label}:`) }).click();
  await page.getByRole('textbox', { name: label }).fill(value);
  await page.keyboard.press('Enter');
}

/** A paper of two open questions, given to one student on devices of their own; the join code. */
export async function giveOnDevices(page: Page, name: string, minutes: number | null): Promise<string> {
  await makeGroup(page, name);
  await pasteStudents(page, ['Name', '"Haddad, Rania"']);
  const code = await joinCodeOf(page, 'Haddad');
  await beginPaper(page, `Lights of ${name}`);
  await writeOpen(page, 1, 'Describe the first light.', 'It flashes', 'says flashing');
  await writeOpen(page, 2, 'Describe the second light.', 'It is fixed', 'says fixed');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByRole('checkbox', { name: new RegExp(name) }).check();
  if (minutes !== null) await page.getByLabel('Time limit in minutes').fill(String(minutes));
  await page.getByRole('button', { name: 'Give out to 1 student' }).click();
  await page.getByRole('link', { name: 'Let students join on their own devices' }).click();
  await page.getByLabel('The teacher’s secret').fill(teacherSecret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  await page.getByRole('button', { name: 'Let students join on their own devices' }).click();
  await studentsCanJoin(page);
  await page.getByRole('link', { name: 'Watch each student' }).click();
  return code;
}

/** All rows of a table of the desk as they are stored, read past the app. */
const storedRows = (page: Page, table: string): Promise<unknown[]> =>
  page.evaluate(async (wanted) => {
    const opening = indexedDB.open('gribbet-desk');
    const db = await new Promise<IDBDatabase>(
      (resolve) => (opening.onsuccess = () => resolve(opening.result)),
    );
    const reading = db.transaction(wanted).objectStore(wanted).getAll();
    await new Promise((resolve) => (reading.onsuccess = resolve));
    db.close();
    return reading.result as unknown[];
  }, table);

/** A paper as it is stored. */
export const storedPaper = async (page: Page, wanted: string): Promise<string> =>
  JSON.stringify((await storedRows(page, 'papers')).find((row) => (row as { id: string }).id === wanted));

/** The comments of all marks as they are stored. */
export const storedComments = async (page: Page): Promise<string> =>
  (await storedRows(page, 'marks')).map((row) => (row as { comment: string }).comment).join('\n');
