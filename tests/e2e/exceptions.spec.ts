import { expect, test, type Page } from '@playwright/test';
import {
  beginPaper,
  enterAs,
  givePaper,
  handIn,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  startPaper,
  writeChoice,
} from './steps';

/** Opens what can be done for one student, and one of the acts. */
async function actFor(page: Page, name: RegExp, act: string) {
  await page.getByRole('rowheader', { name }).getByRole('button').click();
  await page.getByRole('button', { name: act, exact: true }).click();
  return page.getByRole('form', { name: act });
}

test('handed in by mistake, opened by mistake, ill: each is put right for that student alone', async ({
  page,
}) => {
  await makeGroup(page, 'Exceptions');
  await pasteStudents(page, ['Name', 'Moreau, Lea', 'Tanaka, Ren']);
  const code = await joinCodeOf(page, 'Moreau');
  await beginPaper(page, 'Lights');
  await writeChoice(page, 1, 'Red light?', ['port', 'starboard']);
  await givePaper(page, 'Exceptions', 2);

  // Handed in by mistake: the same answers again.
  const student = await enterAs(page.context(), code);
  await startPaper(student);
  await student.getByRole('radio', { name: /port/ }).first().check();
  await expect(student.getByText(/^saved/).first()).toBeVisible();
  await handIn(student);
  const carry = await actFor(page, /Moreau/, 'Reopen');
  await expect(carry).toContainText(
    'Lea Moreau carries on with the same answers, without a limit, as before.',
  );
  await carry.getByRole('button', { name: 'Reopen attempt' }).click();
  await kept(page, 'Lea Moreau can carry on');
  // The student's page hears of it by itself, and is at the questions again.
  await expect(student.getByRole('navigation', { name: 'Questions' })).toBeVisible({ timeout: 15_000 });
  await expect(student.getByRole('radio', { name: /port/ }).first()).toBeChecked();

  // Opened by mistake: the attempt is kept aside, and the student's page says that it is over.
  await page.getByRole('button', { name: 'Start again', exact: true }).click();
  const afresh = page.getByRole('form', { name: 'Start again' });
  await expect(afresh).toContainText('set aside with all its answers');
  await afresh.getByLabel('Reason, kept on record').selectOption('another reason');
  await afresh.getByLabel('Reason in your own words').fill('Sat down at the wrong desk');
  await afresh.getByRole('button', { name: 'Set aside and start again' }).click();
  await expect(page.getByText(/set aside by the teacher \(Sat down at the wrong desk\)/)).toBeVisible();
  await student.getByRole('button', { name: 'Go to your papers' }).click({ timeout: 15_000 });
  await startPaper(student);
  await expect(student.getByRole('radio', { name: /port/ }).first()).not.toBeChecked();
  await handIn(student);
  await page.keyboard.press('Control+z');

  // Ill: other times, with a warning where they cannot be.
  await page.getByRole('button', { name: 'Back to the sitting' }).click();
  const times = await actFor(page, /Tanaka/, 'Other times');
  await expect(times).toContainText('Ren Tanaka can sit it from when it opens for everyone until');
  await times.getByLabel('Closes at', { exact: true }).first().uncheck();
  await expect(times.getByRole('alert')).toHaveText('These are the same times as everyone’s.');
});

test('a fire alarm: ten minutes more for all who work, in one step and back', async ({ page }) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: '10 working' }).click();
  await page.getByRole('button', { name: 'More minutes', exact: true }).click();
  const form = page.getByRole('form', { name: 'More minutes' });
  await expect(form).toContainText('10 students get 10 more minutes.');
  await form.getByRole('button', { name: 'Give 10 minutes' }).click();
  await kept(page, '10 students have 10 more minutes');
  await page.getByRole('rowheader').first().getByRole('button').click();
  await expect(page.getByText('10 min of it extra')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('10 min of it extra')).toHaveCount(0);
});

test('of two attempts the best counts', async ({ page }) => {
  await makeGroup(page, 'Twice');
  await pasteStudents(page, ['Name', 'Diallo, Awa']);
  const code = await joinCodeOf(page, 'Diallo');
  await beginPaper(page, 'Sides');
  await writeChoice(page, 1, 'Red light?', ['port', 'starboard']);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByRole('checkbox', { name: /Twice/ }).check();
  await page.getByLabel('Attempts').fill('2');
  await page.getByLabel('Which one counts').selectOption('the best');
  await expect(page.getByText('Each student may sit it 2 times; the best counts.')).toBeVisible();
  await page.getByRole('button', { name: 'Give out to 1 student' }).click();
  const student = await enterAs(page.context(), code);
  for (const [round, side] of ['port', 'starboard'].entries()) {
    await startPaper(student);
    await student.getByRole('radio', { name: side }).check();
    await expect(student.getByText('1 of 1 answered')).toBeVisible();
    await handIn(student);
    await student.getByRole('button', { name: 'Go to your papers' }).click();
    if (round === 0) await expect(student.getByText(/You can make another attempt/)).toBeVisible();
  }
  await expect(student.getByText('Handed in. No result yet.')).toBeVisible();
  await expect(page.getByText('2, the best counts')).toBeVisible();
  await page
    .getByRole('navigation', { name: /^Stages of/ })
    .getByRole('link', { name: /^Hand back/ })
    .click();
  await expect(page.getByRole('row', { name: /Diallo, Awa/ })).toContainText('1 / 1');
});

test('who is ill on the day sits it at another time, alone; the others wait for theirs', async ({ page }) => {
  await makeGroup(page, 'Ill');
  await pasteStudents(page, ['Name', '"Moreau, Lea"', '"Tanaka, Ren"']);
  const [ill, other] = [await joinCodeOf(page, 'Moreau'), await joinCodeOf(page, 'Tanaka')];
  await beginPaper(page, 'Sounds');
  await writeChoice(page, 1, 'One short blast?', ['to starboard', 'to port']);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByRole('checkbox', { name: /Ill/ }).check();
  await page.getByRole('checkbox', { name: 'Opens: open straight away' }).check();
  const nextWeek = new Date(Date.now() + 7 * 24 * 3_600_000).toISOString().slice(0, 16);
  await page.getByRole('textbox', { name: 'Opens at' }).fill(nextWeek);
  await page.getByRole('button', { name: 'Give out to 2 students' }).click();
  await expect(page).toHaveURL(/\/run$/);

  const times = await actFor(page, /Moreau/, 'Other times');
  await times.getByRole('checkbox', { name: 'Opens: same as everyone' }).check();
  await times.getByRole('checkbox', { name: 'Closes at' }).uncheck();
  await expect(times).toContainText('Nobody else is affected.');
  await times.getByLabel('Reason, kept on record').selectOption('Illness');
  await times.getByRole('button', { name: 'Give these times' }).click();
  await kept(page, 'Lea Moreau has different times');
  await expect(page.getByText(/other times given: from .*\(Illness\)/)).toBeVisible();

  const waiting = await enterAs(page.context(), other);
  await expect(waiting.getByText(/^Opens /)).toBeVisible();
  const student = await enterAs(page.context(), ill);
  await startPaper(student);
  await student.getByRole('radio', { name: /starboard/ }).check();
  await expect(student.getByText('1 of 1 answered')).toBeVisible();
  await handIn(student);
  await page.bringToFront();
  await expect(page.getByRole('row', { name: /Moreau, Lea/ })).toContainText('handed in');
  await expect(page.getByRole('row', { name: /Tanaka, Ren/ })).toContainText('not started');
});
