import { presetValues } from '../testing';
import { STEP_FRAMES, makeStereoBlock } from '../../dsp/blocks';
import { makeRandom } from '../../dsp/random';
import { toEngineNumber } from '../../params/resolve';
import { effectOf } from '../catalogue';
import { EchoProcessor } from './processor';

const context = { tempo: { bpm: 92, beatsPerBar: 4 }, sampleRate: 48_000 };

test.each([
  ['whole samples', { timeL: 375 }],
  ['between samples', { timeL: '1/8d' }],
  ['sides apart', { timeL: '1/8d', timeR: 250, linked: false }],
  ['ping-pong', { timeL: 100, routing: 'pingpong' }],
  ['filtered', { timeL: '1/16', filter: 'band', cutoff: 900, crossFeed: 0.3 }],
  ['wow and flutter', { timeL: '1/8d', wowDepth: 0.6, flutterDepth: 0.2, filter: 'low' }],
  ['moving close by', { timeL: 1.2, wowDepth: 1, wowRate: 3 }],
  ['driven and smeared', { timeL: '1/8d', drive: 10, diffusion: 0.6, cutoff: 5000, filter: 'low' }],
  ['ringing low down', { timeL: '1/8d', feedback: 0.4, filter: 'low', cutoff: 60, resonance: 0.95 }],
  ['over 100 %', { timeL: 60, feedback: 1.2, filter: 'low' }],
] as const)('the WebAssembly loop and its TypeScript reference agree within 1e-5: %s', (_what, named) => {
  const { params, paramIds } = effectOf('echo');
  const values = { ...presetValues('echo'), feedback: 0.7, ...named };
  const row = Float64Array.from(paramIds, (id) =>
    toEngineNumber(params[id]!, values[id as keyof typeof values]!, context),
  );
  const random = makeRandom(7);
  const [fast, plain] = [new EchoProcessor(48_000), new EchoProcessor(48_000, false)];
  for (const processor of [fast, plain]) processor.reset(0, row);
  const input = makeStereoBlock();
  const [a, b] = [makeStereoBlock(), makeStereoBlock()];
  let away = 0;
  let peak = 0;
  for (let step = 0; step < 12_000; step += 1) {
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      input.left[i] = step < 400 ? random() - 0.5 : 0;
      input.right[i] = step < 400 ? random() - 0.5 : 0;
    }
    fast.process(input, a, row);
    plain.process(input, b, row);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      away = Math.max(away, Math.abs(a.left[i]! - b.left[i]!), Math.abs(a.right[i]! - b.right[i]!));
      peak = Math.max(peak, Math.abs(a.left[i]!));
    }
  }
  expect(peak).toBeGreaterThan(0.01);
  expect(away).toBeLessThan(1e-5);
});

test('a tail that dies away becomes silence, not denormals', () => {
  const { params, paramIds } = effectOf('echo');
  const values = { ...presetValues('echo'), timeL: 20, feedback: 0.5, filter: 'low' };
  const row = Float64Array.from(paramIds, (id) =>
    toEngineNumber(params[id]!, values[id as keyof typeof values]!, context),
  );
  for (const processor of [new EchoProcessor(48_000), new EchoProcessor(48_000, false)]) {
    processor.reset(0, row);
    const input = makeStereoBlock();
    const wet = makeStereoBlock();
    input.left[0] = 1;
    for (let step = 0; step < 3000; step += 1) {
      processor.process(input, wet, row);
      input.left[0] = 0;
    }
    expect(wet.left.every((x) => x === 0 || Math.abs(x) > 1e-35)).toBe(true);
  }
});
