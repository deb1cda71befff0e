import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

// WCAG 2.2 A and AA, as far as axe-core's rules reach.
const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22a', 'wcag22aa'];

/** Looks at a view in both papers; what does not hang on colours is the same in the dark. */
export async function expectNoViolation(page: Page, where: string) {
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await expect(page.locator(`html[data-mantine-color-scheme="${colorScheme}"]`)).toBeAttached();
    // What still fades in has the contrast of a moment, not of the design.
    await page.waitForFunction(() =>
      document.getAnimations().every((animation) => animation.playState !== 'running'),
    );
    const axe = new AxeBuilder({ page });
    const look = colorScheme === 'light' ? axe.withTags(rules) : axe.withRules(['color-contrast']);
    const { violations } = await look.analyze();
    const found = violations.map(
      (violation) =>
        `${where}, ${colorScheme}: ${violation.id} ${violation.nodes
          .map((node) => node.target.join(' '))
          .slice(0, 4)
          .join(' | ')}`,
    );
    expect(found).toEqual([]);
  }
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
}
