import type { SoundData } from '../dsp/soundData';
import { STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../dsp/blocks';
import { effectOf } from '../effects/catalogue';
import { implementationOf } from '../effects/implementations';
import { preparedImpulse } from '../impulses/make';
import { toEngineNumber } from '../params/resolve';
import type { ValueContext } from '../params/param';
import type { Slot } from '../piece/piece';

const WARM_STEPS = 400;
const MEASURED_STEPS = 1200;
const PARTS = 6;
/** Blocks of test sound made in advance, a power of two. */
const INPUTS = 64;

/**
 * Processor load of one effect on this machine: its processing time over the duration of the sound, for loud sound and
 * constant values. The least of several measurements, since other work can only make one longer.
 * @param now a clock in milliseconds
 * @param sounds for an effect that works with a sound of its own
 */
export function effectLoad(
  slot: Slot,
  context: ValueContext,
  sounds: ReadonlyMap<string, SoundData>,
  now: () => number,
): number {
  const definition = effectOf(slot.effect);
  const processor = implementationOf(slot.effect).createProcessor(context.sampleRate);
  const row = Float64Array.from(definition.paramIds, (id) =>
    toEngineNumber(definition.params[id]!, slot.values[id] ?? definition.params[id]!.initial, context),
  );
  processor.reset(0, row);
  const need = definition.impulse?.(slot.values, context, slot.sound ?? null);
  const impulse = need ? preparedImpulse(need.order, sounds) : null;
  if (impulse) processor.setImpulse?.(impulse);
  const inputs = Array.from({ length: INPUTS }, (_, step) => loudBlock(step));
  const wet = makeStereoBlock();
  const measure = (steps: number, from: number): void => {
    for (let step = 0; step < steps; step += 1) {
      processor.process(inputs[(from + step) & (INPUTS - 1)]!, wet, row);
    }
  };
  measure(WARM_STEPS, 0);
  let least = Infinity;
  for (let part = 0; part < PARTS; part += 1) {
    const began = now();
    measure(MEASURED_STEPS / PARTS, WARM_STEPS + (part * MEASURED_STEPS) / PARTS);
    least = Math.min(least, now() - began);
  }
  return least / (((MEASURED_STEPS / PARTS) * STEP_FRAMES * 1000) / context.sampleRate);
}

function loudBlock(step: number): StereoBlock {
  const block = makeStereoBlock();
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    block.left[i] = 0.3 * Math.sin((step * STEP_FRAMES + i) * 0.037);
    block.right[i] = 0.3 * Math.sin((step * STEP_FRAMES + i) * 0.051);
  }
  return block;
}
