import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { powerSpectrum } from '../analysis/spectrum';
import { makeRandom } from '../dsp/random';
import { peakIn } from '../engine/testing';
import type { Hit } from '../piece/moves/throws';
import type { ParamValues } from '../params/param';
import { newSlot } from '../piece/edits/chain';
import { slotsIn } from '../piece/find';
import type { Track } from '../piece/piece';
import { RECIPES } from './all';
import { sampleAt } from './recipe';
import { seamless } from './seamless';
import { makeIn, type Result } from './testing';

const tone = soundOf(16, (i) => 0.3 * Math.sin((2 * Math.PI * 400 * i) / RATE));
const struck = soundOf(0.1, (i) => 0.5 * Math.sin(i * 0.2) * Math.exp(-i / 600));
/** A tone for eight bars, and hits at beats 2 and 8 on another track, at 120 BPM. */
const made = (): Scene =>
  scene(
    [tone, struck],
    [{ clips: [clipOf('a', 0, 0, 16)] }, { clips: [clipOf('h', 1, 2, 0.1), clipOf('k', 1, 8, 0.1)] }],
    { lengthBeats: 32 },
  );
const HITS: readonly Hit[] = [2, 8].map((beat) => ({ beat, strength: 1, centroidHz: 1500 }));

const make = (
  id: string,
  track: number,
  start: number,
  end: number,
  values: ParamValues = {},
  change?: (one: Track) => Track,
): Result => makeIn(made(), { id, track, start, end, values, hits: HITS, ...(change ? { change } : {}) });

/** Rising passages through nothing, as a frequency. */
const hzIn = (samples: Float32Array, from: number, to: number): number => {
  let count = 0;
  for (let i = from + 1; i < to; i += 1) if (samples[i - 1]! < 0 && samples[i]! >= 0) count += 1;
  return (count * RATE) / (to - from);
};
const rms = (samples: Float32Array, from: number, to: number): number =>
  Math.sqrt(samples.subarray(from, to).reduce((sum, x) => sum + x * x, 0) / (to - from));

test('a filter sweep takes the tone away over its stretch, and is out of the way before and after it', () => {
  const { heard } = make('sweep', 0, 8, 16, { way: 'highGoes', farHz: 60, resonance: 0 });
  const out = heard(4, 20, false);
  const at = (beat: number): number => (beat - 4) * (RATE / 2);
  expect(rms(out, at(5), at(7))).toBeCloseTo(0.3 * Math.SQRT1_2, 2);
  expect(rms(out, at(15.6), at(15.9))).toBeLessThan(0.02);
  expect(rms(out, at(17), at(19))).toBeCloseTo(0.3 * Math.SQRT1_2, 2);
});

test('a stutter fills its stretch with ever shorter slices and leaves nothing else of the track there', () => {
  const { piece, heard } = make('stutter', 0, 8, 12, { first: '1/4', last: '1/32' });
  const slices = piece.tracks[2]!.clips;
  const lengths = slices.map((clip) => clip.lengthSeconds);
  expect(lengths[0]).toBeCloseTo(0.5, 2);
  expect(lengths[lengths.length - 2]!).toBeLessThan(0.09);
  lengths.slice(1, -1).forEach((length, i) => expect(length).toBeLessThan(lengths[i]!));
  expect(piece.tracks[0]!.clips.map(({ start, lengthSeconds }) => [start, lengthSeconds])).toEqual([
    [0, 4],
    [12, 10],
  ]);
  expect(rms(heard(8, 12), 0, 2 * RATE)).toBeGreaterThan(0.15);
});

test('what takes the place of a track’s own sound goes through its effects and to its returns, with no id twice', () => {
  for (const id of ['stutter', 'tapeStop']) {
    const { piece } = make(id, 0, 8, 12, {}, (one) => ({
      ...one,
      chain: [newSlot('b', 'braid', 'bloom')],
      sends: [{ to: 'r', level: 0.5, pre: false }],
    }));
    const [own, made] = [piece.tracks[0]!, piece.tracks[2]!];
    expect([made.chain[0]!.effect, made.sends, made.gain, made.pan]).toEqual(['braid', own.sends, own.gain, own.pan]);
    const ids = piece.tracks.flatMap(({ chain }) => slotsIn(chain)).map((slot) => slot.id);
    expect(new Set(ids).size).toBe(ids.length);
  }
});

