import { expect, test as base, type Page } from '@playwright/test';
import { expectNoViolation } from './noViolation';
import { goIn, studentsCanJoin, teacherSecret } from './steps';

/** A desk that the views are only looked at on: the demo is laid out once for all of them. */
const test = base.extend<object, { desk: Page }>({
  desk: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport, locale } = project.use;
      const context = await browser.newContext({
        ...(baseURL && { baseURL }),
        ...(viewport && { viewport }),
        ...(locale && { locale }),
      });
      await use(await context.newPage());
      await context.close();
    },
    { scope: 'worker' },
  ],
});

/** Every view of the desk with what shows that it stands. */
const views: [string, string][] = [
  ['/', 'On the desk'],
  ['/groups', 'Groups'],
  ['/groups/group1', 'Monday evening'],
  ['/groups/all', 'All students'],
  ['/groups/group1/slips', 'Join slips: Monday evening'],
  ['/groups/register', 'Import from a school register'],
  ['/requests', 'Requests'],
  ['/outbox', 'Outbox'],
  ['/waiting', 'What waits for a mark'],
  ['/bank', 'Bank'],
  ['/backup', 'Backup of the whole desk'],
  ['/kept', 'What is kept where'],
  ['/computers', 'Computers'],
  ['/papers/paper-weather', 'The paper'],
  ['/papers/paper-tides/give', 'What students will get'],
  ['/papers/paper-tides/look', 'What students see'],
  ['/papers/paper-passage/look', 'What students see'],
  ['/papers/paper-passage/print', 'What to print'],
  ['/papers/paper-passage/sheet', 'Export to a spreadsheet'],
  ['/sittings/rules/run', 'Settings'],
  ['/sittings/rules/devices', 'Quiz 2: collision rules on students’ own devices'],
  ['/sittings/rules/by-hand', '1 Save the paper'],
  ['/sittings/lights/attempts/lights-student03', 'Timeline of the attempt'],
  ['/sittings/tides/mark', 'Question 10, 4 points'],
  ['/sittings/tides/markers', 'Where markers differ'],
  ['/sittings/symbols/on-paper', 'Scans'],
  ['/sittings/symbols/mark?question=s7', 'Question 7, 3 points'],
  ['/sittings/symbols/scripts/student64', 'Total'],
  ['/share', 'Mark for a colleague'],
  ['/sittings/lights/fairness', 'Equal answers, unequal points'],
  ['/sittings/lights/scripts/student03', 'Total'],
  ['/sittings/lights/analyse', 'Questions'],
  ['/sittings/lights/repair?question=l11', 'Another key, other points'],
  ['/sittings/lights/class', 'Answers to show'],
  ['/sittings/tides/growth', 'Compared with'],
  ['/sittings/lights/report', 'Tables as files'],
  ['/students/student03', 'Register'],
  ['/sittings/lights/hand-back', 'What they see'],
  ['/sittings/tides/hand-back', 'Stage 1'],
  ['/sittings/lights/preview', 'Preview as'],
  ['/sittings/lights/grades', 'Grade lines'],
  ['/sittings/lights/export', 'As a file'],
  ['/sittings/lights/message', 'Saved wordings'],
  ['/mark-books', 'Mark books'],
  ['/answers', 'Import answers from a sheet'],
  ['/papers/paper-tides/paste', 'Paste a quiz into Mid-course exam: tides, passage and compass'],
  ['/mark-books/navigation', 'Coastal navigation'],
  ['/guide/mark', 'By keys'],
  ['/guide/privacy', 'What is kept where'],
];

for (const [path, heading] of views)
  test(`the view ${path}`, async ({ desk }) => {
    await desk.goto(path);
    await expect(desk.getByRole('heading', { name: heading, exact: true })).toBeVisible();
    await expectNoViolation(desk, path);
  });

/** One question of each kind, open in Write. */
const questions: [string, number][] = [
  ...[1, 7, 6, 10].map((number): [string, number] => ['paper-tides', number]),
  ...[1, 2, 4, 5, 6, 7, 9, 10].map((number): [string, number] => ['paper-passage', number]),
];

for (const [paper, number] of questions)
  test(`question ${number} of ${paper}, open`, async ({ desk }) => {
    await desk.goto(`/papers/${paper}`);
    await desk.getByRole('button', { name: `Open question ${number}:` }).click();
    await expect(desk.getByLabel(`Text of question ${number}`, { exact: true })).toBeVisible();
    await expectNoViolation(desk, `question ${number} open`);
  });

test('many questions changed at once', async ({ desk }) => {
  await desk.goto('/papers/paper-passage');
  await desk.getByRole('button', { name: 'Edit several questions' }).click();
  await desk.getByLabel('Select question 1', { exact: true }).check();
  await expectNoViolation(desk, 'many at once');
});

test('bringing students in', async ({ desk }) => {
  await desk.goto('/groups/group1');
  await desk.getByRole('button', { name: 'Add students' }).click();
  await desk.getByLabel('List of students').fill('Name,Email\nAnn Baker,ann@example.org\n,x@example.org');
  await expect(desk.getByRole('alert')).toBeVisible();
  await expectNoViolation(desk, 'bringing in');
});

