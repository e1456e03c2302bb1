import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber } from '../../params/resolve';
import { levelCurve } from '../levelCurve';
import type { CurvePicture } from '../pictures';
import { limiterParams } from './params';
import { LimiterProcessor } from './processor';

const create = (sampleRate: number): LimiterProcessor => new LimiterProcessor(sampleRate);

function picture(values: ParamValues, context: ValueContext): CurvePicture {
  const curve = levelCurve({ create, params: limiterParams, values, context }, -30, 6);
  return {
    kind: 'curve',
    ...curve,
    mark: {
      name: 'ceiling',
      db: resolveNumber(limiterParams.ceiling, values.ceiling ?? limiterParams.ceiling.initial, context),
    },
    handles: [],
  };
}

export const limiterImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
