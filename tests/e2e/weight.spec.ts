import { expect, test } from '@playwright/test';

/** What a student's page weighs as it is sent by gzip, which is what a laptop in the classroom sends over plain HTTP. */
test('the form for the join code stands on little: of the rest nothing is waited for', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({
    viewport: { width: 360, height: 740 },
    extraHTTPHeaders: { 'accept-encoding': 'gzip' },
  });
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  const sorts = new Map<string, { type: string; url: string }>();
  const sent: Record<string, number> = {};
  // When the form stood: what was asked for later was not waited for, however soon it came.
  await context.addInitScript(() => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector('input')) return;
      observer.disconnect();
      performance.mark('form');
    }).observe(document, { childList: true, subtree: true });
  });
  session.on('Network.responseReceived', ({ requestId, type, response }) => {
    sorts.set(requestId, { type, url: response.url });
    if (/\.(js|css)$/.test(response.url) && Number(response.headers['content-length']) > 2000)
      expect(response.headers['content-encoding'], response.url).toBe('gzip');
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const { type } = sorts.get(requestId) ?? { type: '' };
    sent[type] = (sent[type] ?? 0) + encodedDataLength;
  });
  await page.goto(`${baseURL}/sit`);
  await page.getByLabel('Your join code').waitFor();
  await page.waitForLoadState('networkidle');
  const atForm = await page.evaluate(() => {
    const stood = performance.getEntriesByName('form')[0]?.startTime ?? 0;
    const before = performance
      .getEntriesByType('resource')
      .filter(({ startTime }) => startTime < stood) as PerformanceResourceTiming[];
    const bytes = (ending: string) =>
      before
        .filter(({ name }) => name.endsWith(ending))
        .reduce((sum, { transferSize }) => sum + transferSize, 0);
    const named = new Set(
      [...document.querySelectorAll<HTMLLinkElement>('link[rel="modulepreload"]')].map(({ href }) => href),
    );
    const unnamed = before.filter(({ name }) => name.endsWith('.js') && !named.has(name));
    return {
      ...{ scripts: bytes('.js'), styles: bytes('.css') },
      named: named.size,
      unnamed: unnamed.map(({ name }) => name),
    };
  });
  // All of them are named at the head of the page: none is asked for only once another was read.
  expect(atForm.named).toBeGreaterThan(2);
  expect(atForm.unnamed).toEqual([]);
  expect(atForm.scripts).toBeGreaterThan(50_000);
  expect(atForm.scripts).toBeLessThan(130_000);
  expect(atForm.styles).toBeLessThan(20_000);
  // What a paper is sat with follows by itself, before anybody needs it.
  await expect.poll(() => sent.Script ?? 0).toBeGreaterThan(atForm.scripts + 15_000);
  expect(sent.Script).toBeLessThan(150_000);
  await context.close();
});
