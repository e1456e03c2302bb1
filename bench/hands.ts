import type { Page } from '@playwright/test';

const PRESSES = 250;
const say = (line: string): void => void process.stdout.write(`${line}\n`);

const LIVE_SET = 'night-ferry';
/** The server makes the live set when it is started first. */
const MADE_WITHIN_MS = 180_000;

async function waitForLiveSet(origin: string): Promise<void> {
  const until = Date.now() + MADE_WITHIN_MS;
  while (!(await fetch(`${origin}/api/pieces/${LIVE_SET}`)).ok) {
    if (Date.now() > until) throw new Error(`The server has not made ${LIVE_SET}.`);
    await new Promise((done) => setTimeout(done, 500));
  }
}

/** From a hand on a stone to the block in which the engine acts, in the real client while the live set plays. */
export async function handToEngine(page: Page, origin: string): Promise<void> {
  await waitForLiveSet(origin);
  await page.goto(`${origin}/piece/${LIVE_SET}/play`);
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
  say(`\nIn Play, while Night Ferry sounds, ${PRESSES} presses of a stone: ${print}`);
}
