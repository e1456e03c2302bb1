import FFT from 'fft.js';
import { decaySeconds } from '../analysis/decay';
import { makeRandom } from '../dsp/random';
import { imageSources, SPEED_OF_SOUND } from '../dsp/imageSources';
import { impulse, runWet, sine } from '../effects/testing';
import { OCTAVES } from '../impulses/materials';
import { eyringSeconds, roomImpulse, type Room } from '../impulses/room';
import { LIBRARY } from '../impulses/library';
import { makeImpulse } from '../impulses/make';
import { fromRecording } from '../impulses/recording';
import { worst, type Accuracy } from './measure';

const RATE = 48_000;

/** Decaying noise as a custom impulse response. */
function ownImpulse(seconds: number): Float32Array {
  const random = makeRandom(17);
  return Float32Array.from(
    { length: Math.round(seconds * RATE) },
    (_, i) => (random() - 0.5) * Math.exp((-5 * i) / (seconds * RATE)),
  );
}

/** Largest error against a direct sum in dB under the largest value. */
function convolutionError(seconds: number): number {
  const own = ownImpulse(seconds);
  const random = makeRandom(3);
  const input = Float64Array.from({ length: 3 * RATE }, () => random() - 0.5);
  const out = runWet('convolver', { source: 'own', fade: 0 }, { seconds: 3, input: (i) => input[i] ?? 0, own: [own] });
  const { left: used } = makeImpulse(
    {
      source: { kind: 'sound', hash: 'own' },
      startSeconds: 0,
      lengthSeconds: 8,
      fade: 0,
      decayScale: 1,
      reverse: false,
      sampleRate: RATE,
    },
    new Map([['own', [own]]]),
  )!;
  let peak = 0;
  let error = 0;
  for (let n = 5; n < 3 * RATE - 1; n += 577) {
    let sum = 0;
    for (let k = 0; k <= Math.min(n, used.length - 1); k += 1) sum += used[k]! * input[n - k]!;
    peak = Math.max(peak, Math.abs(sum));
    error = Math.max(error, Math.abs(sum - out.left[n]!));
  }
  return 20 * Math.log10(error / peak);
}

/**
 * The inner part of an octave with soft edges, cut out of the spectrum: the slopes of any time-domain filter let a
 * neighbouring octave in, which in a room of carpet rings ten times as long.
 */
function innerOctave(samples: Float32Array, hz: number): Float64Array {
  let size = 1024;
  while (size < samples.length) size *= 2;
  const fft = new FFT(size);
  const padded = new Float64Array(size);
  padded.set(samples);
  const spectrum = fft.createComplexArray();
  fft.realTransform(spectrum, padded);
  for (let k = 0; k <= size / 2; k += 1) {
    const away = Math.abs(Math.log2(Math.max(1, (k * RATE) / size) / hz));
    const weight = away <= 0.2 ? 1 : away >= 0.45 ? 0 : Math.cos((Math.PI * (away - 0.2)) / 0.5) ** 2;
    spectrum[2 * k] = spectrum[2 * k]! * weight;
    spectrum[2 * k + 1] = spectrum[2 * k + 1]! * weight;
  }
  fft.completeSpectrum(spectrum);
  const back = fft.createComplexArray();
  fft.inverseTransform(back, spectrum);
  return Float64Array.from({ length: samples.length }, (_, i) => back[2 * i]!);
}

/** Rooms for which Eyring's formula is valid: similar walls and proportions, no wall fully absorbing. */
const LIVE: Room = {
  box: [7, 9.5, 5.2],
  walls: ['plaster', 'plaster', 'plaster', 'plaster', 'planks', 'plaster'],
  source: [2.1, 2.4, 1.7],
  listener: [4.2, 6.6, 1.6],
  scattering: 0.2,
};
const PANELLED: Room = {
  box: [6, 7.1, 4.4],
  walls: ['panel', 'panel', 'panel', 'panel', 'planks', 'panel'],
  source: [2.1, 2.4, 1.7],
  listener: [4.2, 5.1, 1.6],
  scattering: 0.2,
};

function eyringError(room: Room): number {
  const made = roomImpulse(room, RATE);
  return worst(
    OCTAVES.slice(0, 6).map((hz, octave) => {
      const sides = [innerOctave(made.left, hz), innerOctave(made.right, hz)];
      return 100 * (decaySeconds(sides, RATE) / eyringSeconds(room, octave) - 1);
    }),
  );
}

