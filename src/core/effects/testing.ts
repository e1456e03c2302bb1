import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import type { ParamValue } from '../params/param';
import { initialValues, toEngineNumber } from '../params/resolve';
import { preparedImpulse } from '../impulses/make';
import { effectOf } from './catalogue';
import { implementationOf } from './implementations';
import { makeRandom } from '../dsp/random';
import { type EffectProcessor } from './define';

/** All values of an effect's preset; for tests. */
export function presetValues(effectId: string, presetId = 'neutral'): Record<string, ParamValue> {
  const { params, presets } = effectOf(effectId);
  return { ...initialValues(params), ...presets.find(({ id }) => id === presetId)!.values };
}

export interface Stereo {
  readonly left: Float64Array;
  readonly right: Float64Array;
}

export interface RunOptions {
  readonly sampleRate?: number;
  readonly bpm?: number;
  readonly seconds: number;
  /** Sample of the input at an index; both sides unless `right` is given. */
  readonly input: (index: number) => number;
  readonly right?: (index: number) => number;
  /** Samples of the own sound, for effects that work with one. */
  readonly own?: readonly Float32Array[];
  /** Changes values at a step, as moves would. */
  readonly move?: (step: number) => Readonly<Record<string, ParamValue>> | null;
}

/** The wet output of an effect alone, from its neutral preset with some values named; for tests. */
export function runWet(effectId: string, named: Readonly<Record<string, ParamValue>>, options: RunOptions): Stereo {
  const { sampleRate = 48_000, bpm = 120 } = options;
  const context = { tempo: { bpm, beatsPerBar: 4 }, sampleRate };
  const definition = effectOf(effectId);
  const row = (values: Readonly<Record<string, ParamValue>>): Float64Array =>
    Float64Array.from(definition.paramIds, (id) => toEngineNumber(definition.params[id]!, values[id]!, context));
  let values = { ...presetValues(effectId), ...named };
  let now = row(values);
  const processor = implementationOf(effectId).createProcessor(sampleRate);
  processor.reset(0, now);
  const need = definition.impulse?.(values, context, options.own ? 'own' : null);
  const impulse = need ? preparedImpulse(need.order, new Map(options.own ? [['own', options.own]] : [])) : null;
  if (impulse) processor.setImpulse?.(impulse);
  const steps = Math.ceil((options.seconds * sampleRate) / STEP_FRAMES);
  const out = { left: new Float64Array(steps * STEP_FRAMES), right: new Float64Array(steps * STEP_FRAMES) };
  const input = makeStereoBlock();
  const wet = makeStereoBlock();
  for (let step = 0; step < steps; step += 1) {
    const at = step * STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      input.left[i] = options.input(at + i);
      input.right[i] = options.right ? options.right(at + i) : input.left[i]!;
    }
    const moved = options.move?.(step);
    if (moved) {
      values = { ...values, ...moved };
      now = row(values);
    }
    processor.process(input, wet, now);
    out.left.set(wet.left, at);
    out.right.set(wet.right, at);
  }
  return out;
}

export const impulse = (index: number): number => (index === 0 ? 1 : 0);

export const sine =
  (hz: number, level: number, sampleRate = 48_000) =>
  (index: number): number =>
    level * Math.sin((2 * Math.PI * hz * index) / sampleRate);

/** Sum and centre of gravity of the samples around `near`: an arrival's gain at low frequencies and its exact place. */
export function arrival(samples: Float64Array, near: number, reach = 40): { gain: number; at: number } {
  let sum = 0;
  let moment = 0;
  const from = Math.max(0, Math.round(near) - reach);
  for (let i = from; i < Math.min(samples.length, Math.round(near) + reach); i += 1) {
    sum += samples[i]!;
    moment += samples[i]! * i;
  }
  return { gain: sum, at: moment / sum };
}

export const db = (gain: number): number => 20 * Math.log10(gain);

const RATE = 48_000;
const CONTEXT = { tempo: { bpm: 92, beatsPerBar: 4 }, sampleRate: RATE };

/** Engine numbers of an effect's neutral preset with some values named, at 92 BPM and 48 kHz; for tests. */
export const rowOf = (effect: string, named: Readonly<Record<string, ParamValue>>): Float64Array => {
  const { params, paramIds } = effectOf(effect);
  const values = { ...presetValues(effect), ...named };
  return Float64Array.from(paramIds, (id) => toEngineNumber(params[id]!, values[id]!, CONTEXT));
};

/**
 * Largest difference of two processors on the same noise, and the peak of the first; the row changes half way; for
 * tests.
 */
export function apart(
  fast: EffectProcessor,
  plain: EffectProcessor,
  from: Float64Array,
  to: Float64Array,
  seconds: number,
): { away: number; peak: number } {
  const random = makeRandom(11);
  for (const processor of [fast, plain]) processor.reset(0, from);
  const input = makeStereoBlock();
  const [a, b] = [makeStereoBlock(), makeStereoBlock()];
  let away = 0;
  let peak = 0;
  const steps = Math.round((seconds * RATE) / STEP_FRAMES);
  for (let step = 0; step < steps; step += 1) {
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      input.left[i] = 0.5 * (random() - 0.5);
      input.right[i] = 0.5 * (random() - 0.5);
    }
    const row = step < steps / 2 ? from : to;
    fast.process(input, a, row);
    plain.process(input, b, row);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      away = Math.max(away, Math.abs(a.left[i]! - b.left[i]!), Math.abs(a.right[i]! - b.right[i]!));
      peak = Math.max(peak, Math.abs(a.left[i]!));
    }
  }
  return { away, peak };
}
