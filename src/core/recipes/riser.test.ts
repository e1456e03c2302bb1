import { clipOf, RATE, scene, soundOf } from '../piece/testing';
import { compilePlan } from '../engine/compilePlan';
import { render } from '../engine/render';
import type { ParamValues } from '../params/param';
import { makeIn, type Result } from './testing';

/** A tone of 330 Hz up to beat 8 of 32, at 120 a minute. */
const phrase = scene(
  [soundOf(4, (i) => 0.3 * Math.sin((2 * Math.PI * 330 * i) / RATE))],
  [{ clips: [clipOf('a', 0, 0, 4)] }, { clips: [] }],
  { lengthBeats: 40 },
);
const range = { start: 8, end: 24 };
const [FROM, TO] = [range.start, range.end].map((beat) => (beat * RATE) / 2) as [number, number];

const make = (values: ParamValues, track = 0): Result =>
  makeIn(phrase, { id: 'riser', track, ...range, values: { lowHz: 200, level: 0.8, ...values } });
const heard = (values: ParamValues): Float32Array => make(values).heard(0, 32);
const part = (i: number): [number, number] => [FROM + ((TO - FROM) * i) / 8, FROM + ((TO - FROM) * (i + 1)) / 8];

const power = (x: Float32Array, from: number, to: number): number =>
  x.subarray(Math.round(from), Math.round(to)).reduce((sum, y) => sum + y * y, 0) / (to - from);
/** Power of the differences of neighbours against power: rises with the centre of a spectrum. */
const brightness = (x: Float32Array, from: number, to: number): number => {
  let differences = 0;
  for (let i = Math.round(from) + 1; i < to; i += 1) differences += (x[i]! - x[i - 1]!) ** 2;
  return differences / (to - from) / power(x, from, to);
};
const hz = (x: Float32Array, from: number, to: number): number => {
  let ups = 0;
  for (let i = Math.round(from) + 1; i < to; i += 1) if (x[i - 1]! < 0 && x[i]! >= 0) ups += 1;
  return (ups * RATE) / (to - from);
};

test.each(['noise', 'tone'])(
  'a riser of %s grows and brightens all the way into the bar, and is cut there without a click',
  (source) => {
    const left = heard({ source, climb: 24 });
    for (let i = 1; i < 8; i += 1) {
      expect(power(left, ...part(i))).toBeGreaterThan(power(left, ...part(i - 1)));
      expect(brightness(left, ...part(i))).toBeGreaterThan(brightness(left, ...part(i - 1)));
    }
    expect(power(left, 0, FROM)).toBe(0);
    // What the filter still holds is gone within a few milliseconds.
    expect(power(left, TO + 480, TO + 4800)).toBeLessThan(1e-6 * power(left, ...part(7)));
    let step = 0;
    for (let i = TO - 20; i < TO + 400; i += 1) step = Math.max(step, Math.abs(left[i]! - left[i - 1]!));
    expect(step).toBeLessThan(1.2 * Math.sqrt(power(left, ...part(7)) * brightness(left, ...part(7))) * 4);
  },
);

test('a fall is a riser the other way round', () => {
  const left = heard({ way: 'fall' });
  for (let i = 1; i < 8; i += 1) expect(power(left, ...part(i))).toBeLessThan(power(left, ...part(i - 1)));
});

test('the tone ends two octaves above where it began', () => {
  const sound = make({ source: 'tone', climb: 24 }).sound!.channels[0]!;
  // Over the first and the last second the pitch moves by a known share of its way.
  const share = RATE / sound.length;
  expect(hz(sound, 0, RATE)).toBeCloseTo(110 * Math.pow(2, share), -1);
  expect(hz(sound, sound.length - RATE, sound.length)).toBeCloseTo(440 * Math.pow(2, -share), -1);
});

test.each([
  ['rise', 1],
  ['fall', 0],
] as const)(
  'of the track itself, a %s glides over an octave and is in its key where it is full, without a seam',
  (way, full) => {
    const sound = make({ source: 'own', climb: 12, way }).sound!.channels[0]!;
    const cents = (at: number): number =>
      1200 * Math.log2(hz(sound, at * (sound.length - RATE / 4), at * (sound.length - RATE / 4) + RATE / 4) / 330);
    // A quarter of a second at either end moves by 37 cents, half of it on average; counting waves is exact to 20.
    expect(Math.abs(cents(full) + 19)).toBeLessThan(22);
    expect(Math.abs(cents(1 - full) + 1200 - 19)).toBeLessThan(45);
    // A sine of its level has no step larger than its own slope: no turn of the loop clicks.
    let step = 0;
    for (let i = 1000; i < sound.length - 1000; i += 1)
      step = Math.max(step, Math.abs(sound[i]! - 2 * sound[i - 1]! + sound[i - 2]!));
    expect(step).toBeLessThan(1.5 * 0.2 * Math.SQRT2 * ((2 * Math.PI * 330) / RATE) ** 2);
  },
);

