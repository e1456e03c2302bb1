import { beatShown, expect, saved, test, typeInto, unfoldStrip } from './fixtures';

test('J11: a snapshot is gone back to on the bar while playing, and travelled to as moves', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  await hand.chain();
  await unfoldStrip(page);
  await hand.press('button', 'Snapshots');
  await hand.press('button', 'Take');
  await hand.press('button', 'Close');
  await typeInto(page, 'Level', '-20 dB');
  await hand.press('switch', 'Echo on');
  const changed = (await saved(page, pieceId, ({ piece }) => piece.tracks[1]!.chain[0]?.on === false)).piece;
  expect(changed.tracks[1]!.gain).toBeCloseTo(0.1, 6);

  await hand.press('button', 'Play');
  await hand.press('button', 'Snapshots');
  await expect(page.getByText(/^Humming voice · 2 of \d+ values elsewhere$/)).toBeVisible();
  await hand.press('radio', 'Begins: next bar');
  await hand.press('radio', 'Takes: 1 beat');
  await hand.press('button', 'Go to Tide 1');
  await expect(page.getByText('Humming voice · stands so now')).toBeVisible();
  const recalled = await saved(page, pieceId, ({ piece }) => piece.tracks[1]!.chain[0]!.on);
  expect(recalled.piece.tracks[1]!.gain).toBeGreaterThan(0.5);
  expect(recalled.piece.lanes).toEqual([]);
  expect(recalled.history.entries.map(({ label }) => label)).toContain('Recall Tide 1');
  await hand.press('button', 'Close');
  await hand.press('button', 'Stop');

  await hand.press('button', 'Undo: Recall Tide 1');
  await hand.press('button', 'Back to the start');
  await expect.poll(() => beatShown(page)).toBe(0);
  await hand.press('button', 'Snapshots');
  await hand.press('switch', 'Write as moves');
  await hand.press('radio', 'Takes: 2 bars');
  await hand.press('button', 'Go to Tide 1');
  const { lanes } = (await saved(page, pieceId, ({ piece }) => piece.lanes.length === 2)).piece;
  const level = lanes.find(({ target }) => 'param' in target && target.param === 'gain')!;
  expect(level.points.map(({ beat, shape }) => [beat, shape])).toEqual([
    [0, 'line'],
    [8, 'hold'],
  ]);
  expect(level.points[1]!.value).toBeCloseTo(recalled.piece.tracks[1]!.gain, 6);
  expect(lanes.find(({ target }) => 'param' in target && target.param === 'on')!.points[0]).toMatchObject({
    beat: 0,
    value: 1,
  });
});
