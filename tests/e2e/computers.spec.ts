import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { expectNoViolation } from './noViolation';
import { teacherSecret } from './steps';

/** Names of its own: other tests have computers at the same server. */
const names = (test: string) => ({ school: `School ${test}`, home: `Home ${test}` });

async function pairAs(context: BrowserContext, name: string): Promise<Page> {
  const page = await context.newPage();
  await page.goto('/groups/group1');
  // The demo is laid out first, while others have theirs laid out.
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible({ timeout: 90_000 });
  await page.goto('/computers');
  await page.getByLabel('The teacher’s secret').fill(teacherSecret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  // Left before that, it is not paired.
  await expect(page.getByRole('heading', { level: 2 }).first()).toBeFocused();
  await page.getByLabel('What it is called').fill(name);
  await page.getByLabel('What it is called').press('Enter');
  await expect(page.getByText(`This computer is called ${name} now`)).toBeVisible();
  return page;
}

/** Waits until all that was done is on the server. */
async function sent(page: Page): Promise<void> {
  await page.goto('/backup');
  // As somebody presses who goes home: until the page is there, and again where something was done meanwhile.
  await expect(async () => {
    await page.getByRole('button', { name: 'Back up now' }).click();
    await expect(page.getByText('sealed with the teacher’s secret: last backup')).toContainText(
      'nothing has changed since',
      { timeout: 20_000 },
    );
  }).toPass({ timeout: 180_000 });
}

/** That it was taken over with all that was done there: nothing is said of an answer that did not come. */
const takenFrom = (page: Page, from: string) =>
  page.getByText(`The desk is here now, no longer on ${from}`, { exact: true });

/** A computer that has much to do answers late: it is asked again, as one would. */
async function takenInTheEnd(page: Page, from: string): Promise<void> {
  const taken = takenFrom(page, from);
  const again = page.getByRole('button', { name: 'Ask it again' });
  await expect(taken.or(again)).toBeVisible({ timeout: 60_000 });
  while (await again.isVisible()) {
    await again.click();
    await expect(again).toBeHidden();
    await expect(taken.or(again)).toBeVisible({ timeout: 60_000 });
  }
  await expect(taken).toBeVisible();
}

async function takeFirst(page: Page, from: string, unanswered = ''): Promise<void> {
  await page.goto('/computers');
  await page.getByRole('button', { name: `Take this desk over here: ${from}` }).click();
  const asked = page.getByRole('dialog', { name: 'Replace your desk with this one' });
  await expect(asked).toContainText('holds 92 students');
  await asked.getByRole('button', { name: 'Replace permanently' }).click();
  await expect(takenFrom(page, `${from}${unanswered}`)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Your desk is here' })).toBeFocused();
}

async function rename(page: Page, group: string, name: string): Promise<void> {
  await page.goto(`/groups/${group}`);
  await page.getByLabel('Group name').fill(name);
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
}

test('a desk is taken over at home and back at school, and is for reading only where it is not', async ({
  browser,
}) => {
  test.setTimeout(360_000);
  const { school: atSchool, home: atHome } = names('A');
  const contexts = [await browser.newContext(), await browser.newContext()] as const;
  const school = await pairAs(contexts[0], atSchool);
  await sent(school);
  await school.goto('/groups/group2');
  const joinCode =
    (await school
      .getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/)
      .first()
      .textContent()) ?? '';
  const home = await pairAs(contexts[1], atHome);
  await takeFirst(home, atSchool);
  await home.goto('/sittings/lights/mark');
  await expect(home.getByLabel('Points for the current answers')).toBeVisible();

  await test.step('at school it can be read, and nothing can be changed', async () => {
    await school.goto('/sittings/lights/run');
    const bar = school.getByText(new RegExp(`^This desk is on ${atHome} since`));
    await expect(bar).toBeVisible({ timeout: 30_000 });
    await expect(school.getByRole('table')).toBeVisible();
    await expectNoViolation(school, 'a desk that is elsewhere');
    // Who would come in on this computer is looked for on the server, and what is shown here takes nothing in.
    const student = await school.context().newPage();
    await student.goto('/sit');
    await student.getByLabel('Your join code').fill(joinCode);
    await student.getByRole('button', { name: 'Continue' }).click();
    await expect(student.getByText(/^Code not recognised/)).toBeVisible();
    await student.close();
    await school.goto('/groups/group1');
    const heading = school.getByRole('heading', { level: 1 });
    const before = await heading.textContent();
    await school.getByLabel('Group name').focus();
    await school.keyboard.type('Other');
    await expect(
      school
        .getByRole('status')
        .filter({ hasText: `on ${atHome}` })
        .first(),
    ).toBeVisible();
    await expect(school.getByLabel('Group name')).toHaveValue(before ?? '');
  });

  await test.step('it comes back with what was done last at home, though nobody sent it', async () => {
    // Both are where they have to be: a computer that wasn't heard of for some seconds counts as off.
    await home.goto('/groups/group1');
    await home.getByLabel('Group name').fill('Evening mates');
    await school.goto('/computers');
    await expect(school.getByRole('button', { name: 'Take the desk over here' })).toBeVisible();
    await home.context().route('**/api/exchange/**', (route) => route.abort());
    await school.getByRole('button', { name: 'Take the desk over here' }).click();
    // It was there a moment ago: without its answer nothing is taken unasked.
    const silent = school.getByRole('region', { name: 'The other computer didn’t answer' });
    await expect(silent).toContainText(`${atHome} didn’t answer`);
    await expectNoViolation(school, 'a computer that didn’t answer');
    await silent.getByRole('button', { name: 'Cancel' }).click();
    await expect(school.getByRole('button', { name: 'Take the desk over here' })).toBeFocused();
    await home.getByRole('button', { name: 'Rename' }).click();
    await expect(home.getByRole('heading', { level: 1 })).toHaveText('Evening mates');
    await home.context().unroute('**/api/exchange/**');
    // What was done last is on its way for ever: the page is left while it is being sent, and opened again.
    await home.context().route('**/api/exchange/desk/copies/**', () => undefined);
    await home.goto('/groups/group1');
    await expect(home.getByRole('heading', { level: 1 })).toHaveText('Evening mates');
    await school.goto('/groups/group1');
    await school.getByRole('link', { name: 'Take the desk over here' }).click();
    await expect(
      home.getByText(`${atSchool} is taking this desk over. What was done here is being sent.`),
    ).toBeVisible();
    await home.context().unroute('**/api/exchange/desk/copies/**');
    await home.goto('/groups/group1');
    await takenInTheEnd(school, atHome);
    await school.goto('/groups/group1');
    await expect(school.getByRole('heading', { level: 1 })).toHaveText('Evening mates');
    await expect(home.getByText(new RegExp(`^This desk is on ${atSchool} since`))).toBeVisible({
      timeout: 30_000,
    });
  });

  await test.step('a lost computer is forgotten by the secret', async () => {
    await school.goto('/computers');
    await school.getByRole('button', { name: `Forget this computer: ${atHome}` }).click();
    const form = school.getByRole('form', { name: `Forget ${atHome}` });
    await form.getByRole('button', { name: 'Cancel' }).click();
    await expect(school.getByRole('button', { name: `Forget this computer: ${atHome}` })).toBeFocused();
    await school.keyboard.press('Enter');
    await form.getByLabel('The teacher’s secret').fill('not the secret at all');
    await form.getByRole('button', { name: `Forget ${atHome}` }).click();
    await expect(form.getByText('That isn’t this server’s secret.')).toBeVisible();
    await form.getByLabel('The teacher’s secret').fill(teacherSecret);
    await form.getByRole('button', { name: `Forget ${atHome}` }).click();
    await expect(school.getByText(`${atHome} is forgotten`)).toBeVisible();
    await expect(school.getByRole('heading', { name: 'Paired computers' })).toBeFocused();
    await expect(home.getByText('This browser was forgotten by the server.').first()).toBeVisible({
      timeout: 30_000,
    });
    await home.goto('/computers');
    await expect(home.getByRole('heading', { name: 'Pair this browser first' })).toBeVisible();
    // Found again: who knows the secret pairs it anew.
    await home.getByLabel('The teacher’s secret').focus();
    await home.keyboard.type(teacherSecret);
    await home.getByRole('button', { name: 'Pair browser' }).click();
    await expect(home.getByRole('heading', { name: 'Your desk is on another computer' })).toBeVisible();
  });
  for (const context of contexts) await context.close();
});

test('both changed without a network: side by side, one of each taken, both kept', async ({ browser }) => {
  test.setTimeout(360_000);
  const { school: atSchool, home: atHome } = names('B');
  const contexts = [await browser.newContext(), await browser.newContext()] as const;
  const school = await pairAs(contexts[0], atSchool);
  await sent(school);
  await school.goto('/groups/group1');
  await expect(school.getByRole('heading', { level: 1 })).toBeVisible();
  // The server can't be reached from school.
  await contexts[0].route('**/api/exchange/**', (route) => route.abort());
  const home = await pairAs(contexts[1], atHome);
  await takeFirst(home, atSchool, `. It didn’t answer: what it hadn’t sent is shown once it is back`);
  await rename(home, 'group1', 'Named at home');
  await sent(home);
  await rename(school, 'group1', 'Named at school');
  await contexts[0].unroute('**/api/exchange/**');
  const bar = school.getByText(new RegExp(`^This desk is on ${atHome} since`));
  await expect(bar).toContainText('What was changed here last never got there.', { timeout: 60_000 });
  await school.getByRole('link', { name: 'Take the desk over here' }).click();
  const both = school.getByRole('region', { name: 'Changed on both computers' });
  await expect(both.getByRole('heading', { name: 'Changed on both computers' })).toBeFocused();
  const people = both.getByRole('group', { name: 'Students and groups' });
  await expect(people).toContainText('1 group');
  const take = both.getByRole('button', { name: 'Take the desk over like this' });
  await expect(take).toBeDisabled();
  await expectNoViolation(school, 'two desks side by side');
  await school.setViewportSize({ width: 320, height: 640 });
  expect(await school.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await school.setViewportSize({ width: 1280, height: 800 });
  // By keys alone: the first radio of the group, then its button.
  await people.getByRole('radio').first().focus();
  await school.keyboard.press('Space');
  await expect(people.getByRole('radio', { name: /this computer/ })).toBeChecked();
  await take.click();
  await expect(school.getByText(`The desk is here now, no longer on ${atHome}`)).toBeVisible();
  await school.goto('/groups/group1');
  await expect(school.getByRole('heading', { level: 1 })).toHaveText('Named at school');
  await school.goto('/backup');
  for (const name of [atSchool, atHome])
    await expect(school.getByText(`as it was on ${name} before two were made one`)).toBeVisible();
  for (const context of contexts) await context.close();
});
