import { chromium } from '@playwright/test';
const [, , script, w = '1280', h = '800'] = process.argv;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: +w, height: +h } });
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
page.on('console', (m) => {
  if (m.type() === 'error') console.log('CONSOLE', m.text());
});
await page.goto('http://127.0.0.1:4310');
await page.getByLabel('E-mail').fill('ruth@lanternyard.example');
await page.getByLabel('Password').fill('seven slow lanterns');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.getByRole('heading', { name: 'Desk', exact: true }).waitFor();
const shot = (n) => page.screenshot({ path: `/tmp/shots/${n}.png` });
const fn = new (Object.getPrototypeOf(async function () {}).constructor)('page', 'shot', (await import('node:fs')).readFileSync(script, 'utf8'));
try {
  await fn(page, shot);
} catch (e) {
  console.log('FAILED', e.message.slice(0, 600));
  await shot('failed');
}
await browser.close();
