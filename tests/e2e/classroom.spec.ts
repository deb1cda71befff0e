import { expect, test, type Page } from '@playwright/test';
import {
  beginPaper,
  emptyDesk,
  enterAs,
  givePaper,
  handBack,
  handIn,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  seeResult,
  stage,
  startPaper,
  studentsCanJoin,
  teacherSecret,
  writeChoice,
  writeOpen,
} from './steps';

/** Pairs this browser and lets students into the open sitting on their own devices. */
async function letIn(page: Page) {
  await page.getByRole('link', { name: 'Let students join on their own devices' }).click();
  await page.getByLabel('The teacher’s secret').fill('not the secret at all');
  await page.getByRole('button', { name: 'Pair browser' }).click();
  await expect(page.getByText('That isn’t this server’s secret.')).toBeVisible();
  await expect(page.getByLabel('The teacher’s secret')).toBeFocused();
  await page.getByLabel('The teacher’s secret').fill(teacherSecret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  await expect(page.getByRole('heading', { name: /on students’ own devices$/ })).toBeFocused();
  await page.getByRole('button', { name: 'Let students join on their own devices' }).click();
  await studentsCanJoin(page);
  await expect(page.getByRole('img', { name: /^QR code of http.*\/sit$/ })).toBeVisible();
}

test('three browsers and one server: from the way in to the result, with an exception on the way', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  await makeGroup(page, 'Own devices');
  await pasteStudents(page, ['Name', '"Okonkwo, Chidi"', '"Sato, Emi"', '"Reyes, Luz"']);
  const chidi = await joinCodeOf(page, 'Okonkwo');
  const emi = await joinCodeOf(page, 'Sato');
  await beginPaper(page, 'Buoys on the wire');
  await writeChoice(page, 1, 'A red can buoy means', ['port side', 'starboard side', 'wreck']);
  await writeOpen(page, 2, 'Describe a cardinal mark.', 'Two cones', 'names the cones');
  await givePaper(page, 'Own devices', 3);
  await letIn(page);

  const phone = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const laptop = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const first = await enterAs(phone, chidi, emptyDesk.replace('localhost', 'classroom.test'));
  expect(await first.evaluate(() => window.isSecureContext)).toBe(false);
  const second = await enterAs(laptop, emi);
  await startPaper(first);
  await startPaper(second);
  await first.getByRole('radio', { name: /port side/ }).check();
  await second.getByRole('radio', { name: /wreck/ }).check();
  await first.getByRole('textbox', { name: /cardinal/ }).fill('It has two cones on top.');
  await expect(first.getByText(/^saved \d/)).toBeVisible();

  await test.step('what is typed while the line is broken waits on the device and follows', async () => {
    await phone.setOffline(true);
    await first.getByRole('textbox', { name: /cardinal/ }).fill('It has two cones on top, black.');
    await expect(first.getByText('saved on this device; no connection')).toBeVisible();
    await phone.setOffline(false);
    await expect(first.getByText(/^saved \d/)).toBeVisible();
    expect(await first.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  });

  await test.step('the teacher sees both work, and gives one of them time while she works', async () => {
    await page.getByRole('link', { name: 'Watch each student' }).click();
    await expect(page.getByRole('button', { name: '2 working' })).toBeVisible();
    const row = page.getByRole('row', { name: /Okonkwo, Chidi/ });
    await expect(row.getByRole('img', { name: '100% of the points' })).toBeVisible();
    await page.getByRole('rowheader', { name: /Sato/ }).getByRole('button').click();
    await page.getByRole('button', { name: 'Collect now', exact: true }).click();
    await page
      .getByRole('form', { name: 'Collect now' })
      .getByRole('button', { name: 'Collect', exact: true })
      .click();
    await expect(
      second.getByRole('heading', { name: 'Your teacher has collected your paper' }),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Reopen', exact: true }).click();
    await page.getByRole('form', { name: 'Reopen' }).getByRole('button', { name: 'Reopen attempt' }).click();
    await kept(page, 'Emi Sato can carry on');
  });

  await test.step('she goes on with the same answers on another device', async () => {
    await second.close();
    const spare = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const third = await enterAs(spare, emi);
    await startPaper(third);
    await expect(third.getByRole('radio', { name: /wreck/ })).toBeChecked();
    await third.getByRole('radio', { name: /port side/ }).check();
    await third.getByRole('textbox', { name: /cardinal/ }).fill('Two cones');
    await expect(third.getByText(/^saved \d/)).toBeVisible();
    await handIn(third);
    await spare.close();
  });

  await handIn(first);
  await test.step('marked on the desk, handed back, read on the phone', async () => {
    await expect(page.getByRole('button', { name: '2 handed in' })).toBeVisible();
    await stage(page, 'Mark');
    for (const answer of [/two cones on top, black/, /^Two cones/]) {
      const row = page.getByRole('button', { name: answer });
      await row.click();
      await page.keyboard.press('3');
      await expect(row).toContainText('3 / 3');
    }
    await handBack(page);
    await seeResult(first);
    await expect(first.getByText(/4 of 4 points/)).toBeVisible();
    await stage(page, 'Run');
  });

  await test.step('nothing on the students’ side held a key', async () => {
    // Whoever is no paired desk gets nothing of the desk’s, whatever he asks.
    for (const path of ['/desk/state', '/desk/news?after=0'])
      expect((await first.request.get(`${emptyDesk}/api/exchange${path}`)).status()).toBe(401);
  });

  await test.step('off the server, it is gone there and all of it on the desk', async () => {
    await page.getByRole('link', { name: 'Address, code and who has joined' }).click();
    await page.getByRole('button', { name: 'Remove from the server' }).click();
    // The desk tells the server a moment later.
    await expect(async () => {
      await first.reload();
      // Until then the result is there again without the code; from then on the code is asked for.
      await first.getByLabel('Your join code').fill(chidi, { timeout: 3_000 });
      await first.getByRole('button', { name: 'Continue' }).click({ timeout: 3_000 });
      await expect(first.getByText(/Code not recognised/)).toBeVisible({ timeout: 3_000 });
    }).toPass({ timeout: 30_000 });
    await page.getByRole('link', { name: 'Watch each student' }).click();
    await expect(page.getByRole('button', { name: '2 handed in' })).toBeVisible();
  });
});

test('a line so slow that every answer is seconds on its way, and a desk that nobody tells anything', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  let streams = 0;
  await page.context().route('**/api/exchange/desk/stream', (route) => {
    streams += 1;
    return route.abort();
  });
  await makeGroup(page, 'Slow line');
  await pasteStudents(page, ['Name', '"Moreno, Inés"']);
  const ines = await joinCodeOf(page, 'Moreno');
  await beginPaper(page, 'Fog on the wire');
  await writeChoice(page, 1, 'In fog one goes', ['slowly', 'fast', 'not at all']);
  await writeOpen(page, 2, 'What sounds in fog?', 'A long blast', 'names the blast');
  await givePaper(page, 'Slow line');
  await page.getByRole('link', { name: 'Let students join on their own devices' }).click();
  await page.getByLabel('The teacher’s secret').fill(teacherSecret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  // How to join is said once the sitting is there, not before.
  let letOn = () => {};
  const free = new Promise<void>((resolve) => (letOn = resolve));
  await page.route('**/desk/changes', async (route) => (await free, route.continue()));
  await page.getByRole('button', { name: 'Let students join on their own devices' }).click();
  await expect(page.getByText('The sitting is on its way to the server')).toBeVisible();
  await expect(page.getByRole('region', { name: 'How students join' })).toHaveCount(0);
  letOn();
  await studentsCanJoin(page);

  const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const phone = await enterAs(context, ines);
  await startPaper(phone);
  const line = await context.newCDPSession(phone);
  await line.send('Network.enable');
  // Two seconds there and back, 4 kB a second: less than an old telephone line.
  await line.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 2000,
    downloadThroughput: 4000,
    uploadThroughput: 4000,
  });
  const words = 'One prolonged blast at intervals of not more than two minutes, under way and making way. ';
  const field = phone.getByRole('textbox', { name: /sounds in fog/ });
  await field.pressSequentially(words, { delay: 15 });
  await phone.getByRole('radio', { name: /fast/ }).check();
  await field.pressSequentially('Two when stopped.', { delay: 15 });
  await phone.getByRole('radio', { name: /slowly/ }).check();
  await expect(phone.getByText(/^saved \d/)).toBeVisible({ timeout: 30_000 });
  await expect(field).toHaveValue(`${words}Two when stopped.`);

  // The desk asks, as it is told nothing.
  await page.getByRole('link', { name: 'Watch each student' }).click();
  const row = page.getByRole('row', { name: /Moreno, Inés/ });
  await expect(row.getByRole('img', { name: '100% of the points' })).toBeVisible({ timeout: 15_000 });
  expect(streams).toBeGreaterThan(0);
  await handIn(phone);
  await expect(page.getByRole('button', { name: '1 handed in' })).toBeVisible({ timeout: 15_000 });

  await test.step('a server that is away is said above what is watched, until it is back', async () => {
    await page.context().route('**/api/exchange/**', (route) => route.abort());
    const word = page.getByRole('alert').filter({ hasText: 'the server can’t be reached' });
    await expect(word).toContainText('Answers wait on students’ devices', { timeout: 40_000 });
    await page.context().unroute('**/api/exchange/**');
    await expect(word).toBeHidden({ timeout: 20_000 });
  });

  await stage(page, 'Mark');
  await expect(page.getByRole('button', { name: /making way. Two when stopped/ })).toBeVisible();
  await context.close();
});

