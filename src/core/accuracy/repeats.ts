import { arrival, db, impulse, runWet, sine, type Stereo } from '../effects/testing';
import { apart, worst, type Accuracy } from './measure';

const RATE = 48_000;

/** Frequency of a steady tone in Hz, by the drift of its phase over a second. */
export function toneHz(samples: Float64Array, near: number, from: number, to: number, sampleRate = RATE): number {
  const phase = (at: number, length: number): number => {
    let re = 0;
    let im = 0;
    for (let i = at; i < at + length; i += 1) {
      const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * (i - at)) / length);
      re += samples[i]! * window * Math.cos((2 * Math.PI * near * i) / sampleRate);
      im -= samples[i]! * window * Math.sin((2 * Math.PI * near * i) / sampleRate);
    }
    return Math.atan2(im, re);
  };
  const hop = 2400;
  let turned = 0;
  let count = 0;
  for (let at = from; at + 2 * hop < to; at += hop, count += 1) {
    let step = phase(at + hop, hop) - phase(at, hop);
    step -= 2 * Math.PI * Math.round(step / (2 * Math.PI));
    turned += step;
  }
  return near + ((turned / count) * sampleRate) / (2 * Math.PI * hop);
}

const echoRepeats = (pick: (found: { gain: number; at: number }, n: number) => number): number => {
  const out = runWet('echo', { timeL: '1/8d', feedback: 0.5 }, { bpm: 90, seconds: 2.8, input: impulse });
  return worst([1, 2, 3, 4, 5].map((n) => pick(arrival(out.left, n * 24_000), n)));
};

const tapsOut = (named: Readonly<Record<string, number | string | boolean>>): Stereo =>
  runWet(
    'taps',
    {
      count: 4,
      time1: 100,
      time2: 212.5,
      time3: 333,
      time4: 480,
      level1: 0.9,
      level2: 0.5,
      level3: 0.7,
      level4: 0.3,
      pan2: -0.6,
      pan3: 0.25,
      ...named,
    },
    { seconds: 0.7, input: impulse },
  );

const TAP_TIMES = [4800, 10_200, 15_984, 23_040];
const TAP_LEFT = [0.9, 0.5, 0.7 * 0.75, 0.3];
const TAP_RIGHT = [0.9, 0.5 * 0.4, 0.7, 0.3];

function detuneError(cents: number): number {
  const hz = 1000;
  const out = runWet('doubling', { voices: 1, detune: cents, time: 20 }, { seconds: 3, input: sine(hz, 0.4) });
  // Where the second head hands over to the first, two phases meet: between those moments the pitch is constant.
  const found = toneHz(out.left, hz * Math.pow(2, cents / 1200), 12_000, 140_000);
  return 1200 * Math.log2(found / hz) - cents;
}

/** Deepest dip of a steady tone below its highest level in twelve seconds of a detuned take, in dB. */
function doublingDip(cents: number, hz: number, sampleRate: number): number {
  const { left } = runWet(
    'doubling',
    { voices: 1, detune: cents, time: 20, drift: 0 },
    { sampleRate, seconds: 12, input: sine(hz, 0.4, sampleRate) },
  );
  const span = Math.round(sampleRate * Math.max(0.01, 2 / hz));
  let [least, most] = [Infinity, 0];
  for (let at = sampleRate; at + span < left.length; at += span >> 1) {
    const power = left.subarray(at, at + span).reduce((sum, x) => sum + x * x, 0);
    least = Math.min(least, power);
    most = Math.max(most, power);
  }
  return 10 * Math.log10(most / least);
}

