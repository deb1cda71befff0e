import { expect, test, type Locator, type Page } from '@playwright/test';

/** A tablet held upright: drawn and marked with fingers and a pen, typed with half the screen taken by the keyboard. */

test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

type Place = [number, number];

/** Fingers and a pen as the browser gets them from the glass (Chrome DevTools Protocol, domain Input). */
async function hands(page: Page) {
  const input = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', at: Place[]) =>
    input.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: at.map(([x, y], id) => ({ x, y, id })),
    });
  const pen = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', [x, y]: Place) =>
    input.send('Input.dispatchMouseEvent', {
      ...{ type, x, y, pointerType: 'pen', button: 'left', clickCount: 1 },
      buttons: type === 'mouseReleased' ? 0 : 1,
    });
  return {
    finger: async (way: Place[]) => {
      const [from = [0, 0], ...on] = way;
      await touch('touchStart', [from]);
      for (const at of on) await touch('touchMove', [at]);
      await touch('touchEnd', []);
    },
    /** A hand lies down, a pen writes beside it, and the hand goes. */
    penWithHand: async (hand: Place, way: Place[]) => {
      const [from = [0, 0], ...on] = way;
      await touch('touchStart', [hand]);
      await pen('mousePressed', from);
      for (const at of on) {
        await pen('mouseMoved', at);
        await touch('touchMove', [[hand[0] + 1, hand[1]]]);
      }
      await pen('mouseReleased', on.at(-1) ?? from);
      await touch('touchEnd', []);
    },
  };
}

/** Places of a sheet by shares of its size. */
async function placesOn(sheet: Locator): Promise<(x: number, y: number) => Place> {
  await sheet.scrollIntoViewIfNeeded();
  const box = await sheet.boundingBox();
  if (!box) throw new Error('no sheet');
  return (x, y) => [box.x + box.width * x, box.y + box.height * y];
}

test('a student draws with a finger and with a pen whose hand lies on the glass', async ({ page }) => {
  await page.goto('/papers/paper-passage/look');
  const question = page.getByRole('region', { name: 'Question 9', exact: true });
  const drawn = (lines: string) => question.getByRole('img', { name: `Your drawing, ${lines}`, exact: true });
  await expect(drawn('0 lines')).toBeVisible();
  const at = await placesOn(drawn('0 lines'));
  const scrolled = await page.evaluate(() => window.scrollY);
  const { finger, penWithHand } = await hands(page);
  await finger([at(0.2, 0.3), at(0.3, 0.4), at(0.4, 0.5)]);
  await expect(drawn('1 line')).toBeVisible();
  await penWithHand(at(0.9, 0.9), [at(0.2, 0.6), at(0.3, 0.62), at(0.4, 0.64)]);
  await expect(drawn('2 lines')).toBeVisible();
  // The pen’s line is where the pen was: nothing of it lies under the hand.
  const right = await drawn('2 lines').evaluate((sheet) => {
    const { left, width } = sheet.getBoundingClientRect();
    const ends = [...sheet.querySelectorAll('path, polyline')].map(
      (line) => line.getBoundingClientRect().right,
    );
    return (Math.max(...ends) - left) / width;
  });
  expect(right).toBeLessThan(0.5);
  // A finger on the sheet draws, and moves nothing else.
  expect(await page.evaluate(() => window.scrollY)).toBe(scrolled);
});

test('what has the focus stands in sight above the on-screen keyboard, field by field', async ({ page }) => {
  await page.goto('/papers/paper-passage/look');
  const fields = page.getByRole('textbox');
  await expect(fields.first()).toBeVisible();
  await fields.first().tap();
  // The keyboard takes its half of the screen, and its key for the next field goes on.
  await page.setViewportSize({ width: 820, height: 620 });
  const last = await fields.last().evaluateHandle((field) => field);
  const covered: string[] = [];
  let isLast = false;
  for (let step = 0; step < 60 && !isLast; step++) {
    await page.keyboard.press('Tab');
    const [name, free] = await page.evaluate(() => {
      const field = document.activeElement;
      if (!field) return ['nothing', false] as const;
      const { left, top, width, height } = field.getBoundingClientRect();
      const over = document.elementFromPoint(left + width / 2, top + Math.min(height, 40) / 2);
      const seen = over !== null && (field.contains(over) || over.contains(field));
      return [field.getAttribute('aria-label') ?? field.outerHTML.slice(0, 60), seen] as const;
    });
    if (!free) covered.push(name);
    isLast = await last.evaluate((field) => field === document.activeElement);
  }
  expect(isLast).toBe(true);
  expect(covered).toEqual([]);
});

test('a photo is marked by finger and pen, with scheme and points in sight', async ({ page }) => {
  await page.goto('/sittings/tides/mark?question=t13');
  await page.getByRole('button', { name: 'Mark on it' }).tap();
  const photo = page.getByRole('application').first();
  await expect(photo).toBeVisible();
  await expect(page.getByLabel('Points for the current answers')).toBeInViewport();
  await page.getByRole('button', { name: /^Tick/ }).tap();
  const at = await placesOn(photo);
  const { finger, penWithHand } = await hands(page);
  // Thought better of: the finger is moved off before it is lifted.
  const [, top] = at(0.5, 0);
  await finger([at(0.5, 0.2), [at(0.5, 0)[0], top - 60]]);
  await expect(photo).not.toHaveAccessibleName(/tick/);
  await finger([at(0.5, 0.2)]);
  await expect(photo).toHaveAccessibleName(/1 tick$/);
  await page.getByRole('button', { name: /^Pen/ }).tap();
  await penWithHand(at(0.9, 0.6), [at(0.2, 0.3), at(0.3, 0.32), at(0.4, 0.34)]);
  await expect(photo).toHaveAccessibleName(/1 tick, 1 line$|1 line, 1 tick$/);
});
