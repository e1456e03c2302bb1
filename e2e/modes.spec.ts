import { beatShown, expect, saved, test, typeInto } from './fixtures';

test('J6: latch keeps what the hand left until playing stops; write begins anew and falls back to touch', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Moves');
  await hand.press('button', /^Recording of Humming voice: touch/);
  await hand.press('radio', /^Latch/);
  await hand.press('button', 'Close');
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  await typeInto(page, 'Input', '30 %');
  const from = await beatShown(page);
  await expect.poll(() => beatShown(page)).toBeGreaterThan(from + 2);
  await hand.press('button', 'Stop');
  const latched = (await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1)).piece.lanes[0]!;
  const low = latched.points.filter(({ value }) => Math.abs(value - 0.3) < 0.01);
  expect(low[low.length - 1]!.beat - low[0]!.beat).toBeGreaterThan(1.5);
  expect(latched.points[latched.points.length - 1]!.value).toBe(1);

  await hand.view('Moves');
  await hand.press('button', /^Recording of Humming voice: latch/);
  await hand.press('radio', /^Write/);
  await hand.press('button', 'Close');
  await hand.press('button', 'Back to the start');
  await hand.press('button', 'Play');
  await expect
    .poll(() => beatShown(page), { timeout: 60_000 })
    .toBeGreaterThan(latched.points[latched.points.length - 1]!.beat + 3);
  await hand.press('button', 'Stop');
  const written = (await saved(page, pieceId, (stored) => stored.history.cursor === 3)).piece.lanes[0]!;
  expect(written.points.every(({ value }) => value === 1)).toBe(true);
  await expect(page.getByRole('button', { name: /^Recording of Humming voice: touch/ })).toBeVisible();

  await hand.press('button', /^Undo: Record input/);
  expect((await saved(page, pieceId, (stored) => stored.history.cursor === 2)).piece.lanes[0]).toEqual(latched);
});
