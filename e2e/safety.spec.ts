import { newSlot } from '../src/core/piece/edits/chain';
import { beatShown, expect, go, saved, test, typeInto } from './fixtures';

test('feedback over 100 % is held by the guard, which says so while it acts', async ({ page, pieceId: _open }) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Neutral' }).click();
  await typeInto(page, 'Time', '60 ms');
  await typeInto(page, 'Feedback', '120 %');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Guard holds a loop from running away' })).toBeVisible({
    timeout: 30_000,
  });
  await typeInto(page, 'Feedback', '30 %');
  await expect(page.getByText('Guard holds a loop from running away')).toBeHidden();
});

test('when the audio thread falls behind a counter shows it, and sound goes on by itself when the load is gone', async ({
  page,
  pieceId,
}) => {
  const { piece, revision } = await saved(page, pieceId);
  const hum = piece.tracks.find((track) => track.id === 'hum')!;
  const heavy = Array.from({ length: 12 }, (_, t) => ({
    ...hum,
    id: `h${t}`,
    name: `Choir ${t}`,
    gain: 0.05,
    clips: hum.clips.map((clip, i) => ({ ...clip, id: `h${t}-${i}`, start: i * 10 })),
    chain: Array.from({ length: 8 }, (__, s) => newSlot(`h${t}-e${s}`, 'echo', 'wornReel')),
  }));
  await page.request.put(`/api/pieces/${pieceId}`, {
    headers: { 'If-Match': `"${revision}"` },
    data: {
      saveId: 'heavy',
      piece: { ...piece, tracks: [...piece.tracks, ...heavy] },
      history: { from: 0, entries: [], cursor: 0 },
    },
  });
  await page.reload();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByText(/Sound fell behind \d+ times?/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await go(page, 'Shelf');
  await page.getByRole('radio', { name: 'Salt Pier', exact: true }).first().click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(() => beatShown(page), { timeout: 30_000 }).toBeGreaterThan(1);
});
