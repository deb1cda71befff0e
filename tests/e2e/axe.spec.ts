import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { goIn, teacherSecret } from './steps';

// WCAG 2.2 A and AA, as far as axe-core's rules reach.
const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22a', 'wcag22aa'];

async function expectNoViolation(page: Page, where: string) {
  // What still fades in has the contrast of a moment, not of the design.
  await page.waitForFunction(() =>
    document.getAnimations().every((animation) => animation.playState !== 'running'),
  );
  const { violations } = await new AxeBuilder({ page }).withTags(rules).analyze();
  const found = violations.map(
    (violation) =>
      `${where}: ${violation.id} ${violation.nodes
        .map((node) => node.target.join(' '))
        .slice(0, 4)
        .join(' | ')}`,
  );
  expect(found).toEqual([]);
}

/** Every view of the desk with what shows that it stands. */
const views: [string, string][] = [
  ['/', 'On the desk'],
  ['/groups', 'Groups'],
  ['/groups/group1', 'Monday evening'],
  ['/groups/all', 'All students'],
  ['/groups/group1/slips', 'Join slips: Monday evening'],
  ['/groups/register', 'From a school register'],
  ['/requests', 'What students ask for'],
  ['/outbox', 'The outbox is empty'],
  ['/bank', 'Bank'],
  ['/backup', 'Backup of the whole desk'],
  ['/papers/paper-weather', 'The paper'],
  ['/papers/paper-tides/give', 'So it will be'],
  ['/papers/paper-tides/look', 'As a student sees it'],
  ['/papers/paper-passage/look', 'As a student sees it'],
  ['/papers/paper-passage/print', 'What to print'],
  ['/papers/paper-passage/sheet', 'This paper as a sheet'],
  ['/sittings/rules/run', 'The rules'],
  ['/sittings/rules/devices', 'Quiz 2: collision rules on students’ own devices'],
  ['/sittings/rules/by-hand', 'The paper, out'],
  ['/sittings/lights/attempts/lights-student03', 'The course of the attempt'],
  ['/sittings/tides/mark', 'Question 10, 4 points'],
  ['/sittings/lights/scripts/student03', 'Total'],
  ['/sittings/lights/analyse', 'Questions'],
  ['/sittings/lights/hand-back', 'What they see'],
];

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(`${colorScheme} paper`, () => {
    test.use({ colorScheme, contextOptions: { reducedMotion: 'reduce' } });

    test('every view of the desk', async ({ page }) => {
      test.setTimeout(360_000);
      for (const [path, heading] of views) {
        await page.goto(path);
        await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible();
        await expectNoViolation(page, path);
      }
    });

    test('letting students in on their own devices', async ({ page }) => {
      await page.goto('/sittings/rules/devices');
      await page.getByLabel('The teacher’s secret').fill(teacherSecret);
      await page.getByRole('button', { name: 'Pair this browser' }).click();
      await page.getByRole('button', { name: 'Let them in on their own devices' }).click();
      await expect(page.getByRole('status').filter({ hasText: 'In reach' })).toBeVisible();
      await expectNoViolation(page, 'the way in');
      await page.getByRole('button', { name: 'Fill the window, for the projector' }).click();
      await expectNoViolation(page, 'the way in on the projector');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Take it off the server' }).click();
      await expect(page.getByRole('heading', { name: 'Students are not let in yet' })).toBeVisible();
    });

    test('what opens on a view', async ({ page }) => {
      test.setTimeout(300_000);
      await page.goto('/papers/paper-tides');
      for (const number of [1, 7, 6, 10]) {
        await page.getByRole('button', { name: `Open question ${number}`, exact: true }).click();
        await expect(page.getByLabel(`Text of question ${number}`, { exact: true })).toBeVisible();
        await expectNoViolation(page, `question ${number} open`);
        await page.getByRole('heading', { name: new RegExp(`^Question ${number},`) }).click();
        await page.keyboard.press('Escape');
      }
      await page.goto('/papers/paper-passage');
      for (const number of [1, 2, 4, 5, 6, 7, 9, 10]) {
        await page.getByRole('button', { name: `Open question ${number}`, exact: true }).click();
        await expect(page.getByLabel(`Text of question ${number}`, { exact: true })).toBeVisible();
        await expectNoViolation(page, `passage question ${number} open`);
        await page.getByRole('heading', { name: new RegExp(`^Question ${number},`) }).click();
        await page.keyboard.press('Escape');
      }
      await page.getByRole('button', { name: 'A new part' }).click();
      await page.getByRole('button', { name: 'Change many at once' }).click();
      await page.getByLabel('Pick question 1', { exact: true }).check();
      await expectNoViolation(page, 'many at once');
      await page.goto('/groups/group1');
      await page.getByRole('button', { name: 'Bring students in' }).click();
      await page.getByLabel('List of students').fill('Name,Email\nAnn Baker,ann@example.org\n,x@example.org');
      await expect(page.getByRole('alert')).toBeVisible();
      await expectNoViolation(page, 'bringing in');
      await page.goto('/sittings/rules/run');
      await page.getByRole('rowheader').first().getByRole('button').click();
      await page.getByRole('button', { name: 'More minutes' }).click();
      await expectNoViolation(page, 'more minutes');
      await page.goto('/sittings/lights/analyse');
      await page.getByRole('button', { name: /^3 What light/ }).click();
      await expectNoViolation(page, 'question opened in the analysis');
      await page.getByRole('button', { name: /^Keys/ }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      await expectNoViolation(page, 'keys');
    });

    test('the student’s side', async ({ page }) => {
      test.setTimeout(300_000);
      await page.goto('/groups/group1');
      const row = page.getByRole('row').nth(8);
      const code = (await row.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '';
      await page.goto('/sit');
      await expectNoViolation(page, 'join code');
      await page.getByLabel('Your join code').fill(code);
      await page.getByRole('button', { name: 'Go in' }).click();
      await expect(page.getByRole('button', { name: 'Yes, this is me' })).toBeVisible();
      await expectNoViolation(page, 'name');
      await page.getByRole('button', { name: 'Yes, this is me' }).click();
      await expect(page.getByRole('heading', { name: 'Your papers' })).toBeVisible();
      await expectNoViolation(page, 'home');
      await page.getByRole('button', { name: 'See what came back' }).click();
      await expect(page.getByText(/of 14 points/)).toBeVisible();
      await expectNoViolation(page, 'result');
    });

    test('what is carried by hand, out, on a phone, and in', async ({ page, browser }) => {
      test.setTimeout(300_000);
      await page.goto('/sittings/rules/by-hand');
      const saving = async (from: Page, button: string) => {
        const download = from.waitForEvent('download');
        await from.getByRole('button', { name: button }).click();
        return (await download).path();
      };
      const paper = await saving(page, 'Save the paper');
      const phone = await browser.newContext({ viewport: { width: 360, height: 640 }, colorScheme });
      const sit = await phone.newPage();
      await sit.goto(`${new URL(page.url()).origin}/sit`);
      await sit.getByRole('button', { name: 'Your teacher gave you a file? Open it' }).click();
      await expectNoViolation(sit, 'a file');
      await sit.getByLabel('Choose a file from your teacher').setInputFiles(paper);
      await sit.getByLabel('Access code').fill('flood');
      await expectNoViolation(sit, 'sealed');
      await sit.getByRole('button', { name: 'Open it' }).click();
      await sit.getByLabel('Your name').fill('Nobody Known');
      await sit.getByLabel('Your join code').fill('ZZZZZZ');
      await expectNoViolation(sit, 'who');
      await sit.getByRole('button', { name: 'Go in' }).click();
      await sit.getByRole('button', { name: 'Read the instructions' }).click();
      await sit.getByRole('button', { name: 'Start' }).click();
      await sit.getByRole('radio').first().check();
      await sit.getByRole('button', { name: 'Last look before handing in' }).click();
      await sit.getByRole('button', { name: /^Hand in/ }).click();
      await expect(sit.getByText('Your answers are on this computer only.')).toBeVisible();
      await expectNoViolation(sit, 'to be saved');
      const answers = await saving(sit, 'Save your answers as a file');
      await sit.getByRole('button', { name: 'To your papers' }).click();
      await sit.getByRole('button', { name: 'Take it off this computer' }).click();
      await expectNoViolation(sit, 'home, by hand');
      await page.getByLabel('Choose answer files').setInputFiles([answers, paper]);
      await expect(page.getByText(/Whose is it/)).toBeVisible();
      await expectNoViolation(page, 'what came');
      await phone.close();
    });

    test('sitting the paper, on a phone', async ({ page }) => {
      await page.setViewportSize({ width: 360, height: 640 });
      const codeOf = async (which: string) => {
        await page.goto('/sittings/rules/run');
        await page.getByRole('button', { name: which }).click();
        await page.getByRole('rowheader').first().getByRole('button').click();
        return (await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '';
      };
      const [toStart, working] = [await codeOf('4 not started'), await codeOf('10 working')];
      await page.goto('/sit');
      await goIn(page, toStart);
      await page.getByRole('button', { name: 'Read the instructions' }).click();
      await expect(page.getByRole('button', { name: 'Start', exact: true })).toBeVisible();
      await expectNoViolation(page, 'instructions');
      await page.goto('/sit');
      await goIn(page, working);
      await page.getByRole('button', { name: 'Go on with it' }).click();
      await expect(page.getByRole('navigation', { name: 'Questions' })).toBeVisible();
      await expectNoViolation(page, 'attempt');
      await page.getByRole('button', { name: 'Last look', exact: true }).click();
      await expectNoViolation(page, 'last look');
      await page.getByRole('button', { name: /^Hand in/ }).click();
      await expect(page.getByRole('heading', { name: 'Handed in' })).toBeVisible();
      await expectNoViolation(page, 'receipt');
    });
  });
}
