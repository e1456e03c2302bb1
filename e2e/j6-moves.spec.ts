import { expect, go, saved, test } from './fixtures';

test('J6 by keyboard: a lane is laid by hand, point by point, and typed', async ({ page, pieceId }) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Throw into the gap' }).press('Enter');
  await go(page, 'Moves');
  await page.getByRole('button', { name: 'Add a lane by hand' }).press('Enter');
  await page.getByRole('button', { name: 'Lane for Echo Input' }).press('Enter');
  const lane = page.getByRole('group', { name: /^Lane Echo input/ });
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  const value = page.getByRole('button', { name: /^Input, .*Type a value/ });
  for (const [beats, text] of [
    [12, '0 %'],
    [1, '100 %'],
    [2, '0 %'],
  ] as const) {
    await ruler.focus();
    for (let i = 0; i < beats; i += 1) await page.keyboard.press('ArrowRight');
    await page.getByRole('button', { name: 'Add a point at the playhead' }).press('Enter');
    await value.press('Enter');
    await page.getByRole('textbox', { name: 'Input as text' }).fill(text);
    await page.keyboard.press('Enter');
  }
  await expect(lane).toHaveAccessibleName(/4 points/);
  await lane.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('group', { name: 'Point 3 of 4' })).toBeVisible();
  await page.getByRole('button', { name: /^Beat, .*Type a value/ }).press('Enter');
  await page.getByRole('textbox', { name: 'Beat as text' }).fill('14.5');
  await page.keyboard.press('Enter');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.lanes[0]?.points[2]?.beat === 13.5);
  expect(piece.lanes[0]!.points.map(({ beat, value: level }) => [beat, level])).toEqual([
    [0, 0],
    [12, 0],
    [13.5, 1],
    [15, 0],
  ]);

  await page.getByRole('switch', { name: 'Follow these moves' }).press('Space');
  await saved(page, pieceId, (stored) => !stored.piece.lanes[0]!.on);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'Remove these moves' }).press('Enter');
  await expect(page.getByText('No moves here yet')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(lane).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect(lane).toBeHidden();
});

test('a switch thrown while recording is a held step, and the lane plays it back', async ({ page, pieceId }) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Neutral' }).click();
  await page.keyboard.press('m');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByRole('switch', { name: 'Hold', exact: true }).click();
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  expect(piece.lanes[0]).toMatchObject({
    target: { param: 'hold' },
    points: [
      { value: 0, shape: 'hold' },
      { value: 1, shape: 'hold' },
    ],
  });
  expect(piece.tracks.find((track) => track.id === 'hum')!.chain[0]!.values.hold).toBe(false);
});
