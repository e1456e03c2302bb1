import { readWav } from '../src/core/formats/readWav';
import { readFile } from 'node:fs/promises';
import { beatsToSamples } from '../src/core/music/tempo';
import { tempoOf } from '../src/core/piece/tempoOf';
import { expect, farthest, saved, soundNamed, test, typeInto } from './fixtures';

test('J6: the tempo is moved: clips keep their beats, and an echo in eighths is as long as an eighth is there', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  await typeInto(page, 'Time', '1/4');
  await hand.section('Mix');
  await typeInto(page, 'Wet', '0 dB');
  await hand.press('button', 'Tempo 92 BPM');
  await page.getByRole('textbox', { name: 'BPM from here on' }).fill('48');
  await hand.press('radio', 'Change over at once');
  await hand.press('button', 'Change the tempo from here on');
  await expect(page.getByRole('button', { name: 'Tempo, which moves' })).toContainText('48');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1);
  expect(piece.lanes[0]!.target).toEqual({ kind: 'tempo' });

  await hand.view('Piece');
  await hand.press('button', 'Clip Hum, answer');
  await hand.press('button', 'Print');
  await hand.press('radio', 'Wet only');
  await hand.press('radio', 'Rings: 1 bar');
  await hand.press('button', 'Start the print');
  const stored = await saved(page, pieceId, (now) => now.piece.prints.length === 1);
  const print = stored.piece.prints[0]!;
  const clip = piece.tracks[1]!.clips.find(({ name }) => name === 'Hum, answer')!;
  expect(print.startSample).toBe(beatsToSamples(clip.start, tempoOf(stored.piece), 48_000));
  expect(print.startSample).toBe(Math.round((clip.start * 60 * 48_000) / 48));
  await hand.view('Shelf');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: /as 32 float WAV/ })
      .first()
      .click(),
  ]);
  const wet = readWav(await readFile((await download.path())!)).channels[0]!;
  // Nothing comes back before a quarter at 48 BPM is over.
  const quarter = Math.round((60 * 48_000) / 48);
  expect(wet.subarray(0, quarter - 64).every((x) => Math.abs(x) < 1e-6)).toBe(true);
  const dry = (await soundNamed(page, piece, 'Hum, answer')).channels[0]!.subarray(0, quarter - 64);
  expect(
    farthest(
      wet.subarray(quarter, quarter + dry.length),
      dry.map((x) => x * clip.gain),
    ),
  ).toBeLessThan(1e-4);

  await hand.press('button', 'Tempo, which moves');
  await hand.press('button', 'One tempo for the whole piece');
  await expect(page.getByRole('button', { name: 'Tempo 92 BPM' })).toBeVisible();
});
