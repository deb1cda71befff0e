import axe from 'axe-core';
import { expect, type Page } from '@playwright/test';

// WCAG 2.2 A and AA, as far as axe-core's rules reach.
const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22a', 'wcag22aa'];

/** Looks at a view in both papers; what does not hang on colours is the same in the dark. */
export async function expectNoViolation(page: Page, where: string) {
  // Past the policy of the page, as a debugger does; once for both looks.
  await page.evaluate(`if (!globalThis.axe) { ${axe.source} }`);
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await expect(page.locator(`html[data-mantine-color-scheme="${colorScheme}"]`)).toBeAttached();
    // What still fades in has the contrast of a moment, not of the design.
    await page.waitForFunction(() =>
      document.getAnimations().every((animation) => animation.playState !== 'running'),
    );
    const runOnly = colorScheme === 'light' ? rules : ['color-contrast'];
    const violations = await page.evaluate(async (only) => {
      const { axe: here } = globalThis as unknown as { axe: typeof axe }; // put there a moment ago
      const found = await here.run(document, { runOnly: only, resultTypes: ['violations'] });
      return found.violations.map(({ id, nodes }) => ({
        id,
        targets: nodes.map(({ target }) => target.join(' ')),
      }));
    }, runOnly);
    const found = violations.map(
      ({ id, targets }) => `${where}, ${colorScheme}: ${id} ${targets.slice(0, 4).join(' | ')}`,
    );
    expect(found).toEqual([]);
  }
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
}
