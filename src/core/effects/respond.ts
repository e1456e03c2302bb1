import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import type { Params, ParamValues, ValueContext } from '../params/param';
import { toEngineNumber } from '../params/resolve';
import { commonParams } from './common';
import { type EffectProcessor } from './define';

export interface Sounding {
  readonly create: (sampleRate: number) => EffectProcessor;
  /** The effect's own parameters; the common ones are added. */
  readonly params: Params;
  readonly values: ParamValues;
  readonly context: ValueContext;
  readonly sampleRate: number;
  readonly seconds: number;
  /** Position in the piece, for oscillators; its beginning when left out. */
  readonly atSeconds?: number;
  /** Values that are other than `values` from a sample on; read at every step. */
  readonly valuesAt?: (index: number) => ParamValues;
  /** Sample of each side at an index; a unit impulse on both when left out. */
  readonly input?: (index: number) => readonly [number, number];
}

export interface Answer {
  readonly left: Float64Array;
  readonly right: Float64Array;
}

const IMPULSE: readonly [number, number] = [1, 1];
const NOTHING: readonly [number, number] = [0, 0];
const unitImpulse = (index: number): readonly [number, number] => (index === 0 ? IMPULSE : NOTHING);

/** Wet output of an effect with these values for an input: all pictures are computed from it. */
export function respond({
  create,
  params,
  values,
  context,
  sampleRate,
  seconds,
  atSeconds = 0,
  valuesAt,
  input = unitImpulse,
}: Sounding): Answer {
  const all = { ...commonParams, ...params };
  const ids = Object.keys(all);
  const row = Float64Array.from(Object.entries(all), ([id, param]) =>
    toEngineNumber(param, values[id] ?? param.initial, { ...context, sampleRate }),
  );
  const processor = create(sampleRate);
  processor.reset(atSeconds, row);
  const length = Math.ceil((seconds * sampleRate) / STEP_FRAMES) * STEP_FRAMES;
  const answer = { left: new Float64Array(length), right: new Float64Array(length) };
  const from = makeStereoBlock();
  const wet = makeStereoBlock();
  for (let at = 0; at < length; at += STEP_FRAMES) {
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const [l, r] = input(at + i);
      from.left[i] = l;
      from.right[i] = r;
    }
    for (const [id, value] of Object.entries(valuesAt?.(at) ?? {}))
      row[ids.indexOf(id)] = toEngineNumber(all[id]!, value, { ...context, sampleRate });
    processor.process(from, wet, row);
    answer.left.set(wet.left, at);
    answer.right.set(wet.right, at);
  }
  return answer;
}
