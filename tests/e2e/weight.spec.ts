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
  const atForm = { ...sent };
  expect(atForm.Script).toBeLessThan(130_000);
  expect(atForm.Stylesheet).toBeLessThan(20_000);
  // What a paper is sat with follows by itself, before anybody needs it.
  await expect.poll(() => sent.Script ?? 0).toBeGreaterThan((atForm.Script ?? 0) + 15_000);
  await page.waitForLoadState('networkidle');
  expect(sent.Script).toBeLessThan(150_000);
  await context.close();
});
