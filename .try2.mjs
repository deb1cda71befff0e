import { chromium } from 'playwright-core';
const port = 4701;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless','--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true });
const page = await context.newPage();
page.on('console', (m) => { if (m.type() === 'error') console.log('console:', m.text()); });
page.on('pageerror', (e) => console.log('pageerror:', e.message));
await page.goto(`http://localhost:${port}/`);
await page.waitForTimeout(4000);
await page.goto(`http://localhost:${port}/sittings/lights/on-paper`);
await page.getByRole('radio', { name: /Alike/ }).click();
await page.getByLabel('How many').fill('6');
await page.screenshot({ path: '/tmp/p1.png' });
let t = Date.now();
const [d1] = await Promise.all([page.waitForEvent('download', { timeout: 120000 }), page.getByRole('button', { name: /Make \d+ paper/ }).click()]);
await d1.saveAs('/tmp/papers6.pdf'); console.log('papers', Date.now() - t);
t = Date.now();
const [d2] = await Promise.all([page.waitForEvent('download', { timeout: 400000 }), page.getByRole('button', { name: /made-up class/ }).click()]);
await d2.saveAs('/tmp/scans6.pdf'); console.log('made up', Date.now() - t);
t = Date.now();
await page.getByLabel('Scanned files').setInputFiles('/tmp/scans6.pdf');
await page.getByText(/: \d+ pages? imported/).waitFor({ timeout: 400000 }); console.log('read', Date.now() - t);
console.log(await page.getByText(/: \d+ pages? imported/).textContent());
await page.waitForTimeout(1500);
await page.screenshot({ path: '/tmp/p3.png', fullPage: true });
for (let n = 1; n <= 6; n++) {
  const s = page.getByLabel(`Whose paper ${n} is`);
  if (await s.count()) { await s.selectOption({ index: 2 }); await page.waitForTimeout(600); }
}
await page.waitForTimeout(800);
await page.screenshot({ path: '/tmp/p4.png', fullPage: true });
await page.goto(`http://localhost:${port}/sittings/lights/mark`);
await page.waitForTimeout(2500);
await page.screenshot({ path: '/tmp/p5.png' });
await browser.close();
