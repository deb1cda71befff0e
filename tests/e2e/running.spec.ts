import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import {
  beginPaper,
  emptyDesk,
  enterAs,
  handIn,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  stage,
  startPaper,
  writeChoice,
  writeOpen,
} from './steps';

/** A group, and a paper of one choice and one open question, ready to be given out; the join codes in order. */
async function ready(page: Page, group: string, names: string[]): Promise<string[]> {
  await makeGroup(page, group);
  await pasteStudents(page, ['Name', ...names.map((name) => `"${name}"`)]);
  const codes: string[] = [];
  for (const name of names) codes.push(await joinCodeOf(page, name.split(',')[0] ?? ''));
  await beginPaper(page, `Lights for ${group}`);
  await writeChoice(page, 1, 'A red light means', ['port side', 'starboard side', 'astern']);
  await writeOpen(page, 2, 'Describe a cardinal mark.', 'Two cones', 'names the cones');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByRole('checkbox', { name: new RegExp(group) }).check();
  return codes;
}

const giveTo = async (page: Page, count: number) => {
  await page.getByRole('button', { name: `Give out to ${count} student${count === 1 ? '' : 's'}` }).click();
  await expect(page).toHaveURL(/\/run$/);
};

async function seat(page: Page, name: RegExp) {
  await page.getByRole('rowheader', { name }).getByRole('button').click();
}

test('one attempt hangs: it is collected alone while two others go on; its course is on record, then it is deleted for good', async ({
  page,
  context,
}) => {
  const codes = await ready(page, 'Hanging', ['Moreau, Lea', 'Tanaka, Ren', 'Diallo, Awa']);
  await giveTo(page, 3);
  const tabs: Page[] = [];
  for (const code of codes) {
    const tab = await enterAs(context, code);
    await startPaper(tab);
    await tab.getByRole('radio', { name: /port/ }).check();
    await expect(tab.getByText(/^saved \d/)).toBeVisible();
    tabs.push(tab);
  }
  await page.bringToFront();
  await seat(page, /Moreau/);
  await page.getByRole('button', { name: 'Collect now', exact: true }).click();
  const form = page.getByRole('form', { name: 'Collect now' });
  await expect(form).toContainText(
    'Lea Moreau’s answers are collected as they are. Nobody else is affected.',
  );
  await form.getByRole('button', { name: 'Collect', exact: true }).click();
  const [hanging, ...others] = tabs;
  if (!hanging) throw new Error('no tab');
  await expect(hanging.getByRole('heading', { name: 'Your teacher has collected your paper' })).toBeVisible({
    timeout: 15_000,
  });
  for (const tab of others) {
    await tab.getByRole('textbox', { name: /cardinal mark/ }).fill('Still at it');
    await expect(tab.getByText('2 of 2 answered')).toBeVisible();
    await handIn(tab);
  }
  await page.getByRole('link', { name: 'Timeline of the attempt' }).click();
  await expect(
    page.getByRole('listitem').filter({ hasText: 'collected by the teacher (Attempt is stuck)' }),
  ).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: /answered 1/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^1/ })).toContainText('port side');
  await page.getByRole('button', { name: 'Delete permanently…' }).click();
  const asked = page.getByRole('dialog', { name: 'Delete attempt 1 of Lea Moreau permanently?' });
  await expect(asked).toContainText('This also deletes 1 answer, 0 marks');
  await asked.getByRole('button', { name: 'Delete permanently' }).click();
  await expect(page.getByRole('button', { name: '1 not started' })).toBeVisible();
  await expect(page.getByRole('button', { name: '2 handed in' })).toBeVisible();
});

