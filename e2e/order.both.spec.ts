import type { Locator, Page } from '@playwright/test';
import { EFFECTS, effectOf } from '../src/core/effects/catalogue';
import { expect, saved, test } from './fixtures';

const MIDDLE = 22;
const HOLDS = EFFECTS.filter(({ family }) => family === 'hold').map(({ name }) => name);

/**
 * Drags with a finger or the mouse from the middle of one handle to that of another, and a little beyond it.
 * @param rested waits until a finger that rests has taken it along
 */
async function drag(
  page: Page,
  from: Locator,
  to: Locator,
  hasTouch: boolean | undefined,
  rested: () => Promise<void> = async () => undefined,
): Promise<void> {
  await to.scrollIntoViewIfNeeded();
  const [start, end] = [(await from.boundingBox())!, (await to.boundingBox())!];
  const x = start.x + MIDDLE;
  const ys = [0, 0.2, 0.6, 1, 1.05].map((way) => start.y + MIDDLE + way * (end.y - start.y));
  if (!hasTouch) {
    await page.mouse.move(x, ys[0]!);
    await page.mouse.down();
    for (const y of ys.slice(1)) await page.mouse.move(x, y, { steps: 4 });
    await page.mouse.up();
    return;
  }
  const touch = await page.context().newCDPSession(page);
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y: ys[0]! }] });
  await rested();
  for (const y of ys.slice(1))
    await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [{ x, y }] });
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
}

test('effects of a chain and holds in Play are put in another order by hand and by keys', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  /** Effects of the main output, in their order. */
  const chain = async (): Promise<string[]> =>
    (await saved(page, pieceId)).piece.main.chain.map(({ effect }) => effectOf(effect).name);
  const order = (names: readonly string[]): Promise<void> => expect.poll(chain).toEqual(names);
  const handle = (name: string, index: number, count: number): Locator =>
    page.getByRole('button', { name: `Move ${name}, ${index + 1} of ${count}`, exact: true });
  const before = await chain();
  const n = before.length;
  const [first, second, ...rest] = before;
  const swapped = [second!, first!, ...rest];

  await hand.view('Chain');
  await hand.press('button', /^Channel: /);
  await hand.press('radio', 'Main');
  await drag(page, handle(first!, 0, n), handle(second!, 1, n), hasTouch);
  await order(swapped);
  await handle(first!, 1, n).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(`${first} picked up, position 2 of ${n}`)).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText(`${first} at position 1 of ${n}`)).toBeAttached();
  await page.keyboard.press('Space');
  await order(before);

  await hand.view('Play');
  await hand.press('button', 'Add a hold');
  const holds = before.filter((name) => HOLDS.includes(name));
  await drag(page, handle(holds[0]!, 0, holds.length), handle(holds[1]!, 1, holds.length), hasTouch);
  await expect
    .poll(async () => (await chain()).filter((name) => HOLDS.includes(name)))
    .toEqual([holds[1], holds[0], ...holds.slice(2)]);
});

test('tracks are put in another order by dragging their heads, and by keys', async ({ page, pieceId, hasTouch }) => {
  const names = async (): Promise<readonly string[]> =>
    (await saved(page, pieceId)).piece.tracks.map(({ name }) => name);
  const before = await names();
  const [first, second, ...rest] = before;
  const swapped = [second!, first!, ...rest];
  const head = (name: string): Locator => page.getByRole('button', { name: new RegExp(`^Track ${name}`) });
  await drag(page, head(first!), head(second!), hasTouch, () =>
    expect(page.getByText(`${first} picked up, position 1 of ${before.length}`)).toBeAttached(),
  );
  await expect.poll(names).toEqual(swapped);
  // The drag chose nothing and opened nothing.
  await expect(page.getByRole('dialog')).toBeHidden();
  if (hasTouch) return;
  await head(first!).press('Enter');
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(names).toEqual(before);
  await page.keyboard.press('Alt+ArrowUp');
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(names).toEqual(swapped);
});
