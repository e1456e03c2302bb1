import { beatShown, expect, saved, test } from './fixtures';

test('J11 by a pattern: strands take turns, the row is drawn, a hand takes a strand in Play and it is recorded', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  const braidOf = async (ready: (values: Readonly<Record<string, unknown>>) => boolean = () => true) => {
    const { piece } = await saved(page, pieceId, ({ piece: stored }) => {
      const braid = stored.main.chain.find(({ effect }) => effect === 'braid');
      return braid !== undefined && ready(braid.values);
    });
    return piece.main.chain.find(({ effect }) => effect === 'braid')!;
  };
  await hand.view('Chain');
  await hand.press('button', /^Channel: /);
  await hand.press('radio', 'Main');
  await hand.add('Braid', 'Five bells');
  const braid = await braidOf();
  expect(braid.strands!.map(({ name }) => name)).toEqual(['As it is', 'Sheet', 'Coil', 'Cistern']);

  await hand.section('Pattern');
  const row = page.getByRole('slider', { name: /^Row of strands/ });
  await expect(row).toHaveAttribute('aria-valuetext', 'step 1 of 10: As it is');
  if (hasTouch) {
    await row.scrollIntoViewIfNeeded();
    const box = (await row.boundingBox())!;
    // The third of ten steps, the last of four strands and a rest.
    await page.touchscreen.tap(box.x + 0.25 * box.width, box.y + 0.7 * box.height);
  } else {
    await row.focus();
    for (const key of ['ArrowRight', 'ArrowRight', 'ArrowDown', 'ArrowDown']) await page.keyboard.press(key);
  }
  await expect(row).toHaveAttribute('aria-valuetext', 'step 3 of 10: Cistern');
  await braidOf(({ row3 }) => row3 === 4);

  await hand.chain();
  await hand.press('button', 'Play');
  // A strand is lit for a third of a second: one look a second could miss it each time.
  for (const place of [1, 2, 4])
    await expect
      .poll(() => page.getByTestId(`strand ${place} lit`).evaluate((lamp) => lamp.style.opacity), { intervals: [40] })
      .toBe('1');
  await hand.press('button', 'Stop');

  await hand.view('Play');
  await hand.press('button', /^Pads: /);
  await hand.press('radio', 'Strands');
  await hand.press('button', /^Close/);
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  const pad = page.getByRole('button', { name: 'Take strand Coil on Main' });
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0.5);
  const touch = hasTouch ? await page.context().newCDPSession(page) : null;
  const box = (await pad.boundingBox())!;
  const touchPoints = [{ x: box.x + box.width / 2, y: box.y + box.height / 2 }];
  if (touch) await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints });
  else {
    await pad.focus();
    await page.keyboard.down('Space');
  }
  await expect(pad).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('button', { name: 'Take strand Sheet on Main' })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
  await expect(page.getByTestId('strand 3 lit')).toHaveCSS('opacity', '1');
  if (touch) await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  else await page.keyboard.up('Space');
  await expect(pad).toHaveAttribute('aria-pressed', 'false');
  await hand.press('button', 'Stop');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1);
  expect(piece.lanes[0]!.target).toMatchObject({ kind: 'effect', effect: braid.id, param: 'taken' });
  expect(piece.lanes[0]!.points.map(({ value }) => value)).toEqual(expect.arrayContaining([0, 3]));
});
