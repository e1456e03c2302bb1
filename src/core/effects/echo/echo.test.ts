import { amplitudeAt } from '../../dsp/testing';
import { arrival, db, impulse, runWet, sine } from '../testing';

const RATES = [44_100, 48_000, 96_000];

describe('repeats in time', () => {
  test.each(
    RATES.flatMap((sampleRate) => [
      { sampleRate, timeL: '1/8d', seconds: 0.5 },
      { sampleRate, timeL: '1/8t', seconds: 2 / 9 },
      { sampleRate, timeL: '1/16', seconds: 1 / 6 },
      { sampleRate, timeL: 333.3, seconds: 0.3333 },
      { sampleRate, timeL: '7001.37 samples', seconds: 7001.37 / sampleRate },
      { sampleRate, timeL: 0.25, seconds: 0.00025 },
    ]),
  )(
    '$timeL at 90 BPM and $sampleRate Hz: n x time within 0.01 sample, feedback^n within 0.1 dB',
    ({ sampleRate, timeL, seconds }) => {
      const out = runWet(
        'echo',
        { timeL, feedback: 0.5 },
        { sampleRate, bpm: 90, seconds: Math.max(0.1, seconds * 5.2), input: impulse },
      );
      const samples = seconds * sampleRate;
      const reach = Math.min(40, Math.floor(samples / 2));
      for (let n = 1; n <= 5; n += 1) {
        const found = arrival(out.left, n * samples, reach);
        expect(Math.abs(found.at - n * samples)).toBeLessThan(samples < 40 ? 0.05 : 0.01);
        expect(Math.abs(db(found.gain) - (n - 1) * db(0.5))).toBeLessThan(0.1);
      }
      expect(out.right.every((x, i) => x === out.left[i])).toBe(true);
    },
  );

  test('ping-pong alternates, from either side', () => {
    for (const [firstSide, first, second] of [
      ['left', 'left', 'right'],
      ['right', 'right', 'left'],
    ] as const) {
      const out = runWet(
        'echo',
        { timeL: 100, feedback: 0.5, routing: 'pingpong', firstSide },
        { seconds: 0.5, input: impulse },
      );
      for (let n = 1; n <= 4; n += 1) {
        const [loud, quiet] = n % 2 === 1 ? [out[first], out[second]] : [out[second], out[first]];
        expect(loud[n * 4800]).toBeCloseTo(Math.pow(0.5, n - 1), 6);
        expect(quiet[n * 4800]).toBe(0);
      }
    }
  });

  test('sides apart, side offset and cross-feed each land where they say', () => {
    const apart = runWet(
      'echo',
      { timeL: 100, timeR: 150, linked: false, feedback: 0.5 },
      { seconds: 0.4, input: impulse },
    );
    expect(apart.left[4800]).toBeCloseTo(1, 6);
    expect(apart.right[7200]).toBeCloseTo(1, 6);
    const offset = runWet('echo', { timeL: 100, feedback: 0, sideOffset: -20 }, { seconds: 0.2, input: impulse });
    expect([offset.left[4800 + 960], offset.right[4800]]).toEqual([1, 1]);
    const crossed = runWet(
      'echo',
      { timeL: 100, feedback: 0.5, crossFeed: 0.25 },
      { seconds: 0.25, input: impulse, right: () => 0 },
    );
    expect([crossed.left[9600], crossed.right[9600]]).toEqual([0.375, 0.125]);
  });

  test('mono puts the sum in the middle', () => {
    const out = runWet(
      'echo',
      { timeL: 100, feedback: 0.5, routing: 'mono' },
      { seconds: 0.2, input: impulse, right: () => 0 },
    );
    expect([out.left[4800], out.right[4800]]).toEqual([0.5, 0.5]);
  });
});