test('the device’s clock is moved: it gives no time, and the window closes while the student works', async ({
  page,
  context,
}) => {
  const [code = ''] = await ready(page, 'Clock', ['Moreau, Lea']);
  await page.getByLabel('Time limit in minutes').fill('10');
  await giveTo(page, 1);
  const student = await context.newPage();
  // The clock of the device alone, as someone sets it: what the device counts steadily by goes on.
  await student.addInitScript(() => {
    const Real = Date;
    let moved = 0;
    class MovedDate extends Real {
      constructor(...given: [] | [number]) {
        super(given.length === 0 ? Real.now() + moved : given[0]);
      }
      static override now() {
        return Real.now() + moved;
      }
    }
    Object.assign(window, { Date: MovedDate, moveClock: (ms: number) => (moved = ms) });
  });
  const moveClock = (ms: number) =>
    student.evaluate((by) => (window as unknown as { moveClock: (ms: number) => void }).moveClock(by), ms);
  await student.goto(`${emptyDesk}/sit?code=${code.replace(' ', '')}`);
  await student.getByRole('button', { name: 'Continue' }).click();
  await student.getByRole('button', { name: 'Yes, this is me' }).click();
  await startPaper(student);
  await expect(student.getByText(/^(09:[345]\d|10:00) left$/)).toBeVisible();
  const left = student.getByText(/^\d\d:\d\d left$/);
  for (const by of [-3_600_000, 3_600_000]) {
    await moveClock(by);
    // It was counted anew, by the clock that was moved or not.
    const before = (await left.textContent()) ?? '';
    await expect(left).not.toHaveText(before);
    await expect(left).toHaveText(/^09:[0-5]\d left$/);
  }
  // Hidden, the time is not seen; the student can go on.
  await student.getByRole('button', { name: 'Hide the time' }).click();
  await expect(student.getByText(/^09:[0-5]\d left$/)).toHaveCount(0);
  await student.getByRole('radio', { name: /port/ }).check();
  await expect(student.getByText(/^saved \d/)).toBeVisible();
  // The window closes now, for everyone.
  await page.bringToFront();
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onerror = () => reject(new Error('no desk'));
        opening.onsuccess = () => {
          const change = opening.result.transaction('sittings', 'readwrite');
          const store = change.objectStore('sittings');
          const reading = store.getAll();
          reading.onsuccess = () => {
            const last = (reading.result as { createdAt: string }[]).sort((a, b) =>
              b.createdAt.localeCompare(a.createdAt),
            )[0];
            store.put({ ...last, closesAt: new Date(Date.now() + 3000).toISOString() });
          };
          change.oncomplete = () => resolve();
        };
      }),
  );
  await expect(student.getByRole('heading', { name: /^Time is up|^Handed in$/ })).toBeVisible({
    timeout: 20_000,
  });
  await expect(student.getByText('1 of 2 questions')).toBeVisible();
});

test('a guest sits it under a typed name, and is matched to a student afterwards with the attempt', async ({
  page,
  context,
}) => {
  await ready(page, 'Harbour', ['Moreau, Lea']);
  await page.getByLabel(/Guests can join/).check();
  await expect(page.getByRole('alert')).toHaveText('Guests need an access code to join.');
  await page.getByLabel('Access code').fill('lighthouse');
  await giveTo(page, 1);
  const guest = await context.newPage();
  await guest.goto(`${emptyDesk}/sit`);
  await guest.getByRole('button', { name: 'No code? Join as a guest' }).click();
  await guest.getByLabel('Your name').fill('Lea M.');
  await guest.getByLabel('Access code').fill('lantern');
  await guest.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(guest.getByRole('alert')).toContainText('doesn’t work for guests');
  await guest.getByLabel('Access code').fill('Lighthouse');
  await guest.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(guest.getByText('You are here as a guest.')).toBeVisible();
  await startPaper(guest);
  await guest.getByRole('radio', { name: /port/ }).check();
  await expect(guest.getByText('1 of 2 answered')).toBeVisible();
  await handIn(guest);

  await page.bringToFront();
  await page.getByLabel('Group', { exact: true }).selectOption('Guests');
  await seat(page, /M., Lea/);
  await page.getByRole('combobox', { name: 'Student' }).fill('Moreau');
  await page.getByRole('option', { name: /Moreau, Lea/ }).click();
  await page.getByRole('button', { name: 'Match to this student' }).click();
  await kept(page, 'Guest Lea M. matched to Lea Moreau');
  await expect(page.getByRole('row', { name: /Moreau, Lea/ })).toContainText('handed in');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByLabel('Group', { exact: true }).selectOption('Without guests');
  await expect(page.getByRole('row', { name: /Moreau, Lea/ })).toContainText('not started');
});

