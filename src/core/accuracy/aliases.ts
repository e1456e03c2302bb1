import { powerSpectrum } from '../analysis/spectrum';
import { CURVES } from '../effects/drive/params';
import { runWet } from '../effects/testing';
import { blackmanHarris, type Accuracy } from './measure';

const RATES = [44_100, 48_000, 96_000];
const TONES_HZ = [997, 4871, 9973];
const HEARD_FROM_HZ = 30;
const HEARD_TO_HZ = 20_000;
const DRIVE_DB = 18;
const FRAMES = 32_768;
/** The window's main lobe ends after four bins; its side lobes are at -92 dB. */
const NEAR_BINS = 6;

/** Level of the loudest inharmonic tone up to 20 kHz over -70 dB relative to the driven tone. */
function aliasOver(curve: string, hz: number, sampleRate: number): number {
  const input = (i: number): number => 0.5 * Math.sin((2 * Math.PI * hz * i) / sampleRate);
  const values = { curve, drive: DRIVE_DB, oversampling: '8', match: false };
  const { left } = runWet('drive', values, { seconds: 0.2 + FRAMES / sampleRate, sampleRate, input });
  const power = powerSpectrum(left.slice(left.length - FRAMES).map((x, i) => x * blackmanHarris(i, FRAMES)));
  const bin = sampleRate / FRAMES;
  let [tone, alias] = [0, 0];
  power.forEach((each, k) => {
    const order = Math.round((k * bin) / hz);
    const isHarmonic = Math.abs(k * bin - order * hz) < NEAR_BINS * bin;
    if (isHarmonic && order === 1) tone = Math.max(tone, each);
    if (!isHarmonic && k * bin > HEARD_FROM_HZ && k * bin < HEARD_TO_HZ) alias = Math.max(alias, each);
  });
  return 10 * Math.log10(alias / tone) + 70;
}

export const aliasPromises: readonly Accuracy[] = CURVES.map((curve) => ({
  effect: 'Drive',
  promise: `${curve} at 8 times the rate, driven by 18 dB at 44.1, 48 and 96 kHz: aliases up to 20 kHz over -70 dB`,
  unit: 'dB',
  limit: 0,
  measure: () => Math.max(...RATES.flatMap((rate) => TONES_HZ.map((hz) => aliasOver(curve, hz, rate)))),
}));