/** How far the first reflections are from where the images say, in samples: the highest sample near each place. */
function reflectionError(): number {
  const bare: Room = {
    ...LIVE,
    walls: ['concrete', 'concrete', 'concrete', 'concrete', 'concrete', 'concrete'],
    scattering: 0,
  };
  const { left } = roomImpulse(bare, RATE);
  const [x, y, z] = bare.listener;
  const direct = Math.hypot(bare.source[0] - x, bare.source[1] - y, bare.source[2] - z);
  const firsts = imageSources(bare.box, bare.source, [x - 0.09, y, z], 1).slice(1, 4);
  return worst(
    firsts.map(({ distance }) => {
      const at = ((distance - direct) / SPEED_OF_SOUND) * RATE;
      let best = Math.round(at) - 6;
      for (let i = Math.round(at) - 6; i <= Math.round(at) + 6; i += 1)
        if (Math.abs(left[i]!) > Math.abs(left[best]!)) best = i;
      return best - at;
    }),
  );
}

/** Deviation of the sum of mid and side, and of left and right, in separate strands, from the input. */
function braidError(): number {
  const [left, right] = [sine(220, 0.4), sine(331, 0.3)];
  const apart = { level1: 1, level2: 1 };
  return Math.max(
    ...[
      { ...apart, input1: 'mid', input2: 'side' },
      { ...apart, input1: 'left', input2: 'right', pan1: -1, pan2: 1 },
    ].map((values) => {
      const out = runWet('braid', values, { seconds: 0.2, input: left, right });
      return Math.max(
        ...Array.from(out.left, (x, i) => Math.max(Math.abs(x - left(i)), Math.abs(out.right[i]! - right(i)))),
      );
    }),
  );
}

export const placePromises: readonly Accuracy[] = [
  {
    effect: 'Braid',
    promise: 'untouched strands make up the whole: mid and side, left and right',
    unit: 'of full scale',
    limit: 1e-9,
    measure: braidError,
  },
  {
    effect: 'Convolver',
    promise: 'equals a direct convolution, 0.4 s and 2.5 s',
    unit: 'dB under the peak',
    limit: -100,
    measure: () => Math.max(convolutionError(0.4), convolutionError(2.5)),
  },
  {
    effect: 'Impulses',
    promise: 'a clap in a noisy recording: the decay of the known room recovered',
    unit: '%',
    limit: 10,
    measure: () => {
      const random = makeRandom(23);
      const known = roomImpulse(LIVE, RATE).left;
      const recorded = Float32Array.from(
        { length: 5 * RATE },
        (_, i) => 2e-4 * (random() - 0.5) + (known[i - 31_000] ?? 0),
      );
      const { left } = fromRecording({ left: recorded, right: recorded }, RATE);
      return worst([
        100 *
          (decaySeconds([innerOctave(left, 1000)], RATE, -5, -25) /
            decaySeconds([innerOctave(known, 1000)], RATE, -5, -25) -
            1),
      ]);
    },
  },
  {
    effect: 'Convolver',
    promise: 'no added latency: a click is answered at once',
    unit: 'samples',
    limit: 1,
    measure: () => {
      const out = runWet(
        'convolver',
        { source: 'own', fade: 0, length: 20 },
        { seconds: 0.1, input: impulse, own: [Float32Array.from({ length: 4800 }, (_, i) => (i === 0 ? 1 : 0))] },
      );
      return out.left.findIndex((value) => Math.abs(value) > 0.5);
    },
  },
  {
    effect: 'Room maker',
    promise: 'decay of a live room per octave against Eyring',
    unit: '%',
    limit: 10,
    measure: () => eyringError(LIVE),
  },
  {
    effect: 'Room maker',
    promise: 'decay of a panelled room per octave against Eyring',
    unit: '%',
    limit: 10,
    measure: () => eyringError(PANELLED),
  },
  {
    effect: 'Room maker',
    promise: 'first reflections on the computed samples',
    unit: 'samples',
    limit: 1,
    measure: reflectionError,
  },
  {
    effect: 'Impulses',
    promise: 'all of the library are finite, sound on both sides and are at least sixteen',
    unit: 'wrong',
    limit: 1,
    measure: () =>
      (LIBRARY.length < 16 ? 1 : 0) +
      LIBRARY.filter(({ make }) => {
        const { left, right } = make(24_000);
        return [left, right].some((side) => side.some((x) => !Number.isFinite(x)) || side.every((x) => x === 0));
      }).length,
  },
];