test('one by one, and students can’t go back', async ({ page, context }) => {
  const [code = ''] = await ready(page, 'Singly', ['Moreau, Lea']);
  await page.getByLabel('one at a time, can’t go back').check();
  await expect(page.getByText(/Questions come one at a time, and students can’t go back\./)).toBeVisible();
  await giveTo(page, 1);
  const student = await enterAs(context, code);
  await student.setViewportSize({ width: 360, height: 640 });
  await startPaper(student);
  await expect(student.getByRole('region', { name: 'Question 2' })).toHaveCount(0);
  await expect(student.getByRole('button', { name: 'Question 2: not answered' })).toBeDisabled();
  await student.getByRole('radio', { name: /astern/ }).check();
  await expect(student.getByText('Once you go on, you can’t come back to this question.')).toBeVisible();
  await student.getByRole('button', { name: 'Finish this and go on' }).click();
  await expect(student.getByRole('region', { name: 'Question 1' })).toHaveCount(0);
  await expect(student.getByRole('button', { name: 'Question 1: answered, done with' })).toBeDisabled();
  await expect(student.getByText(/^saved \d/)).toBeVisible();
  expect(await student.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  // Come back in: it goes on where it was.
  await student.reload();
  await student.getByRole('button', { name: 'Continue' }).click();
  await student.getByRole('button', { name: 'Yes, this is me' }).click();
  await startPaper(student);
  await student.getByRole('textbox', { name: /cardinal mark/ }).fill('Two cones');
  await student.getByRole('button', { name: 'Finish and check before handing in' }).click();
  await expect(student.getByRole('button', { name: 'Back to the questions' })).toHaveCount(0);
  await student.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(student.getByText('2 of 2 questions')).toBeVisible();
});

test('practice with tries and hints, and the result straight after', async ({ page, context }) => {
  await makeGroup(page, 'Practice');
  await pasteStudents(page, ['Name', '"Moreau, Lea"']);
  const code = await joinCodeOf(page, 'Moreau');
  await beginPaper(page, 'Practice');
  await writeChoice(page, 1, 'A red light means', ['port side', 'starboard side', 'astern']);
  await page.getByLabel('Points for question 1').fill('4');
  await page.getByLabel('Comment when wrong').fill('Think of wine.');
  await page.getByRole('button', { name: 'Add a hint' }).click();
  await page.getByLabel('Hint 1', { exact: true }).fill('Port is red.');
  await page.getByLabel('Percent of the points that hint 1 costs').fill('25');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByRole('checkbox', { name: /Practice/ }).check();
  await page.getByLabel('Students see at once how they did on each question').check();
  await page.getByLabel('Students see something straight away').check();
  await expect(
    page.getByText(/can try up to 3 times; each further try loses 25% of the points/),
  ).toBeVisible();
  await page.getByLabel('Name for these settings').fill('Practice at home');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await kept(page, 'Settings saved as “Practice at home”');
  await page.getByLabel('Students see at once how they did on each question').uncheck();
  await page.getByRole('button', { name: 'Practice at home', exact: true }).click();
  await expect(page.getByLabel('Tries for each question')).toHaveValue('3');
  await giveTo(page, 1);

  const student = await enterAs(context, code);
  await startPaper(student);
  await student.getByRole('radio', { name: /astern/ }).check();
  await student.getByRole('button', { name: 'Check answer' }).click();
  await expect(student.getByRole('status').filter({ hasText: 'Not right. 2 tries left.' })).toContainText(
    'Think of wine.',
  );
  await expect(student.getByText('3 points still available.')).toBeVisible();
  await student.getByRole('button', { name: 'Get a hint for 25% of the points' }).click();
  await expect(student.getByRole('list', { name: 'Hints you used' })).toContainText('Port is red.');
  await student.getByRole('radio', { name: /port/ }).check();
  await student.getByRole('button', { name: 'Try again' }).click();
  await expect(student.getByText('Right.', { exact: true })).toBeVisible();
  await expect(student.getByRole('radio', { name: /astern/ })).toBeDisabled();
  await handIn(student);
  await student.getByRole('button', { name: 'See how I did' }).click();
  await expect(student.getByText(/^2 of 4 points/)).toBeVisible();
  await page.bringToFront();
  await expect(page.getByRole('columnheader', { name: 'Tries' })).toBeVisible();
  await expect(page.getByRole('img', { name: '50% of the points' })).toBeVisible();
});

async function twoTabs(context: BrowserContext, code: string) {
  const first = await enterAs(context, code);
  await startPaper(first);
  return first;
}

test('an attempt in two tabs: the second takes over, the first says so and can take it back', async ({
  page,
  context,
}) => {
  const [code = ''] = await ready(page, 'Tabs', ['Moreau, Lea']);
  await giveTo(page, 1);
  const first = await twoTabs(context, code);
  await first.getByRole('textbox', { name: /cardinal mark/ }).fill('Typed in the first');
  const second = await enterAs(context, code);
  await startPaper(second);
  await expect(second.getByRole('textbox', { name: /cardinal mark/ })).toHaveValue('Typed in the first');
  await second.getByRole('textbox', { name: /cardinal mark/ }).fill('and in the second');
  await expect(second.getByText(/^saved \d/)).toBeVisible();
  await first.bringToFront();
  await expect(first.getByRole('heading', { name: 'Your paper is open in another tab' })).toBeVisible({
    timeout: 15_000,
  });
  await first.getByRole('button', { name: 'Continue here instead' }).click();
  await expect(first.getByRole('textbox', { name: /cardinal mark/ })).toHaveValue('and in the second');
  await second.bringToFront();
  await expect(second.getByRole('heading', { name: 'Your paper is open in another tab' })).toBeVisible({
    timeout: 15_000,
  });
});

test('a student asks for more time and has it; asks again and is told no', async ({ page, context }) => {
  const [code = ''] = await ready(page, 'Asking', ['Moreau, Lea']);
  await page.getByLabel('Time limit in minutes').fill('20');
  await giveTo(page, 1);
  const student = await enterAs(context, code);
  const ask = async (words: string) => {
    await student.getByRole('button', { name: 'Ask your teacher about this paper' }).click();
    await student.getByLabel('I need').selectOption('more time');
    await student.getByLabel('Reason').fill(words);
    await student.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(student.getByText('Your teacher hasn’t answered yet.')).toBeVisible();
  };
  await ask('My arm is in plaster');
  await page.bringToFront();
  await page.goto(`${emptyDesk}/`);
  await page.getByRole('link', { name: 'Review requests' }).click();
  await page.getByRole('button', { name: 'Grant…' }).click();
  const form = page.getByRole('form', { name: 'More minutes' });
  await expect(form.getByLabel('Reason in your own words')).toHaveValue('My arm is in plaster');
  await form.getByLabel('Minutes').fill('15');
  await form.getByRole('button', { name: 'Give 15 minutes' }).click();
  await kept(page, 'Lea Moreau: request granted');
  await student.bringToFront();
  await expect(student.getByText('Granted: more minutes')).toBeVisible({ timeout: 15_000 });
  await expect(student.getByText(/2 questions, 35 min/)).toBeVisible();
  await ask('And now an hour');
  await page.bringToFront();
  await page.getByRole('button', { name: 'Decline…' }).click();
  await page.getByLabel('Message to the student').fill('Fifteen it is.');
  await page.getByRole('button', { name: 'Decline' }).click();
  await student.bringToFront();
  await expect(student.getByText('Declined: Fifteen it is.')).toBeVisible({ timeout: 15_000 });
});

test('who has not started is nudged, picked in the grid; names are hidden and columns sort', async ({
  page,
}) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: 'State', exact: true }).click();
  await expect(page.getByRole('row').nth(1)).toContainText('working');
  await page.getByRole('button', { name: /^State/ }).click();
  await expect(page.getByRole('columnheader', { name: /^State/ })).toHaveAttribute('aria-sort', 'descending');
  await expect(page.getByRole('row').nth(1)).toContainText('handed in');
  await page.getByRole('button', { name: '4 not started' }).click();
  for (const row of [1, 2]) await page.getByRole('row').nth(row).getByRole('checkbox').check();
  await expect(page.getByRole('heading', { name: 'For the 2 students selected' })).toBeVisible();
  await page.getByRole('button', { name: 'Send a reminder' }).click();
  const form = page.getByRole('form', { name: 'Send a reminder' });
  await form.getByLabel('Subject').fill('The quiz is open, {given name}');
  await form.getByRole('button', { name: 'Put in the outbox' }).click();
  await kept(page, 'Messages to 2 students put in the outbox');
  const name = (await page.getByRole('rowheader').first().textContent()) ?? '';
  await page.getByRole('button', { name: 'Hide names' }).click();
  await expect(page.getByRole('region', { name: 'Students and their answers' })).not.toContainText(name);
  await page.goto('/outbox');
  await expect(page.getByText(`The quiz is open, ${name.split(', ')[1]}`)).toBeVisible();
  await expect(page.getByText(/Join with your code [2-9A-Z]{6}/)).toHaveCount(2);
});

