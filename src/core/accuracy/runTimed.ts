import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import { effectOf } from '../effects/catalogue';
import type { EffectProcessor } from '../effects/define';
import { EvenTime } from '../effects/hold/testing';
import { implementationOf } from '../effects/implementations';
import { presetValues } from '../effects/testing';
import type { ParamValue } from '../params/param';
import { toEngineNumber } from '../params/resolve';

export type Values = Readonly<Record<string, ParamValue>>;
export type Wave = (index: number, sampleRate: number) => number;

/** Rates and tempi that fit nothing. */
export const ODD_TEMPI = [
  { sampleRate: 44_100, bpm: 93.7 },
  { sampleRate: 48_000, bpm: 127.3 },
  { sampleRate: 96_000, bpm: 61.9 },
  { sampleRate: 37_800, bpm: 188.1 },
] as const;

export interface TimedRun {
  readonly effect: string;
  /** Beside those of the neutral preset. */
  readonly values: Values;
  /** On both sides. */
  readonly input: Wave;
  readonly sampleRate: number;
  readonly bpm: number;
  readonly seconds: number;
}

/**
 * The left channel of an effect that uses musical time, in 4/4 from the beginning of a piece.
 * @param before called before each block with the parameter values, which it may change
 */
export function runTimed(
  { effect, values, input, sampleRate, bpm, seconds }: TimedRun,
  before: (processor: EffectProcessor, row: Float64Array, at: number) => void = () => undefined,
): Float64Array {
  const { params, paramIds } = effectOf(effect);
  const context = { tempo: { bpm, beatsPerBar: 4 }, sampleRate };
  const named = { ...presetValues(effect), ...values };
  const row = Float64Array.from(paramIds, (id) =>
    toEngineNumber(params[id]!, named[id] ?? params[id]!.initial, context),
  );
  const processor = implementationOf(effect).createProcessor(sampleRate);
  const time = new EvenTime(bpm, sampleRate);
  processor.setTime!(time);
  processor.reset(0, row);
  const out = new Float64Array(Math.ceil((seconds * sampleRate) / STEP_FRAMES) * STEP_FRAMES);
  const [block, wet] = [makeStereoBlock(), makeStereoBlock()];
  for (let at = 0; at < out.length; at += STEP_FRAMES) {
    time.at = at;
    for (let i = 0; i < STEP_FRAMES; i += 1) block.left[i] = block.right[i] = input(at + i, sampleRate);
    before(processor, row, at);
    processor.process(block, wet, row);
    out.set(wet.left, at);
  }
  return out;
}