test('two desks at one server see what lies there, and what one takes off the other puts back', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  const ready = async (desk: Page, title: string) => {
    await makeGroup(desk, `Group of ${title}`);
    await pasteStudents(desk, ['Name', '"Ito, Ken"']);
    await beginPaper(desk, title);
    await writeOpen(desk, 1, 'Which way?', 'Up', 'says up');
    await givePaper(desk, `Group of ${title}`);
  };
  await ready(page, 'Harbour watch');
  await letIn(page);
  const colleague = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const other = await colleague.newPage();
  await ready(other, 'Night watch');
  await other.getByRole('link', { name: 'Let students join on their own devices' }).click();
  await other.getByLabel('The teacher’s secret').fill(teacherSecret);
  await other.getByRole('button', { name: 'Pair browser' }).click();
  await expect(other.getByRole('heading', { name: 'Also on the server' })).toBeVisible();
  await other.getByRole('button', { name: 'Remove Harbour watch from the server' }).click();
  await expect(other.getByText('The only other copy is on the desk it came from.')).toBeVisible();
  await other.getByRole('button', { name: 'Remove permanently' }).click();
  await kept(other, 'Harbour watch removed from the server');
  await expect(other.getByRole('button', { name: 'Remove Harbour watch from the server' })).toBeHidden();

  await expect(page.getByText('It is no longer on the server')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Put it on the server again' }).click();
  await expect(page.getByText('It is no longer on the server')).toBeHidden({ timeout: 20_000 });
  await expect(other.getByRole('button', { name: 'Remove Harbour watch from the server' })).toBeVisible({
    timeout: 20_000,
  });
  await page.getByRole('button', { name: 'Remove from the server' }).click();
  await expect(page.getByRole('heading', { name: 'Students can’t join yet' })).toBeVisible();
  await colleague.close();
});