export const repeatPromises: readonly Accuracy[] = [
  {
    effect: 'Echo',
    promise: 'repeat n falls on n x time',
    unit: 'samples',
    limit: 0.01,
    measure: () => echoRepeats(({ at }, n) => at - n * 24_000),
  },
  {
    effect: 'Echo',
    promise: 'repeat n is feedback^n',
    unit: 'dB',
    limit: 0.1,
    measure: () => echoRepeats(({ gain }, n) => db(gain) - (n - 1) * db(0.5)),
  },
  {
    effect: 'Echo',
    promise: 'ping-pong alternates sides: the other side is silent',
    unit: 'of full scale',
    limit: 1e-9,
    measure: () => {
      const out = runWet('echo', { timeL: 100, feedback: 0.5, routing: 'pingpong' }, { seconds: 0.5, input: impulse });
      return worst([out.right[4800]!, out.left[9600]!, out.right[14_400]!, out.left[19_200]!]);
    },
  },
  {
    effect: 'Echo',
    promise: '120 % for a minute stays under its guard (1.52)',
    unit: 'over',
    limit: 1.52,
    measure: () =>
      worst([
        ...runWet(
          'echo',
          { timeL: 250, feedback: 1.2 },
          { seconds: 60, input: (i) => (i < 20_000 ? 0.8 * Math.sin(i * 0.05) : 0) },
        ).left.filter((_, i) => i % 7 === 0),
      ]),
  },
  {
    effect: 'Taps',
    promise: 'every tap in its place',
    unit: 'samples',
    limit: 0.01,
    measure: () => {
      const out = tapsOut({});
      return worst(TAP_TIMES.map((at) => arrival(out.left, at).at - at));
    },
  },
  {
    effect: 'Taps',
    promise: 'every tap at its level on both sides',
    unit: 'dB',
    limit: 0.1,
    measure: () => {
      const out = tapsOut({});
      return worst(
        TAP_TIMES.flatMap((at, i) => [
          db(arrival(out.left, at).gain / TAP_LEFT[i]!),
          db(arrival(out.right, at).gain / TAP_RIGHT[i]!),
        ]),
      );
    },
  },
  {
    effect: 'Taps',
    promise: 'stretch, swing and rise move them as they say',
    unit: 'samples and dB',
    limit: 0.1,
    measure: () => {
      const out = tapsOut({
        stretch: 0.5,
        swing: 0.4,
        rise: -12,
        level1: 1,
        level2: 1,
        level3: 1,
        level4: 1,
        pan2: 0,
        pan3: 0,
      });
      const times = [2400, 5100 + 0.2 * 2700, 7992, 11_520 + 0.2 * 3528];
      return worst(
        times.flatMap((at, i) => {
          const found = arrival(out.left, at);
          return [found.at - at, db(found.gain) + 4 * i];
        }),
      );
    },
  },
  {
    effect: 'Doubling',
    promise: 'detune of 10 and 35 cents',
    unit: 'cents',
    limit: 1,
    measure: () => worst([10, 35].map(detuneError)),
  },
  {
    effect: 'Doubling',
    promise: 'a detuned take of a tone never dips, 41 Hz to 6.1 kHz',
    unit: 'dB',
    limit: 3,
    measure: () =>
      worst(
        [
          [12, 41, 44_100],
          [35, 82, 48_000],
          [-20, 311, 44_100],
          [50, 997, 48_000],
          [12, 2500, 44_100],
          [35, 6100, 48_000],
        ].map(([cents, hz, rate]) => doublingDip(cents!, hz!, rate!)),
      ),
  },
  {
    effect: 'Side delay',
    promise: 'the later side is later by exactly so many samples',
    unit: 'samples',
    limit: 0.01,
    measure: () =>
      worst(
        [2, 13.3, 60].map((time) => {
          const out = runWet('sideDelay', { time }, { seconds: 0.1, input: impulse });
          return arrival(out.right, time * 48).at - time * 48 + (out.left[0]! - 1);
        }),
      ),
  },
  {
    effect: 'Side delay',
    promise: 'mono-safe: the sum is the sound as it was',
    unit: 'of full scale',
    limit: 1e-9,
    measure: () => {
      const tone = sine(700, 0.5);
      const out = runWet('sideDelay', { time: 22, monoSafe: true }, { seconds: 0.2, input: tone });
      return apart(
        out.left.map((x, i) => x + out.right[i]!),
        Float64Array.from(out.left, (_, i) => 2 * tone(i)),
      );
    },
  },
];
