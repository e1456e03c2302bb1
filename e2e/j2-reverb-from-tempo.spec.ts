import { decaySeconds } from '../src/core/analysis/decay';
import { expect, powerDb, printAndDownload, saved, soundNamed, test, typeInto } from './fixtures';

test('J2: a decay found from the tempo by halving, cuts on the tail, and the tail falls as set', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Reverb', 'Neutral');
  const decay = page.getByRole('slider', { name: 'Decay', exact: true });
  await hand.press('radio', 'Decay: half · 1.3 s');
  await expect(decay).toHaveAttribute('aria-valuetext', 'half · 1.3 s');
  await hand.press('button', 'Decay: double');
  await hand.press('button', 'Decay: half');
  await expect(page.getByRole('radio', { name: 'Decay: half · 1.3 s' })).toBeChecked();
  await hand.press('radio', 'Pre-delay: sixty-fourth · 40.8 ms');
  await expect(
    page.getByRole('img', { name: /^Decay: set 1.30 s · measured 1\.[23]\d s\. Begins after 41 ms/ }),
  ).toBeVisible();
  await hand.section('Tone');
  await typeInto(page, 'Low cut', '400 Hz');
  await typeInto(page, 'High cut', '6 kHz');

  const printed = await printAndDownload(page, 'Hum, answer', 'Wet only', '2 bars');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  const dry = (await soundNamed(page, piece, 'Hum, answer')).channels[0]!;
  const start = dry.findIndex((x) => Math.abs(x) > 1e-3);
  const preDelay = Math.round((60 / 92 / 16) * 48_000);
  expect(printed.channels[0]!.subarray(0, start + preDelay - 64).every((x) => Math.abs(x) < 1e-3)).toBe(true);
  // Once the voice has stopped, what is left falls by 60 dB in 1.304 s.
  const end = dry.length + preDelay + 960;
  const tail = printed.channels.map((side) => Float64Array.from(side.subarray(end)));
  expect(powerDb(printed.channels[0]!, end, end + 4800)).toBeGreaterThan(-110);
  expect(Math.abs(decaySeconds(tail, 48_000, -3, -28) / 1.304 - 1)).toBeLessThan(0.12);
});
