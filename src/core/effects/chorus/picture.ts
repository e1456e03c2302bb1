import { STEP_FRAMES, makeStereoBlock } from '../../dsp/blocks';
import type { ParamValues, ValueContext } from '../../params/param';
import { toEngineNumber } from '../../params/resolve';
import { commonParams } from '../common';
import { numbersOf } from '../handles';
import type { SwayPicture } from '../pictures';
import { chorusParams } from './params';
import { ChorusProcessor } from './processor';

const RATE = 48_000;
const POINTS = 160;
/** Channels of the lines of each mode: left, right, or both. */
const SIDES = { two: ['left', 'right'], three: ['left', 'right', 'both'], vibrato: ['left', 'right'] } as const;

/** Detune of each line, read from the processor. */
export function chorusPicture(values: ParamValues, context: ValueContext): SwayPicture {
  const number = numbersOf(chorusParams, values, context);
  const spanSeconds = Math.min(4, 2 / number('rate'));
  const all = { ...commonParams, ...chorusParams };
  const row = Float64Array.from(Object.entries(all), ([id, param]) =>
    toEngineNumber(param, values[id] ?? param.initial, { ...context, sampleRate: RATE }),
  );
  const processor = new ChorusProcessor(RATE);
  processor.reset(0, row);
  const [input, wet] = [makeStereoBlock(), makeStereoBlock()];
  const steps = Math.ceil((spanSeconds * RATE) / STEP_FRAMES);
  const sides = SIDES[(values.mode ?? 'two') as keyof typeof SIDES];
  const standing = sides.map((_, line) => [processor.standing[line]!]);
  for (let step = 0; step < steps; step += 1) {
    processor.process(input, wet, row);
    standing.forEach((places, line) => places.push(processor.standing[line]!));
  }
  const every = Math.max(1, Math.floor(steps / POINTS));
  const cents = (places: readonly number[]): number[] =>
    Array.from(
      { length: Math.floor(steps / every) },
      (_, k) =>
        Math.round(12_000 * Math.log2(1 - (places[(k + 1) * every]! - places[k * every]!) / (every * STEP_FRAMES))) /
        10,
    );
  return { kind: 'sway', spanSeconds, lines: sides.map((side, line) => ({ side, cents: cents(standing[line]!) })) };
}
