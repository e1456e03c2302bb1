import { beatsToSamples } from '../src/core/music/tempo';
import { peakFrame } from '../src/core/recipes/reverseSwell';
import { expect, rendered, saved, test } from './fixtures';

test('J7: reverse swells grow into picked hits, on a track of their own, and one undo takes them away', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.press('button', 'Clip Crates, all hands');
  await hand.press('button', 'Swells into hits of this track');
  await hand.press('button', 'Pick the last of 4 bars');
  await hand.press('radio', '2 beats');
  await hand.press('radio', 'plate');
  await hand.press('button', 'Hear the first swell');
  await hand.press('button', 'Stop the first swell');
  await expect(page.getByRole('button', { name: 'Hear the first swell' })).toBeVisible();
  await hand.press('button', 'Make 4 swells');
  await expect(page.getByText(/4 swells made, on a track of their own\./)).toBeVisible({ timeout: 60_000 });
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some(({ name }) => name === 'Crates, swells'),
  );
  const swells = piece.tracks.find(({ name }) => name === 'Crates, swells')!;
  expect(swells.clips).toHaveLength(4);
  const alone = { ...piece, tracks: piece.tracks.map((track) => ({ ...track, solo: track.id === swells.id })) };
  for (const clip of swells.clips) {
    expect(clip.reversed).toBe(true);
    const { left, right } = await rendered(page, alone, clip.start, clip.start + 3);
    // It ends eight milliseconds past the hit that it grows into.
    const hit = Math.round((clip.lengthSeconds - 0.008) * piece.sampleRate);
    expect(Math.abs(peakFrame([left, right], piece.sampleRate) - hit)).toBeLessThanOrEqual(0.002 * piece.sampleRate);
    expect(beatsToSamples(clip.start, piece.tempo, piece.sampleRate)).toBeGreaterThan(0);
  }
  await hand.press('button', /^Undo: Make 4 swells/);
  await saved(page, pieceId, (stored) => stored.piece.tracks.every(({ name }) => name !== 'Crates, swells'));
});
