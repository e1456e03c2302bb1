import { beatShown, expect, go, test } from './fixtures';

test('time scrolls with the playhead while playing, and zooms about what lies under the hand', async ({
  page,
  pieceId,
}) => {
  expect(pieceId).not.toBe('');
  await go(page, 'Moves');
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  const left = async (): Promise<number> => (await ruler.boundingBox())!.x;
  const width = async (): Promise<number> => (await ruler.boundingBox())!.width;
  const start = await left();
  const whole = await width();
  const hand = 700;
  await page.mouse.move(hand, (await ruler.boundingBox())!.y + 10);
  const beatUnder = async (): Promise<number> => ((hand - (await left())) / (await width())) * 64;
  const before = await beatUnder();
  await page.keyboard.down('Control');
  for (let i = 0; i < 4; i += 1) {
    const wide = await width();
    await page.mouse.wheel(0, -100);
    await expect.poll(width).toBeGreaterThan(1.9 * wide);
  }
  await page.keyboard.up('Control');
  expect(await width()).toBeCloseTo(16 * whole, -2);
  expect(await beatUnder()).toBeCloseTo(before, 1);
  expect(await left()).toBeLessThan(start - 1000);

  // A quarter of a screen is a beat now: the page has turned to the beginning, and turns again.
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(left).toBeGreaterThan(start - 2000);
  const turned = await left();
  await expect.poll(left).toBeLessThan(turned - 400);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  const playhead = (await left()) + ((await beatShown(page)) / 64) * (await width());
  expect(playhead).toBeGreaterThan(0);
  expect(playhead).toBeLessThan(1280);
});