describe('the loop', () => {
  test('120 % for five minutes stays finite and under its guard', () => {
    const out = runWet(
      'echo',
      { timeL: 250, feedback: 1.2 },
      { sampleRate: 44_100, seconds: 300, input: (i) => (i < 20_000 ? 0.8 * Math.sin(i * 0.05) : 0) },
    );
    let peak = 0;
    for (const x of out.left) peak = Math.max(peak, Math.abs(x));
    expect(peak).toBeGreaterThan(1);
    expect(peak).toBeLessThan(1.52);
  });

  test('hold keeps its level for a minute and lets nothing new in', () => {
    const out = runWet(
      'echo',
      { timeL: 250.01, feedback: 0.4 },
      {
        seconds: 61,
        input: (i) => (i < 11_000 || i > 48_000 ? sine(440, 0.5)(i) : 0),
        move: (step) => (step === 190 ? { hold: true } : null),
      },
    );
    const early = amplitudeAt(out.left, 440, 48_000, 96_000);
    const late = amplitudeAt(out.left, 440, 60 * 48_000, 61 * 48_000);
    expect(Math.abs(db(late / early))).toBeLessThan(0.01);
  });

  test.each([
    ['low', 500, 250],
    ['low', 2000, 4000],
    ['high', 500, 250],
    ['band', 1000, 1000],
    ['band', 1000, 2000],
  ] as const)('a %s-pass at %d Hz passes %d Hz as theory says, once more for each repeat', (filter, cutoff, hz) => {
    const q = 0.7071;
    const ratio = Math.tan((Math.PI * hz) / 48_000) / Math.tan((Math.PI * cutoff) / 48_000);
    const below = Math.hypot(1 - ratio * ratio, ratio / q);
    const theory = { low: 1, high: ratio * ratio, band: ratio / q }[filter] / below;
    const burst = (i: number): number => (i < 36_000 ? sine(hz, 0.5)(i) : 0);
    const out = runWet(
      'echo',
      { timeL: 1000, feedback: 1, filter, cutoff, resonance: 0 },
      { seconds: 3, input: burst },
    );
    const gain = (n: number): number => amplitudeAt(out.left, hz, n * 48_000 + 12_000, n * 48_000 + 36_000) / 0.5;
    expect(Math.abs(db(gain(1)) - db(theory))).toBeLessThan(0.1);
    expect(Math.abs(db(gain(2)) - 2 * db(theory))).toBeLessThan(0.2);
  });

  test('drive leaves quiet repeats alone and shapes loud ones; crush makes steps and never raises a level', () => {
    for (const driveKind of ['tape', 'tube', 'transistor', 'hard']) {
      const quiet = runWet(
        'echo',
        { timeL: 50, feedback: 0, drive: 12, driveKind },
        { seconds: 0.5, input: sine(500, 0.002) },
      );
      expect(Math.abs(db(amplitudeAt(quiet.left, 500, 9600, 19_200) / 0.002))).toBeLessThan(0.1);
      const loud = runWet(
        'echo',
        { timeL: 50, feedback: 0, drive: 12, driveKind },
        { seconds: 0.5, input: sine(500, 0.9) },
      );
      expect(db(amplitudeAt(loud.left, 500, 9600, 19_200) / 0.9)).toBeLessThan(-6);
    }
    const steps = runWet('echo', { timeL: 50, feedback: 0, bitDepth: 4 }, { seconds: 0.2, input: sine(500, 0.9) });
    expect(new Set(Array.from(steps.left, (x) => Math.abs(x * 8 - Math.round(x * 8)) < 1e-9))).toEqual(new Set([true]));
    expect(Math.max(...steps.left)).toBeLessThanOrEqual(0.9);
    const held = runWet(
      'echo',
      { timeL: 50, feedback: 0, rateReduction: 4800 },
      { seconds: 0.2, input: sine(497, 0.9) },
    );
    const changes = held.left.slice(2400).filter((x, i, all) => i > 0 && x !== all[i - 1]).length;
    expect(Math.abs(changes - 7200 / 10)).toBeLessThan(3);
  });

  test('diffusion spreads a repeat without adding energy, differently on each side', () => {
    const out = runWet(
      'echo',
      { timeL: 100, feedback: 0, diffusion: 1, diffusionSides: 1 },
      { seconds: 1.2, input: impulse },
    );
    const energy = out.left.reduce((sum, x) => sum + x * x, 0);
    expect(energy).toBeCloseTo(1, 3);
    expect(Math.max(...out.left.map(Math.abs))).toBeLessThan(0.5);
    const likeness = out.left.reduce((sum, x, i) => sum + x * out.right[i]!, 0);
    expect(Math.abs(likeness)).toBeLessThan(0.7);
  });

  test.each([
    [0.6, 1],
    [2, 2.5],
  ])('wow of %d Hz and %d %% bends the pitch by that much', (wowRate, wowDepth) => {
    const out = runWet('echo', { timeL: 400, feedback: 0, wowRate, wowDepth }, { seconds: 4, input: sine(1000, 0.5) });
    const crossings: number[] = [];
    for (let i = 24_000; i < out.left.length - 1; i += 1) {
      const a = out.left[i]!;
      const b = out.left[i + 1]!;
      if (a < 0 && b >= 0) crossings.push(i - a / (b - a));
    }
    const speeds = crossings.slice(20).map((at, i) => 20 / ((at - crossings[i]!) / 48_000) / 1000 - 1);
    expect(Math.max(...speeds) * 100).toBeCloseTo(wowDepth, 0.3);
    expect(Math.min(...speeds) * -100).toBeCloseTo(wowDepth, 0.3);
  });
});

