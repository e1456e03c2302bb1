import { beatsToSamples } from '../src/core/music/tempo';
import { expect, farthest, go, printAndDownload, saved, soundNamed, test, typeInto } from './fixtures';

test('J12: a clip is printed while the piece plays, placed at the sample it came from, and all of it survives a reload', async ({
  page,
  pieceId,
}) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Call across the water' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const printed = await printAndDownload(page, 'Hum, answer', 'Wet and dry', '4 bars');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('button', { name: /^Place Hum, answer/ }).click();
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.tracks.length === 6);
  const [print] = piece.prints;
  const placed = piece.tracks[5]!;
  expect(placed).toMatchObject({
    name: 'Prints of Humming voice',
    gain: 0.55,
    clips: [{ print: print!.id, sound: print!.sound }],
  });
  expect(beatsToSamples(placed.clips[0]!.start, piece.tempo, 48_000)).toBe(print!.startSample);
  expect(print!.startSample).toBe(beatsToSamples(24, piece.tempo, 48_000));
  const { frames } = Object.values(piece.sounds).find((sound) => sound.name === 'Hum, answer')!;
  expect(Math.abs(printed.channels[0]!.length - frames - (16 * 60 * 48_000) / 92)).toBeLessThan(2);
  await page.reload();
  await expect(page.getByRole('group', { name: /^Print Hum, answer/ })).toBeVisible();
  await go(page, 'Piece');
  await expect(page.getByRole('button', { name: /^Print Hum, answer/ })).toBeVisible();
  expect(farthest((await soundNamed(page, piece, print!.name)).channels[0]!, printed.channels[0]!)).toBe(0);

  await go(page, 'Chain');
  await page.getByRole('button', { name: /^Open Echo/ }).click();
  await typeInto(page, 'Feedback', '0 %');
  await go(page, 'Shelf');
  await page.getByRole('button', { name: /^Print Hum, answer.* again$/ }).click();
  await expect(page.getByText(/is made again; where it was placed, it follows/)).toBeVisible({ timeout: 60_000 });
  const again = (await saved(page, pieceId, (stored) => stored.piece.prints[0]?.sound !== print!.sound)).piece;
  expect(again.prints).toHaveLength(1);
  expect(again.tracks[5]!.clips[0]).toMatchObject({
    print: print!.id,
    sound: again.prints[0]!.sound,
    start: placed.clips[0]!.start,
  });
  expect(again.tracks.slice(0, 5)).toEqual(
    piece.tracks
      .slice(0, 5)
      .map((track) => ({ ...track, chain: again.tracks.find(({ id }) => id === track.id)!.chain })),
  );
});

test('a stretch chosen on the ruler is printed; a print on its way shows progress and can be stopped', async ({
  page,
  pieceId,
}) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Neutral' }).click();
  await typeInto(page, 'Feedback', '110 %');
  await go(page, 'Piece');
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  await ruler.focus();
  for (let i = 0; i < 8; i += 1) await page.keyboard.press('ArrowRight');
  for (let i = 0; i < 4; i += 1) await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('toolbar', { name: 'Selection' })).toContainText('3.1 to 4.1, Humming voice');
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByRole('button', { name: 'Start the print' }).click();
  await go(page, 'Shelf');
  await expect(page.getByRole('progressbar', { name: /^Printing Humming voice/ })).toBeVisible();
  await page.getByRole('button', { name: /^Stop printing/ }).click();
  await expect(page.getByText('The print was stopped. Nothing was changed.')).toBeVisible();
  const stopped = await saved(page, pieceId);
  expect(stopped.piece.prints).toEqual([]);

  await go(page, 'Piece');
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByRole('radio', { name: 'Rings: cut at the end' }).click();
  await page.getByRole('button', { name: 'Start the print' }).click();
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  expect(piece.prints[0]).toMatchObject({
    startSample: beatsToSamples(8, piece.tempo, 48_000),
    from: { clip: null, fromBeat: 8, toBeat: 12 },
  });
  expect(piece.sounds[piece.prints[0]!.sound]!.frames).toBe(
    beatsToSamples(12, piece.tempo, 48_000) - beatsToSamples(8, piece.tempo, 48_000),
  );
});
