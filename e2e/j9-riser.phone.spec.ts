import { chooseStretch, expect, powerDb, rendered, saved, test } from './fixtures';

test('J9: a riser over a chosen stretch grows into its last bar line, can be changed as moves, and is undone in one step', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await chooseStretch(page, hasTouch, 24, 32);
  await hand.press('button', 'Riser over this');
  await expect(page.getByRole('dialog', { name: 'Riser, 7.1 to 9.1' })).toBeVisible();
  await hand.press('radio', 'the track');
  await hand.press('switch', 'Space that grows');
  await hand.press('switch', 'Widens');
  await hand.press('radio', 'into reverb');
  await hand.press('button', 'Make Riser');
  await expect(page.getByText(/^Riser made/)).toBeVisible({ timeout: 30_000 });
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.tracks.some(({ name }) => name === 'Riser'));
  const riser = piece.tracks.find(({ name }) => name === 'Riser')!;
  expect(riser.chain.map(({ effect }) => effect)).toEqual(['filter', 'width', 'reverb']);
  expect(piece.lanes.map(({ target }) => ('param' in target ? target.param : target.kind)).sort()).toEqual([
    'cutoff',
    'gain',
    'mix',
    'side',
  ]);
  const alone = { ...piece, tracks: piece.tracks.map((track) => ({ ...track, solo: track.id === riser.id })) };
  const { left } = await rendered(page, alone, 24, 36);
  const beat = (60 / 92) * piece.sampleRate;
  const level = (from: number, to: number): number => powerDb(left, Math.round(from * beat), Math.round(to * beat));
  for (const from of [0, 2, 4]) expect(level(from + 2, from + 4)).toBeGreaterThan(level(from, from + 2) + 1);
  // The space rings on past the bar line, well below, and dies away.
  expect(level(9, 10)).toBeLessThan(level(7, 8) - 6);
  expect(level(9, 10)).toBeGreaterThan(level(11, 12));
  await hand.press('button', /^Undo: Riser/);
  await saved(
    page,
    pieceId,
    (stored) => stored.piece.lanes.length === 0 && stored.piece.tracks.every(({ name }) => name !== 'Riser'),
  );
});