describe('on the way out', () => {
  test('the three bands each move their own part', () => {
    for (const [id, hz, gain] of [
      ['eqLow', 60, 6],
      ['eqMid', 1000, -12],
      ['eqHigh', 14_000, 9],
    ] as const) {
      const out = runWet('echo', { timeL: 50, feedback: 0, [id]: gain }, { seconds: 1, input: sine(hz, 0.2) });
      expect(Math.abs(db(amplitudeAt(out.left, hz, 24_000, 48_000) / 0.2) - gain)).toBeLessThan(0.5);
    }
  });

  test('width 0 is mono, 200 % doubles the side', () => {
    const input = { seconds: 0.2, input: impulse, right: () => 0 };
    const mono = runWet('echo', { timeL: 100, feedback: 0, width: 0 }, input);
    const wide = runWet('echo', { timeL: 100, feedback: 0, width: 2 }, input);
    expect([mono.left[4800], mono.right[4800]]).toEqual([0.5, 0.5]);
    expect([wide.left[4800], wide.right[4800]]).toEqual([1.5, -0.5]);
  });

  test('ducking bows by its depth while the input sounds and rises after it', () => {
    const input = (i: number): number => (i < 48_000 ? sine(300, 0.5)(i) : 0);
    const out = runWet(
      'echo',
      { timeL: 300, feedback: 0.9, duck: 18, duckThreshold: -40, duckRelease: 100 },
      { seconds: 3, input },
    );
    const plain = runWet('echo', { timeL: 300, feedback: 0.9 }, { seconds: 3, input });
    const ratio = (from: number): number =>
      db(amplitudeAt(out.left, 300, from, from + 4800) / amplitudeAt(plain.left, 300, from, from + 4800));
    expect(ratio(38_400)).toBeCloseTo(-18, 1);
    expect(ratio(120_000)).toBeGreaterThan(-0.1);
  });
});

describe('no clicks', () => {
  const HZ = 220;
  /**
   * Largest third difference: near nothing for a sine, three times the height of a step. From the first second on, when
   * the lines are full.
   */
  const roughest = (samples: Float64Array): number => {
    let most = 0;
    for (let i = 48_003; i < samples.length; i += 1) {
      most = Math.max(most, Math.abs(samples[i]! - 3 * samples[i - 1]! + 3 * samples[i - 2]! - samples[i - 3]!));
    }
    return most;
  };
  const largestStep = (samples: Float64Array): number => {
    let most = 0;
    for (let i = 48_001; i < samples.length; i += 1) most = Math.max(most, Math.abs(samples[i]! - samples[i - 1]!));
    return most;
  };
  const jumps = (id: string, values: readonly (number | string | boolean)[]) => (step: number) =>
    step > 400 && step % 97 === 0 ? { [id]: values[(step / 97) % values.length]! } : null;

  test('time in crossfade holds the pitch without a step', () => {
    const out = runWet(
      'echo',
      { timeL: 300, feedback: 0, change: 'crossfade' },
      { seconds: 6, input: sine(HZ, 0.5), move: jumps('timeL', [120, 700, 41, 300.3]) },
    );
    expect(roughest(out.left)).toBeLessThan(0.001);
  });

  test('time in glide never runs faster than three times the speed', () => {
    const out = runWet(
      'echo',
      { timeL: 300, feedback: 0, change: 'glide' },
      { seconds: 6, input: sine(HZ, 0.5), move: jumps('timeL', [120, 700, 41, 300.3]) },
    );
    expect(largestStep(out.left)).toBeLessThan(1.05 * 3 * 0.5 * 2 * Math.sin((Math.PI * HZ) / 48_000));
  });

  test('hold, routing and filter kind change over smoothly', () => {
    for (const [id, values] of [
      ['hold', [true, false]],
      ['routing', ['mono', 'stereo', 'pingpong']],
      ['filter', ['low', 'off', 'high', 'band']],
    ] as const) {
      const out = runWet(
        'echo',
        { timeL: 300, feedback: 0.3, change: 'crossfade' },
        { seconds: 5, input: sine(HZ, 0.3), move: jumps(id, values) },
      );
      expect(roughest(out.left)).toBeLessThan(0.02);
    }
  });
});
