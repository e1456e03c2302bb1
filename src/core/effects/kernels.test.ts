import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import { EFFECTS } from './catalogue';
import { ConvolverProcessor } from './convolver/processor';
import { DoublingProcessor } from './doubling/processor';
import { EqProcessor } from './eq/processor';
import { FilterProcessor } from './filter/processor';
import { apart, rowOf, runWet } from './testing';
import { TapsProcessor } from './taps/processor';
import { PlacerProcessor } from './placer/processor';
import { ReverbProcessor } from './reverb/processor';
import { StateVariable } from '../dsp/stateVariable';
import { DelayLine } from '../dsp/delayLine';
import { FilterCascade } from '../dsp/filterCascade';
import { TapBank } from '../dsp/tapBank';
import { Convolution, prepareImpulse } from '../dsp/convolution';
import { makeRandom } from '../dsp/random';

const RATE = 48_000;

test.each([
  ['hall', { space: 'hall' }],
  ['cloud, wavering', { space: 'cloud', modDepth: 1 }],
  ['spring', { space: 'spring', decay: 800 }],
] as const)('the reverb’s kernel and its TypeScript reference agree within 2e-5: %s', (_what, named) => {
  const { away, peak } = apart(
    new ReverbProcessor(RATE),
    new ReverbProcessor(RATE, false),
    rowOf('reverb', named),
    rowOf('reverb', { ...named, decay: 5000, highDecay: 0.4 }),
    3,
  );
  expect(peak).toBeGreaterThan(0.02);
  expect(away).toBeLessThan(2e-5);
});

test('the taps’ kernel and its TypeScript reference agree within 2e-5', () => {
  const taps = {
    count: 5,
    time1: 0.4,
    time2: 12.5,
    time3: 31.03,
    time4: 250,
    time5: 333.33,
    pan2: -0.6,
    pan3: 1,
    highCut4: 3000,
  };
  const { away, peak } = apart(
    new TapsProcessor(RATE),
    new TapsProcessor(RATE, false),
    rowOf('taps', taps),
    rowOf('taps', { ...taps, level2: 0.3, pan3: -1 }),
    2,
  );
  expect(peak).toBeGreaterThan(0.2);
  expect(away).toBeLessThan(2e-5);
});

test.each([
  ['doubling', { detune: 0 }, { detune: 12, time: 23.4 }, DoublingProcessor],
  ['placer', { reflections: 0.5, direction: 30 }, { path: 'circle', rate: 0.8, reflections: 0.5 }, PlacerProcessor],
] as const)(
  'the %s’s lines and their TypeScript reference agree within 2e-5, standing and moving',
  (effect, from, to, Processor) => {
    const { away, peak } = apart(
      new Processor(RATE),
      new Processor(RATE, false),
      rowOf(effect, from),
      rowOf(effect, to),
      1,
    );
    expect(peak).toBeGreaterThan(0.05);
    expect(away).toBeLessThan(2e-5);
  },
);

test('a bank of taps hears what a delay line reads at the same delays, over the seam of the ring too', () => {
  const random = makeRandom(3);
  const bank = new TapBank(300);
  const line = new DelayLine(300, STEP_FRAMES);
  const read = new Float64Array(STEP_FRAMES);
  let away = 0;
  for (let step = 0; step < 40; step += 1) {
    const block = Float64Array.from({ length: STEP_FRAMES }, () => random() - 0.5);
    bank.write(block, block);
    line.write(block, STEP_FRAMES);
    const sums = makeStereoBlock();
    const wanted = makeStereoBlock();
    for (const [delay, from, to] of [
      [0, 1, 1],
      [17, 0.5, 0.2],
      [40.25, 0.7, 0.7],
      [133.9, -1, 1],
    ] as const) {
      bank.levels.set([from, to, 0.5 * from, 0.5 * from]);
      bank.add(delay);
      line.readFixed(delay + STEP_FRAMES, STEP_FRAMES, read);
      for (let i = 0; i < STEP_FRAMES; i += 1) {
        wanted.left[i] = wanted.left[i]! + read[i]! * (from + ((to - from) * (i + 1)) / STEP_FRAMES);
        wanted.right[i] = wanted.right[i]! + read[i]! * 0.5 * from;
      }
    }
    bank.addSums(sums.left, sums.right);
    for (let i = 0; i < STEP_FRAMES; i += 1)
      away = Math.max(away, Math.abs(sums.left[i]! - wanted.left[i]!), Math.abs(sums.right[i]! - wanted.right[i]!));
  }
  expect(away).toBeLessThan(2e-6);
});

