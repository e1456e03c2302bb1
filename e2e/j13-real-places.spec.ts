import { decaySeconds, octaveBand } from '../src/core/analysis/decay';
import { fromRecording } from '../src/core/impulses/recording';
import { roomImpulse } from '../src/core/impulses/room';
import { STAND_IN_ROOM } from '../src/core/impulses/standIn';
import { makeImpulse } from '../src/core/impulses/make';
import { expect, printAndDownload, saved, soundNamed, test, typeInto } from './fixtures';

/**
 * Direct convolution at some places, compared with what was printed: the largest difference against the largest value.
 */
function differsBy(printed: Float32Array, dry: Float32Array, impulse: Float32Array, gain: number): number {
  let most = 0;
  let error = 0;
  for (let n = 1000; n < Math.min(printed.length, dry.length); n += 4999) {
    let sum = 0;
    for (let k = 0; k <= Math.min(n, impulse.length - 1); k += 1) sum += impulse[k]! * dry[n - k]!;
    most = Math.max(most, Math.abs(sum));
    error = Math.max(error, Math.abs(sum - printed[n]! / gain));
  }
  return error / most;
}

test('J13: a place of the library, a described room, and a sound of the piece as a place', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Convolver', 'Neutral');
  await hand.press('radio', 'Salt cistern');
  await expect(page.getByRole('img', { name: /^Impulse of \d.* decay \d/ })).toBeVisible();
  // Quiet enough that the guard at the end has nothing to do.
  await hand.section('Mix');
  await typeInto(page, 'Wet', '-20 dB');
  const first = await printAndDownload(page, 'Hum, answer', 'Wet only', '2 bars');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  const dry = (await soundNamed(page, piece, 'Hum, answer')).channels[0]!;
  const shape = { startSeconds: 0, lengthSeconds: 8, fade: 0.2, decayScale: 1, reverse: false, sampleRate: 48_000 };
  const cistern = makeImpulse({ ...shape, source: { kind: 'library', id: 'saltCistern' } }, new Map())!;
  expect(differsBy(first.channels[0]!, dry, cistern.left, 0.1)).toBeLessThan(1e-4);

  await hand.view('Chain');
  await hand.section('Place');
  await hand.press('radio', 'described room');
  await hand.section('Room');
  await typeInto(page, 'Depth', '24 m');
  await expect(page.getByRole('img', { name: /^Room of 7.0 by 24.0 by 4.0 metres/ })).toBeVisible();

  await hand.section('Place');
  await hand.press('radio', 'own sound');
  // A swept place, by the room that stands in for a microphone: its decay is that room's.
  await hand.press('button', 'Record a place');
  await hand.press('radio', 'Input: Stand-in room');
  await hand.press('button', 'Play a sweep and record it');
  await expect(page.getByRole('img', { name: /^What was found, \d/ })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('textbox', { name: 'Name of the place' }).fill('Swept shed');
  await hand.press('button', 'Ring in it');
  await expect(page.getByRole('button', { name: /^Own sound: Swept shed/ })).toBeVisible();
  const { piece: swept } = await saved(page, pieceId, (stored) =>
    Object.values(stored.piece.sounds).some((sound) => sound.name === 'Swept shed'),
  );
  const place = fromRecording(
    {
      left: (await soundNamed(page, swept, 'Swept shed')).channels[0]!,
      right: (await soundNamed(page, swept, 'Swept shed')).channels[1]!,
    },
    48_000,
  );
  const decay = (samples: Float32Array): number => decaySeconds([octaveBand(samples, 1000, 48_000)], 48_000, -5, -25);
  expect(decay(place.left) / decay(roomImpulse(STAND_IN_ROOM, 48_000).left)).toBeCloseTo(1, 1);

  await hand.press('button', /^Own sound: Swept shed/);
  await hand.press('radio', 'Ring in Hum, answer');
  await hand.section('Shape');
  await typeInto(page, 'Length', '300 ms');
  // A voice through itself rings at its own pitch, some forty times as loud.
  await hand.section('Mix');
  await typeInto(page, 'Wet', '-60 dB');
  const own = await printAndDownload(page, 'Hum, answer', 'Wet only', '1 bar');
  const self = makeImpulse(
    { ...shape, lengthSeconds: 0.3, source: { kind: 'sound', hash: 'hum' } },
    new Map([['hum', [dry]]]),
  )!;
  expect(differsBy(own.channels[0]!, dry, self.left, 0.001)).toBeLessThan(1e-4);
});