test('a track that plays nothing before the stretch nor in it says so', () => {
  expect(() => make({ source: 'own' }, 1)).toThrow('plays nothing');
});

test('one that widens is in the middle at first and at the sides at last', () => {
  const { piece, sounds } = make({ widens: true });
  const alone = { ...piece, tracks: piece.tracks.map((track) => ({ ...track, solo: track.name === 'Riser' })) };
  const { left, right } = render({
    plan: compilePlan(alone),
    sounds,
    fromSample: FROM,
    toSample: TO,
    tail: { kind: 'seconds', seconds: 0 },
  })!;
  const sides = (from: number, to: number): number => {
    let [side, middle] = [0, 0];
    for (let i = from; i < to; i += 1) {
      side += (left[i]! - right[i]!) ** 2;
      middle += (left[i]! + right[i]!) ** 2;
    }
    return 10 * Math.log10(side / middle);
  };
  // Two noises unlike each other have as much side as middle; the rail goes from 40 dB under that to 4 over it.
  expect(sides(0, RATE / 4)).toBeLessThan(-37);
  expect(sides(TO - FROM - 4800, TO - FROM)).toBeCloseTo(3.7, 0);
});

test('cut it is over at the bar; into an echo or into reverb it goes on past it, and dies away', () => {
  const after = (values: ParamValues, beat: number): number =>
    power(heard(values), TO + (beat * RATE) / 2, TO + ((beat + 1) * RATE) / 2);
  const full = power(heard({}), ...part(7));
  expect(after({ ending: 'cut' }, 0.1)).toBeLessThan(1e-6 * full);
  expect(after({ ending: 'cut', space: true }, 0.1)).toBeLessThan(1e-6 * full);
  for (const ending of ['echo', 'reverb']) {
    expect(after({ ending }, 1)).toBeGreaterThan(1e-4 * full);
    expect(after({ ending }, 6)).toBeLessThan(0.3 * after({ ending }, 1));
  }
  // Nothing of the echo is heard before its last beat: up to there it is the riser without one, less what its mix
  // takes.
  const [echo, plain] = [heard({ ending: 'echo' }), heard({})];
  const dry = Math.cos((0.35 * Math.PI) / 2) ** 2;
  expect(power(echo, ...part(5)) / power(plain, ...part(5))).toBeCloseTo(dry, 2);
});

test('a gate opens ever more often, and the same number gives the same noise', () => {
  const { piece, heard: listen } = make({ gate: true });
  const gain = piece.lanes.find(({ target }) => target.kind === 'channel' && target.param === 'gain')!;
  const opened = gain.points.filter(({ value, beat }) => value > 0 && beat < range.end).map(({ beat }) => beat);
  const gaps = opened.slice(1).map((beat, i) => beat - opened[i]!);
  for (let i = 1; i < gaps.length; i += 1) expect(gaps[i]).toBeLessThanOrEqual(gaps[i - 1]!);
  expect([gaps[0], gaps[gaps.length - 1]]).toEqual([1, 0.125]);
  // The last eighth of a beat: open for its first half, shut for its second.
  const left = listen(0, 32);
  const half = (TO - FROM) / 16 / 16;
  expect(power(left, TO - 0.3 * half, TO)).toBeLessThan(0.05 * power(left, TO - 1.5 * half, TO - half));
  const [one, again, other] = [7, 7, 8].map((roll) => make({ roll }).sound!.channels[0]!);
  expect(one!.every((x, i) => x === again![i])).toBe(true);
  expect(one!.some((x, i) => x !== other![i])).toBe(true);
});

test.each(['1/8', '1/4d', 3.7])(
  'an LFO swings the filter of a riser at %s, as a link that can be changed',
  (lfoRate) => {
    const { piece } = make({ lfo: true, lfoRate, lfoDepth: 0.2 });
    const [modulator] = piece.modulators;
    expect(modulator).toMatchObject({ kind: 'lfo', rate: lfoRate });
    const track = piece.tracks.at(-1)!;
    expect(piece.links).toEqual([
      expect.objectContaining({
        modulator: modulator!.id,
        depth: 0.2,
        target: { kind: 'effect', channel: track.id, effect: track.chain[0]!.id, param: 'cutoff' },
      }),
    ]);
    expect(make({}).piece.links).toEqual([]);
  },
);
