import { expect, powerDb, rendered, saved, test } from './fixtures';

test('J8: what the voice sang is frozen into a bed that fills the gap after it, and is undone in one step', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.press('button', 'Gaps of the piece');
  await hand.press('button', /^Choose the gap 5\.2 to 7\.1, Humming voice/);
  await hand.press('button', 'Bed over this');
  await expect(page.getByRole('dialog', { name: 'Frozen bed, 5.2 to 7.1' })).toBeVisible();
  await hand.press('radio', 'cloud');
  await hand.press('radio', 'in over a beat');
  await hand.press('button', 'Make Frozen bed');
  await expect(page.getByText(/Frozen bed made/)).toBeVisible({ timeout: 60_000 });
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some(({ name }) => name === 'Bed of Humming voice'),
  );
  const bed = piece.tracks.find(({ name }) => name === 'Bed of Humming voice')!;
  const alone = { ...piece, tracks: piece.tracks.map((track) => ({ ...track, solo: track.id === bed.id })) };
  const { left } = await rendered(page, alone, 14, 28);
  const beat = (60 / 92) * piece.sampleRate;
  const level = (from: number, to: number): number =>
    powerDb(left, Math.round((from - 14) * beat), Math.round((to - 14) * beat));
  expect(level(14, 17)).toBeLessThan(-150);
  expect(level(18.5, 21)).toBeGreaterThan(-50);
  expect(Math.abs(level(18.5, 21) - level(21, 23.5))).toBeLessThan(2);
  expect(level(24.01, 28)).toBeLessThan(-150);
  await hand.press('button', /^Undo: Frozen bed/);
  await saved(page, pieceId, (stored) => stored.piece.tracks.every(({ name }) => name !== bed.name));
});