test('what is done for one student, and the rules for all', async ({ desk }) => {
  await desk.goto('/sittings/rules/run');
  await desk.getByRole('button', { name: 'Change settings' }).click();
  await expect(desk.getByRole('heading', { name: 'Change settings' })).toBeVisible();
  await expectNoViolation(desk, 'the rules');
  await desk.getByRole('button', { name: 'Cancel' }).click();
  await desk.getByRole('rowheader').first().getByRole('button').click();
  await desk.getByRole('button', { name: 'More minutes' }).click();
  await expectNoViolation(desk, 'more minutes');
});

test('a photo that is being marked', async ({ desk }) => {
  await desk.goto('/sittings/tides/mark?question=t13');
  await desk.getByRole('button', { name: 'Mark on it' }).click();
  await expect(desk.getByRole('application')).toBeVisible();
  await desk.keyboard.press('t');
  await expect(desk.getByRole('application')).toHaveAccessibleName(/1 tick$/);
  await expectNoViolation(desk, 'marks on a photo');
});

test('a question opened in the analysis, and the list of keys', async ({ desk }) => {
  await desk.goto('/sittings/lights/analyse');
  await desk.getByRole('button', { name: /^3 What light/ }).click();
  await expectNoViolation(desk, 'question opened in the analysis');
  await desk.getByRole('button', { name: /^Help/ }).click();
  await expect(desk.getByRole('dialog')).toBeVisible();
  await expectNoViolation(desk, 'keys');
});

test('letting students in on their own devices', async ({ page }) => {
  await page.goto('/sittings/rules/devices');
  await page.getByLabel('The teacher’s secret').fill(teacherSecret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  await page.getByRole('button', { name: 'Let students join on their own devices' }).click();
  await studentsCanJoin(page);
  await expectNoViolation(page, 'the way in');
  await page.getByRole('button', { name: 'Show full window for the projector' }).click();
  await expectNoViolation(page, 'the way in on the projector');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Remove from the server' }).click();
  await expect(page.getByRole('heading', { name: 'Students can’t join yet' })).toBeVisible();
});

test('the student’s side', async ({ page }) => {
  await page.goto('/groups/group1');
  const row = page.getByRole('row').nth(8);
  const code = (await row.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '';
  await page.goto('/sit');
  await expectNoViolation(page, 'join code');
  await page.getByLabel('Your join code').fill(code);
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByRole('button', { name: 'Yes, this is me' })).toBeVisible();
  await expectNoViolation(page, 'name');
  await page.getByRole('button', { name: 'Yes, this is me' }).click();
  await expect(page.getByRole('heading', { name: 'Your papers' })).toBeVisible();
  await expectNoViolation(page, 'home');
  await page.getByRole('button', { name: 'See my result' }).click();
  await expect(page.getByText(/of 15 points/)).toBeVisible();
  await expectNoViolation(page, 'result');
});

test('what is carried by hand, out, on a phone, and in', async ({ page, browser }) => {
  await page.goto('/sittings/rules/by-hand');
  const saving = async (from: Page, button: string) => {
    const download = from.waitForEvent('download');
    await from.getByRole('button', { name: button }).click();
    return (await download).path();
  };
  const paper = await saving(page, 'Save the paper');
  const phone = await browser.newContext({ viewport: { width: 360, height: 640 } });
  const sit = await phone.newPage();
  await sit.goto(`${new URL(page.url()).origin}/sit`);
  await sit.getByRole('button', { name: 'Your teacher gave you a file? Open it' }).click();
  await expectNoViolation(sit, 'a file');
  await sit.getByLabel('Choose a file from your teacher').setInputFiles(paper);
  await sit.getByLabel('Access code').fill('flood');
  await expectNoViolation(sit, 'sealed');
  await sit.getByRole('button', { name: 'Open' }).click();
  await sit.getByLabel('Your name').fill('Nobody Known');
  await sit.getByLabel('Your join code').fill('ZZZZZZ');
  await expectNoViolation(sit, 'who');
  await sit.getByRole('button', { name: 'Continue' }).click();
  await sit.getByRole('button', { name: 'Read the instructions' }).click();
  await sit.getByRole('button', { name: 'Start' }).click();
  await sit.getByRole('radio').first().check();
  await sit.getByRole('button', { name: 'Check before handing in' }).click();
  await sit.getByRole('button', { name: /^Hand in/ }).click();
  await expect(sit.getByText('Your answers are on this computer only.')).toBeVisible();
  await expectNoViolation(sit, 'to be saved');
  const answers = await saving(sit, 'Save your answers as a file');
  await sit.getByRole('button', { name: 'Go to your papers' }).click();
  await sit.getByRole('button', { name: 'Remove from this computer' }).click();
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
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByRole('navigation', { name: 'Questions' })).toBeVisible();
  await expectNoViolation(page, 'attempt');
  await page.getByRole('button', { name: 'Check and hand in', exact: true }).click();
  await expectNoViolation(page, 'last look');
  await page.getByRole('button', { name: /^Hand in/ }).click();
  await expect(page.getByRole('heading', { name: 'Handed in' })).toBeVisible();
  await expectNoViolation(page, 'receipt');
});
