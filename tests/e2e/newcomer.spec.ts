import { expect, test, type Locator, type Page } from '@playwright/test';
import { emptyDesk } from './steps';

/** Somebody who has never seen Gribbet and reads the screen: what they do besides typing is counted. */
class Newcomer {
  acts = 0;
  characters = 0;

  constructor(private readonly page: Page) {}

  async click(target: Locator): Promise<void> {
    this.acts += 1;
    await target.click();
  }

  async press(key: string): Promise<void> {
    this.acts += 1;
    await this.page.keyboard.press(key);
  }

  /** Types where the cursor is; where it is not there yet, a click comes first. */
  async type(target: Locator, text: string): Promise<void> {
    await expect(target).toBeVisible();
    const there = await target.evaluate((element) => document.activeElement === element);
    if (!there) await this.click(target);
    this.characters += text.length;
    await this.page.keyboard.insertText(text);
  }

  // An act by the keystroke-level model (Card, Moran and Newell 1980): thinking 1.35 s, pointing 1.1 s, a hand to the
  // mouse 0.4 s, a press 0.2 s. From memory.
  get seconds(): number {
    return (60 * this.characters) / 200 + 3.05 * this.acts;
  }
}

const quiz = `1. Port lights are
*red
green
white
2. North buoys are topped by
cones down
*cones up
a ball
3. Neap tides come at
new moon
*half moon
4. Overtaken vessels
*stand on
give way
5. Fog: sound
*one long
two short
6. Chart depths are in
Answer: metres
7. Ebb's opposite?
Answer: flood
8. 1 knot is one mile an
Answer: hour
9. Still water is called
Answer: slack
10. East is how many degrees?
Answer: 90`;

test('a newcomer has ten questions given out after 25 acts and three minutes at most', async ({ page }) => {
  const newcomer = new Newcomer(page);
  await page.goto(emptyDesk);
  await newcomer.click(page.getByRole('link', { name: 'Create a group' }));
  await newcomer.type(page.getByLabel('Group name'), 'Harbour class');
  await newcomer.press('Enter');
  await newcomer.type(page.getByLabel('List of students'), 'Okafor, Amara\nLindqvist, Kai\nHaddad, Ingrid');
  await newcomer.click(page.getByRole('button', { name: 'Import 3 students' }));
  await expect(page.getByRole('table')).toContainText('Okafor');
  await newcomer.click(page.getByRole('navigation', { name: 'Desk' }).getByRole('link', { name: 'Desk' }));
  await newcomer.type(page.getByLabel('Title of the new paper'), 'Buoys');
  await newcomer.press('Enter');
  await newcomer.click(page.getByRole('link', { name: 'type or paste all questions as text' }));
  await newcomer.type(page.getByLabel('The quiz as text'), quiz);
  await expect(page.getByRole('heading', { name: '10 questions understood' })).toBeVisible();
  await newcomer.click(page.getByRole('button', { name: 'Import 10 questions' }));
  await expect(page.getByRole('heading', { name: 'Nothing to fix' })).toBeVisible();
  await newcomer.click(page.getByRole('link', { name: 'Give out' }));
  await newcomer.click(page.getByRole('button', { name: 'Give out to 3 students' }));
  await expect(page.getByRole('heading', { name: 'Buoys', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Run 3 not started' })).toBeVisible();
  const kinds = await page.evaluate(
    () =>
      new Promise<string[]>((resolve) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onsuccess = () => {
          const all = opening.result.transaction('papers').objectStore('papers').getAll();
          all.onsuccess = () =>
            resolve(
              (all.result as { questions: { kind: string }[] }[])[0]?.questions.map(({ kind }) => kind) ?? [],
            );
        };
      }),
  );
  expect(kinds.filter((kind) => kind === 'oneChoice')).toHaveLength(5);
  expect(kinds.filter((kind) => kind === 'shortText' || kind === 'number')).toHaveLength(5);
  console.log(
    `a newcomer: ${newcomer.acts} acts, ${newcomer.characters} characters, ${newcomer.seconds.toFixed(0)} s`,
  );
  expect(newcomer.acts).toBeLessThanOrEqual(25);
  expect(newcomer.seconds).toBeLessThanOrEqual(180);
});
