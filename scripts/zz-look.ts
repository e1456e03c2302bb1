import { chromium } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { BROWSER } from './browser';
import { startServer } from './startServer';
(async () => {
  const stop = await startServer(mkdtempSync('/tmp/look-'), 4188);
  const browser = await chromium.launch({ executablePath: BROWSER, args: ['--no-sandbox'] });
  for (const [size, scheme, w, h] of [['p', 'light', 390, 844], ['w', 'dark', 1280, 800]] as const) {
    const ctx = await browser.newContext({ viewport: { width: w, height: h }, colorScheme: scheme });
    const page = await ctx.newPage();
    await page.goto('http://127.0.0.1:4188/');
    await page.getByRole('heading', { name: 'Salt Pier' }).waitFor();
    await page.getByRole('button', { name: /^Clip / }).nth(1).click();
    await page.getByRole('button', { name: 'Print', exact: true }).click();
    await page.getByRole('radio', { name: 'Goes there, instead of the clip' }).click();
    await page.waitForTimeout(400);
    await page.screenshot({ path: `/tmp/l-print-${size}.png` });
    await page.getByRole('switch', { name: /^Through/ }).first().click().catch(() => undefined);
    await page.keyboard.press('Escape');
    const more = page.getByRole('button', { name: 'More for the piece' });
    if (await more.isVisible()) await more.click();
    await page.getByRole('button', { name: 'Files', exact: false }).first().click();
    await page.waitForTimeout(800);
    await page.getByRole('radio', { name: 'Loudness −16 LUFS' }).click();
    await page.screenshot({ path: `/tmp/l-files-${size}.png` });
    await ctx.close();
  }
  await browser.close();
  await (stop as any)?.stop?.();
  process.exit(0);
})();
