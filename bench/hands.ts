import type { Page } from '@playwright/test';

const PRESSES = 60;
const say = (line: string): void => void process.stdout.write(`${line}\n`);

/** From a hand on a stone to the block in which the engine acts, in the real client while the demo plays. */
export async function handToEngine(page: Page, origin: string): Promise<void> {
  await page.goto(`${origin}/piece/salt-pier/play`);
  const stone = page.getByRole('button', { name: /^Hold Stutter/ });
  await stone.waitFor();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByText(/output \d+ ms later/).waitFor();
  for (let i = 0; i < PRESSES; i += 1) {
    await stone.hover();
    await page.mouse.down();
    await page.locator('[aria-label^="Hold Stutter"][aria-pressed=true]').waitFor();
    await page.mouse.up();
    await page.locator('[aria-label^="Hold Stutter"][aria-pressed=false]').waitFor();
  }
  const print = (await page.getByText(/^hand to engine/).textContent()) ?? '';
  say(`\nIn Play, while Salt Pier sounds, ${PRESSES} presses of a stone: ${print}`);
}
