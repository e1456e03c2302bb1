import type { Params, ParamValues, ValueContext } from '../params/param';
import { numbersOf, dragEffect } from './handles';
import type { CurvePicture } from './pictures';
import { respond, type Sounding } from './respond';

const RATE = 24_000;
const STEP_SECONDS = 0.05;

/** Level in and level out, a decibel at a time. */
export interface LevelCurve {
  readonly inDb: number[];
  readonly outDb: number[];
}

/** Output level of a tone whose level rises a decibel at a time. */
export function levelCurve(
  sounding: Pick<Sounding, 'create' | 'params' | 'values' | 'context'>,
  fromDb: number,
  toDb: number,
): LevelCurve {
  const inDb = Array.from({ length: toDb - fromDb + 1 }, (_, i) => fromDb + i);
  const perStep = Math.round(STEP_SECONDS * RATE);
  const tone = (index: number): number =>
    Math.pow(10, inDb[Math.min(inDb.length - 1, Math.floor(index / perStep))]! / 20) *
    Math.sin((2 * Math.PI * 500 * index) / RATE);
  const { left } = respond({
    ...sounding,
    sampleRate: RATE,
    seconds: STEP_SECONDS * inDb.length,
    input: (i) => [tone(i), tone(i)],
  });
  const outDb = inDb.map(
    (_, i) =>
      20 *
      Math.log10(
        left
          .subarray(i * perStep + (perStep >> 1), (i + 1) * perStep)
          .reduce((most, x) => Math.max(most, Math.abs(x)), 1e-6),
      ),
  );
  return { inDb, outDb };
}

/**
 * The curve of an effect with a parameter `threshold`, which a handle on the curve moves.
 *
 * @param height level out at which the handle is drawn, in dB
 */
export function thresholdPicture(
  params: Params,
  values: ParamValues,
  context: ValueContext,
  curve: LevelCurve,
  height: (threshold: number) => number,
): CurvePicture {
  const threshold = numbersOf(params, values, context)('threshold');
  const pullX = dragEffect(params, values, context, 'threshold', 'add');
  return {
    kind: 'curve',
    ...curve,
    mark: { name: 'threshold', db: threshold },
    handles: [{ label: 'Threshold', x: threshold, y: height(threshold), pullX, pullY: null }],
  };
}
