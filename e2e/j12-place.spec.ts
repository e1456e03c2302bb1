import { expect, farthest, rendered, saved, test } from './fixtures';

test('J12: a print takes the place of its clip and sounds as that did; one undo gives the clip back', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Echo', 'Call across the water');
  await hand.view('Piece');
  await hand.press('button', 'Clip Hum, answer');
  await hand.press('button', 'Print');
  for (const name of ['Wet and dry', 'Rings: 4 bars', 'Goes there, instead of the clip'])
    await hand.press('radio', name);
  const live = (await saved(page, pieceId)).piece;
  await hand.press('button', 'Start the print');
  await expect(page.getByText(/is on the Shelf and on “Prints of Humming voice”/)).toBeVisible({ timeout: 60_000 });
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  expect(
    piece.tracks
      .find(({ id }) => id === 'hum')!
      .clips.filter(({ mute }) => mute)
      .map(({ name }) => name),
  ).toEqual(['Hum, answer']);
  const [before, after] = [await rendered(page, live, 24, 40), await rendered(page, piece, 24, 40)];
  expect(farthest(before.left, after.left)).toBeLessThan(1e-6);
  expect(farthest(before.right, after.right)).toBeLessThan(1e-6);
  await hand.press('button', /^Undo: Print Hum, answer/);
  expect((await saved(page, pieceId, (stored) => stored.piece.prints.length === 0)).piece.tracks).toEqual(live.tracks);
});
