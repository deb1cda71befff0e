import type { BrowserContext, CDPSession } from '@playwright/test';
import { launched, middle, notePainted, row, untilPainted } from './measure';

/** A student's page on a phone that the classroom server serves: a processor four times slower, 1.6 Mbit/s with 150 ms on the way, nothing in the cache. */

const base = process.argv[2] ?? 'http://localhost:4390';
const secret = process.env.GRIBBET_TEACHER_SECRET ?? '';
const line = { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 200_000 };

const browser = await launched();
try {
  const codes = await letIn(await browser.newContext());
  const forms: number[] = [];
  const questions: number[] = [];
  let sent: Record<string, number> = {};
  for (const code of codes) {
    const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    await session.send('Network.enable');
    await session.send('Network.emulateNetworkConditions', line);
    await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    sent = counted(session);

    await page.addInitScript(notePainted('form input'));
    await page.goto(`${base}/sit`, { waitUntil: 'commit' });
    forms.push(await untilPainted(page, 'beginning'));
    await page.getByLabel('Your join code').fill(code);
    await page.getByRole('button', { name: 'Continue' }).click();
    await page.getByRole('button', { name: 'Yes, this is me' }).click();
    await page.getByRole('button', { name: 'Read the instructions' }).click();
    await page.getByLabel('Access code').fill('flood');
    await page.evaluate(notePainted('[id^="question-"]'));
    await page.evaluate(() => delete (window as { paintedAt?: number }).paintedAt);
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    questions.push(await untilPainted(page, 'press'));
    await context.close();
  }
  row('phone: the form for the join code stands', `${middle(forms).toFixed(0)} ms`);
  row('phone: the first question after Start', `${middle(questions).toFixed(0)} ms`);
  row('phone: script sent for a paper of choices and texts (brotli)', kilobytes(sent.Script));
  row('phone: styles sent', kilobytes(sent.Stylesheet));
} finally {
  await browser.close();
}

function kilobytes(bytes = 0): string {
  return `${(bytes / 1000).toFixed(0)} KB`;
}

/** Counts the bytes as they came over the line, by sort. */
function counted(session: CDPSession): Record<string, number> {
  const sorts = new Map<string, string>();
  const bytes: Record<string, number> = {};
  session.on('Network.responseReceived', ({ requestId, type }) => sorts.set(requestId, type));
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const sort = sorts.get(requestId) ?? '';
    bytes[sort] = (bytes[sort] ?? 0) + encodedDataLength;
  });
  return bytes;
}

/** Lets the demo's running quiz onto the server; the join codes of three who have not begun. */
async function letIn(context: BrowserContext): Promise<string[]> {
  const page = await context.newPage();
  await page.goto(`${base}/sittings/rules/devices`);
  await page.getByLabel('The teacher’s secret').fill(secret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  await page.getByRole('button', { name: 'Let students join on their own devices' }).click();
  await page.getByRole('region', { name: 'How students join' }).waitFor();
  await page.goto(`${base}/sittings/rules/run`);
  await page.getByRole('button', { name: '4 not started' }).click();
  const codes: string[] = [];
  for (let row = 0; row < 3; row++) {
    await page.getByRole('rowheader').nth(row).getByRole('button').click();
    codes.push((await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '');
  }
  // Once the desk has told the server, their codes are known there.
  const known = (joinCode: string) =>
    fetch(`${base}/api/exchange/greet`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: base },
      body: JSON.stringify({ joinCode: joinCode.replace(' ', '') }),
    }).then(({ ok }) => ok);
  for (const code of codes)
    while (!(await known(code))) await new Promise((resolve) => setTimeout(resolve, 200));
  return codes;
}