test('offline for a while and back again', async ({ page, context }) => {
  const [code = ''] = await ready(page, 'Offline', ['Moreau, Lea']);
  await giveTo(page, 1);
  const underway = new Set<string>();
  const fetched: string[] = [];
  page.on('request', (asked) => asked.resourceType() === 'script' && underway.add(asked.url()));
  page.on('requestfinished', (asked) => underway.delete(asked.url()) && fetched.push(asked.url()));
  await page.reload();
  const student = await enterAs(context, code);
  await startPaper(student);
  await expect(student.getByText(/^saved \d/)).toBeVisible();
  // What opens over the grid is fetched before anybody asks for it: the server may be gone by then.
  await expect
    .poll(() => fetched.some((url) => url.includes('/ChangeRules.')) && underway.size === 0)
    .toBe(true);
  await context.setOffline(true);
  await seat(page, /Moreau/);
  await page.getByRole('button', { name: 'Back to the sitting' }).click();
  await page.getByRole('button', { name: 'Change settings' }).click();
  await expect(page.getByRole('button', { name: 'Change settings' })).toHaveAttribute(
    'aria-expanded',
    'true',
  );
  await expect(page.getByRole('textbox', { name: 'Name of this sitting' })).toBeVisible();
  await expect(page.getByText(/couldn’t be loaded/)).toHaveCount(0);
  await student.getByRole('textbox', { name: /cardinal mark/ }).fill('Typed without a network');
  await expect(student.getByText('1 of 2 answered')).toBeVisible();
  await context.setOffline(false);
  await expect(student.getByText(/^saved \d/)).toBeVisible({ timeout: 15_000 });
  await handIn(student);
  await page.bringToFront();
  await stage(page, 'Mark');
  await expect(page.getByText('Typed without a network').first()).toBeVisible();
});