test.each([true, false])(
  'an impulse longer than a convolution has room for is cut at a partition’s end, with kernel %s',
  (withKernel) => {
    const impulse = Float32Array.from({ length: 30_000 }, (_, i) => Math.sin(i * i) / (1 + i / 3000));
    // Room for the first partition of the longest stage alone: 16384 and 8192 samples.
    const [short, whole] = [new Convolution(17_000, withKernel), new Convolution(30_000, withKernel)];
    short.load(prepareImpulse(impulse, impulse, withKernel));
    whole.load(prepareImpulse(impulse.slice(0, 24_576), impulse.slice(0, 24_576), withKernel));
    let [peak, away] = [0, 0];
    for (let step = 0; step < 500; step += 1) {
      const input = Float64Array.from({ length: STEP_FRAMES }, (_, i) => (step === 0 && i === 0 ? 1 : 0));
      const [a, b] = [makeStereoBlock(), makeStereoBlock()];
      short.addTo(input, input, a.left, a.right);
      whole.addTo(input, input, b.left, b.right);
      for (let i = 0; i < STEP_FRAMES; i += 1) {
        const place = step * STEP_FRAMES + i;
        peak = Math.max(peak, Math.abs(a.left[i]!));
        away = Math.max(
          away,
          Math.abs(a.left[i]! - b.left[i]!),
          Math.abs(a.right[i]! - (place < 24_576 ? impulse[place]! : 0)),
        );
      }
    }
    expect(peak).toBeGreaterThan(0.9);
    expect(away).toBeLessThan(2e-5);
  },
);

test('the convolver’s kernel and its TypeScript reference agree within 2e-5, on both sides', () => {
  const falling = (turn: number): Float32Array =>
    Float32Array.from({ length: 2 * RATE }, (_, i) => 0.02 * Math.sin(i * i * turn) * Math.exp((-5 * i) / RATE));
  const [fast, plain] = [new ConvolverProcessor(RATE), new ConvolverProcessor(RATE, false)];
  fast.setImpulse(prepareImpulse(falling(1), falling(1.3)));
  plain.setImpulse(prepareImpulse(falling(1), falling(1.3), false));
  const row = rowOf('convolver', {});
  const { away, peak } = apart(fast, plain, row, row, 1.2);
  expect(peak).toBeGreaterThan(0.02);
  expect(away).toBeLessThan(2e-5);
});

test.each([
  ['eq', {}, { bodyDb: 9, highDb: -6, lowCutOn: true }, EqProcessor],
  ['filter', { cutoff: 900 }, { cutoff: 5000, resonance: 0.7, slope: '24' }, FilterProcessor],
] as const)('the %s’s row of filters and its TypeScript reference agree within 2e-5', (effect, from, to, Processor) => {
  const { away, peak } = apart(
    new Processor(RATE),
    new Processor(RATE, false),
    rowOf(effect, from),
    rowOf(effect, to),
    1,
  );
  expect(peak).toBeGreaterThan(0.05);
  expect(away).toBeLessThan(2e-5);
});

test('a row of filters does what as many state-variable filters do, standing and moving', () => {
  const random = makeRandom(5);
  const row = new FilterCascade(3);
  const single = Array.from({ length: 6 }, () => new StateVariable());
  const block = makeStereoBlock();
  let away = 0;
  for (let step = 0; step < 400; step += 1) {
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      block.left[i] = random() - 0.5;
      block.right[i] = random() - 0.5;
    }
    const [left, right] = [Float64Array.from(block.left), Float64Array.from(block.right)];
    for (let s = 0; s < 3; s += 1) {
      const g = 0.05 * (s + 1) + (step % 3 === 0 ? 0.001 * step : 0.2);
      row.aim(s, g, 0.9, 0.3, 0.2 * s, 0.7);
      single[s]!.process(left, STEP_FRAMES, g, 0.9, 0.3, 0.2 * s, 0.7);
      single[3 + s]!.process(right, STEP_FRAMES, g, 0.9, 0.3, 0.2 * s, 0.7);
    }
    row.process(block);
    for (let i = 0; i < STEP_FRAMES; i += 1)
      away = Math.max(away, Math.abs(block.left[i]! - left[i]!), Math.abs(block.right[i]! - right[i]!));
  }
  expect(away).toBeLessThan(1e-9);
});

test('where a page has no memory left for kernels, every effect goes on in TypeScript', () => {
  const known = new Map(
    EFFECTS.map(({ id }) => [id, runWet(id, { mix: 1 }, { seconds: 0.05, input: (i) => 0.3 * Math.sin(i * 0.07) })]),
  );
  const spy = jest.spyOn(WebAssembly, 'Memory').mockImplementation(() => {
    throw new RangeError('WebAssembly.Memory(): could not allocate memory');
  });
  try {
    for (const { id } of EFFECTS) {
      const plain = runWet(id, { mix: 1 }, { seconds: 0.05, input: (i) => 0.3 * Math.sin(i * 0.07) });
      const fast = known.get(id)!;
      expect([
        id,
        plain.left.reduce(
          (most, x, i) => Math.max(most, Math.abs(x - fast.left[i]!), Math.abs(plain.right[i]! - fast.right[i]!)),
          0,
        ) < 1e-5,
      ]).toEqual([id, true]);
    }
    expect(spy).toHaveBeenCalled();
  } finally {
    spy.mockRestore();
  }
});