test('a tape stop slows the pitch down to nothing at the end of its stretch; a start does the same the other way round', () => {
  const stop = make('tapeStop', 0, 8, 12).heard(8, 12);
  expect(hzIn(stop, 2000, 8000)).toBeGreaterThan(340);
  expect(hzIn(stop, RATE, RATE + 8000)).toBeLessThan(220);
  expect(peakIn(stop, 2 * RATE - 400)).toBeLessThan(0.02);
  const start = make('tapeStop', 0, 8, 12, { way: 'start' }).heard(8, 12);
  expect(hzIn(start, 2 * RATE - 9000, 2 * RATE - 2000)).toBeGreaterThan(340);
});

test('reversed echoes stand on the grid before the hit, each louder than the one before', () => {
  const out = make('reversedEchoes', 1, 4, 8, { time: '1/4', feedback: 0.5 }).heard(4, 8);
  const peaks = [1, 2, 3].map((n) => {
    const from = 2 * RATE - n * (RATE / 2);
    return { n, level: peakIn(out, from - 6000, from + 200) };
  });
  expect(peaks[0]!.level).toBeGreaterThan(1.7 * peaks[1]!.level);
  expect(peaks[1]!.level).toBeGreaterThan(1.7 * peaks[2]!.level);
  // The beat before each echo's own attack, which ends it, is silent.
  expect(peakIn(out, 2 * RATE - RATE / 2 + 600, 2 * RATE - 6000)).toBeLessThan(0.01);
});

test('the last hit echoes into the gap and is gone by its end', () => {
  const { piece, heard } = make('lastHit', 1, 2.1, 6, { time: '1/4', feedback: 0.7 });
  const out = heard(2, 7);
  [1, 2, 3].forEach((n) => expect(peakIn(out, n * (RATE / 2) - 50, n * (RATE / 2) + 1500)).toBeGreaterThan(0.05));
  expect(peakIn(out, 2 * RATE + 100)).toBe(0);
  expect(piece.tracks[2]!.clips[0]!.start).toBe(2);
});

test('an octave layer sounds at half the frequency beside the part', () => {
  const out = make('octave', 0, 0, 8, { semitones: -12 }).heard(2, 6);
  expect(hzIn(out, RATE / 2, RATE)).toBeCloseTo(200, -1);
});

const pad = (seconds: number): Float32Array[] => {
  const random = makeRandom(4);
  const noise = [0, 1].map(() => Float32Array.from({ length: seconds * RATE }, () => random() - 0.5));
  return noise.map((side, c) =>
    side.map(
      (x, i) =>
        0.2 * x +
        0.2 * Math.sin((2 * Math.PI * (220.3 + c) * i) / RATE) +
        0.1 * Math.sin((2 * Math.PI * 331.7 * i) / RATE),
    ),
  );
};

test('a loop shows its seam neither in level (1 dB) nor in its spectrum (2 dB), against anywhere else, over ten minutes', () => {
  const loop = seamless(pad(12), 3 * RATE, RATE);
  const turn = loop[0]!.length;
  const at = (c: number, i: number): number => loop[c]![i % turn]!;
  const bands = [
    [80, 180],
    [180, 280],
    [280, 400],
    [400, 900],
    [900, 2500],
    [2500, 8000],
  ] as const;
  const SIZE = 32_768;
  const look = (from: number): number[] => {
    const power = powerSpectrum(
      Float64Array.from({ length: SIZE }, (_, i) => at(0, from + i) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / SIZE))),
    );
    return bands.map(
      ([low, high]) =>
        10 *
        Math.log10(
          power.slice(Math.round((low * SIZE) / RATE), Math.round((high * SIZE) / RATE)).reduce((sum, x) => sum + x, 0),
        ),
    );
  };
  const seams = [1, 20, 60].filter((k) => k * turn < 600 * RATE).map((k) => look(k * turn - SIZE / 2));
  const elsewhere = [0.3, 0.45, 0.6, 0.75].map((share) => look(Math.round(share * turn)));
  bands.forEach((_, band) => {
    const mean = elsewhere.reduce((sum, bandsThere) => sum + bandsThere[band]!, 0) / elsewhere.length;
    for (const seam of seams) expect(Math.abs(seam[band]! - mean)).toBeLessThan(2);
  });
  const level = (from: number): number =>
    10 *
    Math.log10(
      Array.from({ length: RATE }, (_, i) => at(0, from + i) ** 2 + at(1, from + i) ** 2).reduce(
        (sum, x) => sum + x,
        0,
      ),
    );
  expect(Math.abs(level(turn - RATE / 2) - level(Math.round(0.5 * turn)))).toBeLessThan(1);
  expect(Math.abs(at(0, turn) - at(0, turn - 1))).toBeLessThan(0.4);
});