test('of several picked, attempts are set aside in one step, taken back in one, and deleted only once named', async ({
  page,
}) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: '18 handed in' }).click();
  const names: string[] = [];
  for (const row of [1, 2, 3]) {
    await page.getByRole('row').nth(row).getByRole('checkbox').check();
    names.push(
      (await page
        .getByRole('rowheader')
        .nth(row - 1)
        .textContent()) ?? '',
    );
  }
  await page.getByRole('button', { name: 'Set an attempt aside', exact: true }).click();
  const aside = page.getByRole('form', { name: 'Set an attempt aside' });
  await expect(aside).toContainText('The attempts of 3 students are kept but no longer count');
  await aside.getByRole('button', { name: 'Set aside' }).click();
  await expect(page.getByRole('button', { name: '15 handed in' })).toBeVisible();
  await page.getByRole('button', { name: /^7 not started/ }).click();
  for (const name of names) await page.getByRole('checkbox', { name: `Select ${name}` }).check();
  await page.getByRole('button', { name: 'Restore an attempt', exact: true }).click();
  await page.getByRole('button', { name: 'Restore attempt' }).click();
  await kept(page, '3 students have an attempt counted again');
  await expect(page.getByRole('button', { name: '18 handed in' })).toBeVisible();
  await page.getByRole('button', { name: '4 not started' }).click();
  await page.getByRole('button', { name: 'Delete permanently…' }).click();
  const asked = page.getByRole('dialog', { name: 'Delete 3 attempts permanently?' });
  for (const name of names) await expect(asked).toContainText(name.split(', ').reverse().join(' '));
  await asked.getByRole('button', { name: 'Delete permanently' }).click();
  await kept(page, '3 attempts deleted permanently');
  await expect(page.getByRole('button', { name: '15 handed in' })).toBeVisible();
});
