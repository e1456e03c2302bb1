import { expect, powerDb, rendered, saved, test } from './fixtures';
import type { Clip, Piece } from '../src/core/piece/piece';
import { powerSpectrum } from '../src/core/analysis/spectrum';

const clipNamed = (piece: Piece, name: string): Clip =>
  piece.tracks.flatMap(({ clips }) => clips).find((clip) => clip.name === name)!;

/** The loudest tone between two frequencies of what the track plays over some beats, in Hz. */
async function toneOf(
  page: Parameters<typeof rendered>[0],
  piece: Piece,
  track: string,
  from: number,
  to: number,
): Promise<number> {
  const { left } = await rendered(
    page,
    { ...piece, tracks: piece.tracks.map((one) => ({ ...one, solo: one.id === track })) },
    from,
    to,
  );
  const size = 65_536;
  const power = powerSpectrum(
    Float64Array.from({ length: size }, (_, i) => (left[i] ?? 0) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))),
  );
  const bins = [
    ...power.slice(Math.round((60 * size) / piece.sampleRate), Math.round((2000 * size) / piece.sampleRate)),
  ];
  return ((bins.indexOf(Math.max(...bins)) + Math.round((60 * size) / piece.sampleRate)) * piece.sampleRate) / size;
}

test('J12: a clip is treated in place, its steps switched and taken off later; the source stays as it was', async ({
  page,
  pieceId,
  hand,
}) => {
  const before = clipNamed((await saved(page, pieceId)).piece, 'Hum, answer');
  await hand.press('button', 'Clip Hum, answer');
  await hand.press('button', 'Treat this clip …');
  await hand.press('button', 'Add pitch and length');
  const pitch = page.getByRole('slider', { name: 'Pitch', exact: true });
  await pitch.focus();
  for (let i = 0; i < 7; i += 1) await page.keyboard.press('ArrowRight');
  await expect(pitch).toHaveAttribute('aria-valuetext', /\+7 st/);
  await hand.press('button', 'Add an effect');
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('Red iron');
  await hand.press('button', 'Treat with Drive: Red iron');
  await expect(page.getByRole('group', { name: 'Step 2: Drive' })).toBeVisible();
  await hand.press('button', 'Treat this clip');
  await expect(page.getByText(/Hum, answer treated. The source is untouched/)).toBeVisible({ timeout: 60_000 });
  const { piece } = await saved(
    page,
    pieceId,
    (stored) => clipNamed(stored.piece, 'Hum, answer').treated !== undefined,
  );
  const treated = clipNamed(piece, 'Hum, answer');
  expect(treated.treated).toMatchObject({
    sound: before.sound,
    offsetSeconds: before.offsetSeconds,
    lengthSeconds: before.lengthSeconds,
    steps: [
      { kind: 'stretch', semitones: 7 },
      { kind: 'chain', name: 'Drive' },
    ],
  });
  expect(treated.sound).not.toBe(before.sound);
  expect(piece.tracks.find(({ clips }) => clips.includes(treated))!.chain).toEqual([]);
  const { id: track } = piece.tracks.find(({ clips }) => clips.includes(treated))!;
  const plain: Piece = {
    ...piece,
    tracks: piece.tracks.map((one) => ({
      ...one,
      clips: one.clips.map((clip) => (clip.id === before.id ? before : clip)),
    })),
  };
  const cents =
    1200 * Math.log2((await toneOf(page, piece, track, 24.5, 26.5)) / (await toneOf(page, plain, track, 24.5, 26.5)));
  // The loudest tone may be another of the voice's: up a fifth, by as many whole harmonics as it may be.
  expect([700, 700 + 1200, 700 - 1200, 700 + 702, 700 - 702].some((wanted) => Math.abs(cents - wanted) < 15)).toBe(
    true,
  );

  await hand.press('button', 'Treat this clip …');
  await hand.press('switch', 'Step 1 on');
  await hand.press('button', 'Treat this clip');
  const off = (
    await saved(page, pieceId, (stored) => clipNamed(stored.piece, 'Hum, answer').treated?.steps[0]?.on === false)
  ).piece;
  expect(
    Math.abs(
      1200 * Math.log2((await toneOf(page, off, track, 24.5, 26.5)) / (await toneOf(page, plain, track, 24.5, 26.5))),
    ),
  ).toBeLessThan(15);

  await hand.press('button', 'Treat this clip …');
  await hand.press('button', 'Take step 2 off');
  await hand.press('button', 'Take step 1 off');
  await hand.press('button', 'Treat this clip');
  const back = (await saved(page, pieceId, (stored) => clipNamed(stored.piece, 'Hum, answer').treated === undefined))
    .piece;
  expect(clipNamed(back, 'Hum, answer')).toEqual(before);
});

test('J14: an octave under the voice, its throat kept, on a track of its own; one undo takes it away', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.press('button', 'Clip Hum, answer');
  await hand.press('button', 'Recipes for this');
  await hand.press('button', 'Octave layer …');
  await hand.press('button', 'Surprise me');
  await hand.press('button', 'As it was at first');
  await hand.press('button', 'Make Octave layer');
  await expect(page.getByText(/Octave layer made/)).toBeVisible({ timeout: 30_000 });
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.tracks.length === 6);
  const [voice, layer] = [piece.tracks.find(({ name }) => name === 'Humming voice')!, piece.tracks[5]!];
  expect(layer).toMatchObject({
    name: 'Humming voice, layer',
    chain: [{ effect: 'pitch', values: { semitones: -12, formants: 'keep' } }],
  });
  const { left: under } = await rendered(
    page,
    { ...piece, tracks: piece.tracks.map((one) => ({ ...one, solo: one.id === layer.id })) },
    24,
    28,
  );
  expect(powerDb(under, 20_000, 90_000)).toBeGreaterThan(-50);
  // What repeats in the voice repeats half as often under it: half the voice's pitch is there, where the voice itself
  // has nothing.
  const { left: above } = await rendered(
    page,
    { ...piece, tracks: piece.tracks.map((one) => ({ ...one, solo: one.id === voice.id })) },
    24,
    28,
  );
  const periodOf = (samples: Float32Array): number => {
    const at = (lag: number): number => {
      let sum = 0;
      for (let i = 40_000; i < 60_000; i += 2) sum += samples[i]! * samples[i + lag]!;
      return sum;
    };
    const first = at(0);
    for (let lag = 60; lag < 1600; lag += 1)
      if (at(lag) > 0.8 * first && at(lag) > at(lag - 1) && at(lag) >= at(lag + 1)) return lag;
    return 0;
  };
  expect(periodOf(under) / periodOf(above)).toBeCloseTo(2, 1);
  await hand.press('button', /^Undo: Octave layer/);
  await saved(page, pieceId, (stored) => stored.piece.tracks.length === 5);
});
