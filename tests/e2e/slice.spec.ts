import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import {
  beginPaper,
  emptyDesk,
  enterAs,
  handIn,
  joinCodeOf,
  kept,
  makeGroup,
  stage,
  startPaper,
  writeChoice,
  writeOpen,
} from './steps';

/** A sheet as a school office sends it: semicolons, a mark, a quoted line break, and four rows that cannot be read. */
const csv = `\uFEFFSurname;First name;Student no;E-mail
Okafor;Amara;2101;amara.okafor@example.org
"Ferreira
de Souza";Mateo;2102;mateo@example.org
;;2103;nobody@example.org
Tanaka;Yuki;2101;yuki@example.org
Haddad;Fatima;2104;fatima at example
Lindqvist;Johan;2105;johan@example.org
`;

test('the whole job once: from an empty desk and a CSV file to the grades', async ({ page, context }) => {
  test.setTimeout(240_000);
  let amara = '';
  let johan = '';

  await test.step('an empty desk says what to do first', async () => {
    await page.goto(emptyDesk);
    await expect(page.getByRole('heading', { name: 'Start with your students' })).toBeVisible();
    await page.getByRole('link', { name: 'Create a group' }).click();
    await makeGroup(page, 'Harbour pilots');
  });

  await test.step('students come in from a file; bad rows are named with line and reason', async () => {
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'office.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
    await expect(page.getByLabel('Column 1 is')).toHaveValue('familyName');
    await expect(page.getByLabel('Column 3 is')).toHaveValue('number');
    const bad = page.getByRole('alert');
    await expect(bad).toContainText('3 rows couldn’t be read');
    await expect(bad).toContainText('row 5: it has no name');
    await expect(bad).toContainText('row 6: student number 2101 is already in row 2');
    await expect(bad).toContainText('row 7: “fatima at example” isn’t a valid email address');
    await page.getByRole('button', { name: 'Import 3 valid rows' }).click();
    await expect(page.getByRole('row', { name: /Mateo Ferreira de Souza/ })).toBeVisible();
    amara = await joinCodeOf(page, 'Okafor');
    johan = await joinCodeOf(page, 'Lindqvist');
    expect(amara).toMatch(/^\w{3} \w{3}$/);
  });

  await test.step('a paper of four kinds, with what is missing named and leading to its place', async () => {
    await beginPaper(page, 'Tides and compass');
    await page.getByLabel('Instructions').fill('Answer all four.');
    await writeChoice(page, 1, 'Tide rises most in which hour?', ['third', 'first']);
    const add = page.getByRole('group', { name: 'New question' });
    await add.getByRole('button', { name: 'Several choices' }).click();
    await page.getByLabel('Text of question 2').fill('At springs');
    for (const [letter, text] of [
      ['A', 'range is larger'],
      ['B', 'streams are faster'],
      ['C', 'it is March'],
    ] as const)
      await page.getByLabel(`Option ${letter}`, { exact: true }).fill(text);
    for (const letter of ['E', 'D'])
      await page.getByRole('button', { name: `Remove option ${letter}` }).click();
    await page.getByRole('checkbox', { name: 'A is right' }).check();
    await expect(page.getByText(/^For example, .* gives 0 of 2\.$/)).toBeVisible();
    await page.getByRole('checkbox', { name: 'B is right' }).check();
    await expect(page.getByText(/^For example, .* gives 1 of 2\.$/)).toBeVisible();
    await add.getByRole('button', { name: 'Short text' }).click();
    await page
      .getByLabel('Text of question 3')
      .fill('Compass 120°, deviation 3° E, variation 5° W. True course?');
    await page.getByLabel('Accepted answer 1', { exact: true }).fill('118°');
    await page.getByRole('button', { name: 'Add an accepted answer' }).click();
    await page.getByLabel('Accepted answer 2', { exact: true }).fill('122°');
    await page.getByLabel('Percent of the points for Accepted answer 2').fill('50');
    await page.getByLabel('Comment on Accepted answer 2').fill('The signs are swapped.');
    await page.getByLabel('Points for question 3').fill('2');
    await writeOpen(page, 4, 'Explain deviation.', 'The error of the boat’s own iron.', 'caused by the boat');
    await kept(page, /Points for line A changed/);
    await expect(page.getByText(/^8 points/)).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Nothing to fix' })).toBeVisible();
  });

  await test.step('reordered by keys, duplicated, deleted and taken back', async () => {
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Open question 4:' }).click();
    await page.getByRole('heading', { name: /Question 4/ }).click();
    await page.keyboard.press('Alt+ArrowUp');
    await kept(page, 'Question 4 moved to 3');
    await page.keyboard.press('Control+z');
    await kept(page, 'Undone: Question 4 moved to 3');
    await expect(page.getByRole('heading', { name: /^Question 4, open text/ })).toBeVisible();
    await page.getByRole('button', { name: 'Delete question' }).click();
    await expect(page.getByRole('button', { name: 'Open question 4:' })).toHaveCount(0);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(page.getByRole('button', { name: 'Open question 4:' })).toBeVisible();
  });

  await test.step('given out with a limit and an access code', async () => {
    await page.getByRole('link', { name: 'Give out' }).click();
    await page.getByLabel('Time limit in minutes').fill('30');
    await page.getByLabel('Access code').fill('ebb');
    await expect(
      page.getByText(
        'Harbour pilots can start straight away, with no closing time, with 30 min each, after giving the access code “ebb”.',
      ),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Give out to 3 students' }).click();
    await expect(page.getByRole('button', { name: '3 not started' })).toBeVisible();
  });

  const student = await enterAs(context, amara);
  await test.step('a student starts with the access code, and answers fill the teacher’s grid', async () => {
    await student.getByRole('button', { name: 'Read the instructions' }).click();
    await expect(student.getByText('Answer all four.')).toBeVisible();
    await student.getByLabel('Access code').fill('flood');
    await student.getByRole('button', { name: 'Start' }).click();
    await expect(student.getByRole('alert')).toHaveText('That isn’t the access code. Ask your teacher.');
    await student.getByLabel('Access code').fill('EBB');
    await student.getByRole('button', { name: 'Start' }).click();
    await student.getByRole('radio', { name: /third/ }).check();
    await student.getByRole('checkbox', { name: /range is larger/ }).check();
    await student.getByRole('textbox', { name: /True course/ }).fill('122 °');
    await expect(student.getByText(/^saved \d/)).toBeVisible();
    await expect(page.getByRole('button', { name: '1 working' })).toBeVisible();
    const row = page.getByRole('row', { name: /Okafor, Amara/ });
    await expect(row.getByRole('img', { name: '100% of the points' })).toBeVisible();
    await expect(row.getByRole('img', { name: '50% of the points' })).toHaveCount(2);
    await expect(row.getByRole('img', { name: /not answered/ })).toHaveCount(1);
  });

  await test.step('more minutes for one student alone reach the running page', async () => {
    await page.getByRole('button', { name: 'Okafor, Amara' }).click();
    await page.getByRole('button', { name: 'More minutes' }).click();
    await page.getByLabel('Minutes', { exact: true }).fill('15');
    await page.getByRole('button', { name: 'Give 15 minutes' }).click();
    await expect(page.getByText(/15 more minutes given \(Extra time\)/)).toBeVisible();
    await expect(student.getByText(/^4[45]:\d\d left$/)).toBeVisible({ timeout: 12_000 });
  });

  await test.step('the last look names what is unanswered; then it is handed in', async () => {
    await student.getByRole('button', { name: 'Check before handing in' }).click();
    await expect(student.getByText('1 question not answered:')).toBeVisible();
    await student.getByRole('button', { name: /Explain deviation/ }).click();
    await student
      .getByRole('textbox', { name: /Explain deviation/ })
      .fill('Iron on board turns the compass.');
    await handIn(student);
    await expect(student.getByText('4 of 4 questions')).toBeVisible();
    await expect(page.getByRole('button', { name: '1 handed in' })).toBeVisible();
  });

  await test.step('a hanging attempt is collected alone; new starts are closed', async () => {
    const hanging = await enterAs(context, johan);
    await startPaper(hanging, 'ebb');
    await hanging
      .getByRole('textbox', { name: /Explain deviation/ })
      .fill('iron on  BOARD turns the compass.');
    await expect(hanging.getByText(/^saved \d/)).toBeVisible();
    await page.getByRole('button', { name: 'Lindqvist, Johan' }).click();
    await page.getByRole('button', { name: 'Collect now' }).click();
    await page.getByLabel('Reason, kept on record').selectOption('Attempt is stuck');
    await page.getByRole('button', { name: 'Collect', exact: true }).click();
    await expect(page.getByText(/collected by the teacher \(Attempt is stuck\)/)).toBeVisible();
    await expect(hanging.getByRole('heading', { name: 'Your teacher has collected your paper' })).toBeVisible(
      {
        timeout: 12_000,
      },
    );
    await hanging.close();
    await page.getByRole('button', { name: 'Back to the sitting' }).click();
    await page.getByRole('button', { name: 'Close to new starts' }).click();
    await kept(page, 'Closed to new starts');
  });

  await test.step('equal answers are marked together by keys, names hidden', async () => {
    await stage(page, 'Mark');
    const row = page.getByRole('button', { name: /iron on board turns the compass/i });
    await expect(row).toContainText('×2');
    await expect(page.getByText('Amara')).toHaveCount(0);
    await expect(row).toBeFocused();
    await page.keyboard.press('a');
    await expect(row).toContainText('3 / 3');
    await page.keyboard.press('2');
    await expect(row).toContainText('2 / 3');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Say where you read it.');
    await page.keyboard.press('Enter');
    await kept(page, 'Question 4: comment');
    await expect(page.getByText('all marked').first()).toBeVisible();
  });

  await test.step('a score by key is overridden and the override removed', async () => {
    await page
      .getByRole('navigation', { name: 'Questions' })
      .getByRole('button', { name: /^Question 3/ })
      .click();
    const wrong = page.getByRole('button', { name: /^122 °/ });
    await wrong.click();
    await expect(wrong).toContainText('1 / 2');
    await page.keyboard.press('2');
    await expect(wrong).toContainText('overridden');
    await page.getByRole('button', { name: 'Remove override' }).click();
    await expect(wrong).toContainText('1 / 2');
    await expect(wrong).not.toContainText('overridden');
  });

  await test.step('the analysis shows what was missed', async () => {
    await stage(page, 'Analyse');
    await expect(page.getByText('Not final')).toHaveCount(0);
    // Amara 1 + 1 + 1 + 2 = 5, Johan 2 by hand: mean 3.5, worked by hand.
    await expect(page.getByRole('definition').filter({ hasText: /^3.5$/ }).first()).toBeVisible();
    await page.getByRole('button', { name: /^3 Compass 120/ }).click();
    await expect(page.getByText('122°')).toBeVisible();
    await expect(page.getByRole('heading', { name: '2 students below 70%' })).toBeVisible();
  });

  await test.step('handed back to those who are ready, with a plain sentence', async () => {
    await stage(page, 'Hand back');
    await expect(page.getByRole('row', { name: /Ferreira/ })).toContainText('has not started');
    await page.getByLabel('the accepted answers').uncheck();
    await expect(
      page.getByText(
        'Once handed back, students see their total, their percentage, the points for each question, their own answers, what was right or wrong, the comments, the marks on their work and the scheme lines they met.',
      ),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Hand back to 2 students' }).click();
    await kept(page, 'Handed back to 2 students');
  });

  await test.step('the student sees exactly that', async () => {
    await student.getByRole('button', { name: 'Go to your papers' }).click();
    await student.getByRole('button', { name: 'See my result' }).click();
    await expect(student.getByText('5 of 8 points (63%)')).toBeVisible();
    const third = student.getByRole('region', { name: 'Question 3' });
    await expect(third).toContainText('1 of 2 points');
    await expect(third).toContainText('The signs are swapped.');
    await expect(student.getByRole('region', { name: 'Question 4' })).toContainText('Say where you read it.');
    await expect(student.getByText('Accepted:')).toHaveCount(0);
    await expect(student.getByText('118°')).toHaveCount(0);
    await expect(page.getByRole('row', { name: /Okafor/ })).toContainText(/today .*today/);
  });

  await test.step('taken back, the student sees nothing', async () => {
    await page.getByRole('button', { name: 'Withdraw from all 2 students' }).click();
    await kept(page, 'Withdrawn from 2 students');
    await student.getByRole('button', { name: 'Go to your papers' }).click();
    await expect(student.getByText('Handed in. No result yet.')).toBeVisible();
  });

  await test.step('grades go out as CSV', async () => {
    await page.getByRole('link', { name: 'Export grades, answers and scripts' }).click();
    await page.getByRole('radio', { name: 'CSV' }).check();
    const saving = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save 3 rows as CSV' }).click();
    const text = readFileSync(await (await saving).path(), 'utf8');
    expect(text.startsWith('\uFEFF')).toBe(true);
    const lines = text.slice(1).split('\r\n');
    expect(lines[0]).toBe(
      'family name,given name,number,email,group,total,out of,percent,state,marking,attempt,started,handed in,minutes,late by (minutes),handed back,times opened,comment,Q1 (1),Q2 (2),Q3 (2),Q4 (3)',
    );
    expect(lines.find((line) => line.startsWith('Okafor'))).toMatch(
      /^Okafor,Amara,2101,amara.okafor@example.org,Harbour pilots,5,8,62.5,handed in,complete,1,/,
    );
    expect(lines.find((line) => line.startsWith('Ferreira'))).toContain('not started');
  });
});
