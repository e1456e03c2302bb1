import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber } from '../../params/resolve';
import type { MotionPicture } from '../pictures';
import { respond } from '../respond';
import { tremoloParams } from './params';
import { TremoloProcessor } from './processor';

const PICTURE_RATE = 6000;

const POINTS = 160;

const TURNS = 2.5;

function picture(values: ParamValues, context: ValueContext): MotionPicture {
  const hz = resolveNumber(tremoloParams.rate, values.rate ?? tremoloParams.rate.initial, context);
  const spanSeconds = TURNS / hz;
  const answer = respond({
    create: (at) => new TremoloProcessor(at),
    params: tremoloParams,
    values,
    context,
    sampleRate: PICTURE_RATE,
    seconds: spanSeconds,
    input: () => [1, 1],
  });
  const points = (side: Float64Array): number[] =>
    Array.from(
      { length: POINTS },
      (_, i) => side[Math.min(side.length - 1, Math.round((i / (POINTS - 1)) * spanSeconds * PICTURE_RATE))]!,
    );
  return { kind: 'motion', spanSeconds, left: points(answer.left), right: points(answer.right) };
}

export const tremoloImplementation: EffectImplementation = {
  createProcessor: (sampleRate) => new TremoloProcessor(sampleRate),
  picture,
};
