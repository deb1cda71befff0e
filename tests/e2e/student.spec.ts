import { expect, test, type Page } from '@playwright/test';
import {
  beginPaper,
  emptyDesk,
  enterAs,
  handIn,
  joinCodeOf,
  makeGroup,
  pasteStudents,
  startPaper,
  writeChoice,
  writeOpen,
} from './steps';

/** A desk with one student, two questions and secrets in every place a teacher can put them; the join code. */
async function deskWithSecrets(page: Page): Promise<string> {
  await makeGroup(page, 'Night watch');
  await pasteStudents(page, ['Name,Number', 'Nia Mwangi,1']);
  const code = await joinCodeOf(page, 'Mwangi');
  await beginPaper(page, 'Lights');
  await writeChoice(page, 1, 'A red light means', ['port side', 'starboard side']);
  await page.getByRole('button', { name: 'Comment on option B' }).click();
  await page.getByLabel('Comment for students who choose B').fill('SECRET-option');
  await page.getByLabel('Comment when right').fill('SECRET-right');
  await page.getByLabel('Private note').fill('SECRET-note');
  await writeOpen(page, 2, 'Describe a cardinal mark.', 'SECRET-model', 'SECRET-line');
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { name: 'Nothing to fix' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByRole('button', { name: 'Give out to 1 student' }).click();
  await expect(page.getByRole('button', { name: '1 not started' })).toBeVisible();
  return code;
}

/** Everything in the student's own database, as text. */
async function studentDatabase(page: Page): Promise<string> {
  return page.evaluate(
    () =>
      new Promise<string>((resolve, reject) => {
        const opening = indexedDB.open('gribbet-sit');
        opening.onerror = () => reject(new Error('no student database'));
        opening.onsuccess = () => {
          const db = opening.result;
          const names = [...db.objectStoreNames];
          const reading = db.transaction(names).objectStore('attempts').getAll();
          reading.onsuccess = () => {
            resolve(JSON.stringify({ names, rows: reading.result }));
            db.close();
          };
        };
      }),
  );
}

test('a student never receives a key, scheme, note or comment: not stored, not over the network, not on the page', async ({
  page,
  context,
}) => {
  const code = await deskWithSecrets(page);
  const bodies: string[] = [];
  context.on('response', (response) => {
    if (response.url().includes('/sit') || response.request().resourceType() === 'fetch')
      void response.text().then(
        (text) => bodies.push(text),
        () => undefined,
      );
  });
  const posted: string[] = [];
  context.on('request', (request) => posted.push(request.postData() ?? ''));
  const student = await enterAs(context, code);
  await startPaper(student);
  await student.getByRole('radio', { name: /starboard/ }).check();
  await expect(student.getByText(/^saved \d/)).toBeVisible();
  const stored = await studentDatabase(student);
  expect(stored).toContain('A red light means');
  expect(stored).not.toContain('SECRET');
  expect(stored).not.toMatch(/"(key|scheme|modelAnswer|note|comment\w*)"/);
  expect(await student.content()).not.toContain('SECRET');
  await handIn(student);
  expect(bodies.join('\n')).not.toContain('SECRET');
  expect(posted.join('\n')).not.toContain('starboard');
  // Handed in, the device forgets the paper.
  expect(await studentDatabase(student)).not.toContain('A red light means');
});

test.describe('on a phone', () => {
  test('everything typed is kept through a killed tab; nothing is cut off at 360 px', async ({
    page,
    context,
  }) => {
    const code = await deskWithSecrets(page);
    const phone = await enterAs(context, code);
    await phone.setViewportSize({ width: 360, height: 640 });
    await startPaper(phone);
    const fits = async () =>
      expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
    await fits();
    await phone
      .getByRole('textbox', { name: /cardinal mark/ })
      .pressSequentially('Two cones, black and yel', { delay: 50 });
    // The power goes in the middle of typing: no goodbye to the page.
    const crashed = phone.waitForEvent('crash');
    const killer = await context.newCDPSession(phone);
    void killer.send('Page.crash').catch(() => undefined);
    await crashed;

    const again = await enterAs(context, code);
    await again.setViewportSize({ width: 360, height: 640 });
    await expect(
      again.getByText('You have started. Your answers are saved and the clock is running.'),
    ).toBeVisible();
    await startPaper(again);
    await expect(again.getByRole('textbox', { name: /cardinal mark/ })).toHaveValue(/^Two cones, black a/);
    await again
      .getByRole('region', { name: 'Question 1' })
      .getByRole('button', { name: 'Come back to this' })
      .click();
    await expect(
      again.getByRole('button', { name: 'Question 1: not answered, come back to it' }),
    ).toBeVisible();
    await again.getByRole('button', { name: 'Check and hand in', exact: true }).click();
    await expect(again.getByText('1 question not answered:')).toBeVisible();
    expect(await again.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
    await again.getByRole('button', { name: 'Hand in with 1 question unanswered' }).click();
    await expect(again.getByRole('heading', { name: 'Handed in' })).toBeVisible();
    await expect(again.getByText(/^[A-Z0-9]{6,8}$/)).toBeVisible();
  });
});

test('a wrong join code is said kindly', async ({ page }) => {
  await page.goto(`${emptyDesk}/sit`);
  await page.getByLabel('Your join code').fill('222 222');
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByText('Code not recognised.')).toBeVisible();
});
