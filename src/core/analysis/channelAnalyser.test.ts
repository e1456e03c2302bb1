import fc from 'fast-check';
import { makeRandom } from '../dsp/random';
import { ChannelAnalyser, SPECTRUM_HZ } from './channelAnalyser';
import { MONO_BANDS } from './analysisReport';
import { loudness } from './loudness';

const RATE = 48_000;
const tone = (hz: number, level: number, seconds = 4, shift = 0): Float32Array =>
  Float32Array.from({ length: seconds * RATE }, (_, i) => level * Math.sin((2 * Math.PI * hz * (i - shift)) / RATE));

function analysed(
  before: readonly [Float32Array, Float32Array],
  after: readonly [Float32Array, Float32Array],
): ReturnType<ChannelAnalyser['report']> {
  const analyser = new ChannelAnalyser(RATE);
  const part = (samples: Float32Array, at: number): Float32Array => samples.subarray(at, at + 3072);
  for (let at = 0; at + 3072 <= before[0].length; at += 3072)
    analyser.process([part(before[0], at), part(before[1], at), part(after[0], at), part(after[1], at)], 3072);
  return analyser.report();
}

test('loudness as it goes by is what the whole has by BS.1770, whatever the levels in it', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -60, max: -6 }), { minLength: 2, maxLength: 5 }), (levels) => {
      const random = makeRandom(7);
      const sound = Float32Array.from(
        levels.flatMap((db) => Array.from({ length: RATE * 0.96 }, () => 10 ** (db / 20) * (random() * 2 - 1))),
      );
      const now = analysed([sound, sound], [sound, sound]);
      const whole = loudness([sound, sound], RATE);
      // Past blocks are counted in tenths of a decibel: the relative gate may fall a tenth beside.
      if (whole.integrated > -69) expect(Math.abs(now.integrated - whole.integrated)).toBeLessThan(0.3);
    }),
    { numRuns: 6 },
  );
});

test('a full-scale sine of 997 Hz on both sides is -0 LUFS (within 0.1), and its true peak 0 dB', () => {
  const sine = tone(997, 1);
  const report = analysed([sine, sine], [sine, sine]);
  expect(report.momentary).toBeCloseTo(-0.69 + 0.69, 1);
  expect(report.truePeakDb).toBeCloseTo(0, 1);
});

test('a peak between samples is told', () => {
  const between = Float32Array.from({ length: 2 * RATE }, (_, i) => 0.9 * Math.sin((Math.PI / 2) * i + Math.PI / 4));
  expect(analysed([between, between], [between, between]).truePeakDb).toBeGreaterThan(20 * Math.log10(0.9) - 0.3);
  expect(Math.max(...between)).toBeLessThan(0.64);
});

test('a side half a period late is lost in mono in its band alone', () => {
  const [low, high] = [tone(80, 0.3), tone(1000, 0.3)];
  const left = low.map((x, i) => x + high[i]!);
  const late = tone(1000, 0.3, 4, 24).map((x, i) => x + low[i]!);
  const report = analysed([left, left], [left, late]);
  const loss = Object.fromEntries(MONO_BANDS.map(({ name }, i) => [name, report.monoLossDb[i]!]));
  expect(loss.low).toBeGreaterThan(-0.1);
  expect(loss.mid).toBeLessThan(-30);
  expect(loss.air).toBe(0);
});

test('a third of an octave at 300 Hz that grew by 6 dB is told as low-mid build-up, the rest stays', () => {
  const [mid, high] = [tone(300, 0.1), tone(4000, 0.3)];
  const dry = mid.map((x, i) => x + high[i]!);
  const wet = mid.map((x, i) => 2 * x + high[i]!);
  const report = analysed([dry, dry], [wet, wet]);
  const whole = 10 * Math.log10((0.04 + 0.09) / (0.01 + 0.09));
  expect(report.lowMidDb).toBeCloseTo(6.02 - whole, 1);
  const at = SPECTRUM_HZ.findIndex((hz) => hz > 300);
  expect(report.after[at]! - report.before[at]!).toBeCloseTo(6.02, 0);
  // Both sides of a sine of 0.1: mean power 2 x 0.005.
  expect(Math.max(...report.before.slice(at - 3, at + 3))).toBeCloseTo(10 * Math.log10(0.01), 0);
});

test('silence has no loudness, no image and nothing that grew', () => {
  const none = new Float32Array(RATE);
  const report = analysed([none, none], [none, none]);
  expect(report).toMatchObject({ integrated: -Infinity, correlation: 1, lowMidDb: null, monoLossDb: [0, 0, 0, 0, 0] });
});