test('a loop lies from the end of its stretch for as many bars as were asked for, turn after turn on the sample', () => {
  const { piece, sound } = make('loop', 0, 0, 8, { bars: 4 });
  const { clips } = piece.tracks[2]!;
  expect(sound!.loop).toEqual({ first: 0, last: sound!.channels[0]!.length - 1 });
  clips
    .slice(1)
    .forEach((clip, i) =>
      expect(sampleAt(piece, clip.start) - sampleAt(piece, clips[i]!.start)).toBe(sound!.channels[0]!.length),
    );
  const last = clips[clips.length - 1]!;
  expect(last.start + last.lengthSeconds * 2).toBeCloseTo(24, 3);
});

test.each([
  [4, 8, 0.3],
  [2, 5, 0.1],
  [0, 3, 0.45],
])(
  'a loop of whole beats from %d to %d is as long as its stretch to the sample, and its seam stands',
  (start, end, overlap) => {
    const { piece, sound } = make('loop', 0, start, end, { bars: 4, overlap, wholeBeats: true });
    const body = sampleAt(piece, end) - sampleAt(piece, start);
    const [left] = sound!.channels;
    expect(left!.length).toBe(body);
    const step = (from: number, to: number): number => {
      let most = 0;
      for (let i = from; i < to; i += 1) most = Math.max(most, Math.abs(left![(i + 1) % body]! - left![i % body]!));
      return most;
    };
    // From its last sample to its first is no greater step than within it.
    expect(step(body - 1, body)).toBeLessThanOrEqual(1.01 * step(0, body - 1));
  },
);

test('reversed echoes name the hit that they lead into: the nearest at the end, else the next on the grid', () => {
  const recipe = RECIPES.find(({ id }) => id === 'reversedEchoes')!;
  const base = make('reversedEchoes', 1, 4, 8);
  const goal = (beats: readonly number[], end: number): string | null => {
    const hits = beats.map((beat) => ({ beat, strength: 1, centroidHz: 1000 }));
    const range = { start: 4, end };
    const track = base.piece.tracks[1]!;
    return recipe.goal!({ piece: base.piece, track, range, hits, sound: () => undefined, newId: () => 'n' });
  };
  expect(goal([3, 7.9, 8.02, 9], 8)).toMatch(/ at bar 3, beat 1\.02\.$/);
  expect(goal([3, 8.6, 9.07, 9.5, 10], 8)).toMatch(/ at bar 3, beat 2\.5\.$/);
  expect(goal([3, 5], 8)).toBeNull();
});

test.each([
  ['white', 0],
  ['pink', -3],
  ['brown', -6],
] as const)('%s noise falls by %i dB an octave', (kind, slope) => {
  const { sound } = make('source', 0, 0, 32, { kind });
  const power = new Float64Array(4097);
  for (let at = 0; at + 8192 <= sound!.channels[0]!.length; at += 8192)
    powerSpectrum(
      Float64Array.from(
        sound!.channels[0]!.subarray(at, at + 8192),
        (x, i) => x * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / 8192)),
      ),
    ).forEach((x, k) => {
      power[k] = power[k]! + x;
    });
  const octave = (hz: number): number =>
    10 *
    Math.log10(
      power.slice(Math.round((hz * 8192) / RATE), Math.round((hz * 2 * 8192) / RATE)).reduce((sum, x) => sum + x, 0) /
        Math.round((hz * 8192) / RATE),
    );
  expect((octave(4000) - octave(250)) / 4).toBeCloseTo(slope, 0);
});

test('every recipe leaves a piece that is valid, with its tracks under names of their own, and says what it does', () => {
  for (const recipe of RECIPES) {
    const [track, start, end] =
      recipe.id === 'lastHit' ? [1, 2.1, 6] : recipe.id === 'reversedEchoes' ? [1, 4, 8] : [0, 4, 8];
    const { piece } = make(recipe.id, track, start, end);
    expect(new Set(piece.tracks.map(({ name }) => name)).size).toBe(piece.tracks.length);
    for (const param of Object.values(recipe.params)) expect(param.hint).toMatch(/^[A-Z].{6,140}[.]$/);
  }
});
