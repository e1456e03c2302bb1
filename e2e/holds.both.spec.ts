import { expect, handOn, powerDb, rendered, saved, test } from './bench';

test('a hold is played by its pad, recorded as a move of its switch, and undone', async ({ page, pieceId, hasTouch }) => {
  const hand = handOn(page, hasTouch);
  await hand.view('Chain');
  await hand.add('Stutter', 'Deck rattle');
  const pad = page.getByRole('button', { name: 'Hold Stutter' });
  await expect(pad).toBeVisible();
  await hand.press('button', 'Record moves');
  await hand.press('button', 'Play');
  const down = async (): Promise<void> => {
    if (hasTouch) await pad.dispatchEvent('pointerdown', { pointerId: 7, button: 0, isPrimary: true });
    else {
      await pad.focus();
      await page.keyboard.down('Space');
    }
  };
  const up = async (): Promise<void> => {
    if (hasTouch) await pad.dispatchEvent('pointerup', { pointerId: 7, button: 0 });
    else await page.keyboard.up('Space');
  };
  await down();
  await expect(pad).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('button', { name: 'Back to the start' })).toContainText(/^1\.[34]|^2\./);
  await up();
  await expect(pad).toHaveAttribute('aria-pressed', 'false');
  await hand.press('button', 'Stop');
  const { piece, history } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1);
  const [lane] = piece.lanes;
  expect(lane!.target).toMatchObject({ kind: 'effect', param: 'held' });
  const on = lane!.points.find(({ value }) => value === 1)!;
  const off = lane!.points.find(({ value, beat }) => value === 0 && beat > on.beat)!;
  expect(off.beat - on.beat).toBeGreaterThan(0.5);
  expect(history.entries[history.cursor - 1]!.label).toMatch(/^Record held/);
  const with_ = await rendered(page, piece, on.beat + 0.3, off.beat);
  const without = await rendered(page, { ...piece, lanes: [] }, on.beat + 0.3, off.beat);
  const apart = with_.left.map((x, i) => x - without.left[i]!);
  expect(powerDb(apart, 0, apart.length)).toBeGreaterThan(-60);
});
