import { expect, handOn, isDown, saved, stone, test, typeInto } from './bench';

test('a hold’s figures are kept as a preset of one’s own, and stepped to while it is held', async ({
  page,
  pieceId,
}) => {
  const hand = handOn(page, false);
  await hand.view('Play');
  await typeInto(page, 'Slice', '70 ms');
  await hand.press('button', 'Keep as a preset of your own');
  await page.getByRole('textbox', { name: 'Name of the preset' }).fill(`Seventy ${pieceId}`);
  await hand.press('button', 'Keep the preset');
  await hand.press('button', 'Next preset');
  await expect(stone(page, 'Stutter')).toHaveAccessibleName(/Windlass/);
  await hand.press('button', 'Play');
  await page.keyboard.down('1');
  await isDown(stone(page, 'Stutter'), true);
  // The own one comes after the last of the effect's own, which is before the first.
  for (let i = 0; i < 12; i += 1) {
    if (/Seventy/.test((await stone(page, 'Stutter').getAttribute('aria-label')) ?? '')) break;
    const name = await stone(page, 'Stutter').getAttribute('aria-label');
    await page.keyboard.press(',');
    await expect(stone(page, 'Stutter')).not.toHaveAttribute('aria-label', name!);
  }
  await expect(stone(page, 'Stutter')).toHaveAccessibleName(new RegExp(`Seventy ${pieceId}`));
  await isDown(stone(page, 'Stutter'), true);
  await page.keyboard.up('1');
  await hand.press('button', 'Stop');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.main.chain[0]!.values.slice === 70);
  expect(piece.main.chain[0]!.preset).toBeNull();
});
