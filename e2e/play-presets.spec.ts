import { expect, isDown, saved, stone, test, typeInto } from './fixtures';

test('a hold’s figures are kept as a preset of one’s own, and stepped to while it is held', async ({
  page,
  pieceId,
  hand,
}) => {
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

test('a figure of a hold has a run that begins with the hold: its steps are lit, typed, switched and undone', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Play');
  await hand.press('button', 'Link a rail');
  await hand.press('button', 'Link Stutter Slice');
  await hand.press('button', 'A run');
  const steps = page.getByRole('slider', { name: /^Steps\./ });
  await steps.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowUp');
  await hand.press('button', 'Switch step 2 off');
  await expect(steps).toHaveAttribute('aria-valuetext', 'step 2 of 8, off');
  await hand.press('button', 'One step less');
  const made = await saved(page, pieceId, ({ piece: { modulators } }) => {
    const [run] = modulators;
    return run?.kind === 'run' && run.steps.length === 7;
  });
  expect(made.piece.modulators[0]).toMatchObject({ kind: 'run', hold: 'deck-rattle', off: [1], on: true });
  await hand.press('button', 'Play');
  await page.keyboard.down('1');
  await isDown(stone(page, 'Stutter'), true);
  // It goes through its steps while the stone is down, and is dark once that is let go of.
  const lit = page.getByTestId('sounding step');
  const places = new Set<string>();
  await expect.poll(async () => places.add(await lit.evaluate((mark) => mark.style.left)).size).toBeGreaterThan(3);
  await page.keyboard.up('1');
  await expect(lit).toHaveCSS('opacity', '0');
  await hand.press('button', 'Stop');
  for (let i = 0; i < 4; i += 1) await hand.press('button', /^Undo/);
  await saved(page, pieceId, ({ piece: { modulators, links } }) => modulators.length + links.length === 0);
});
