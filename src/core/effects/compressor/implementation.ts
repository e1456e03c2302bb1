import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { levelCurve, thresholdPicture } from '../levelCurve';
import type { CurvePicture } from '../pictures';
import { compressorParams } from './params';
import { CompressorProcessor } from './processor';

const create = (sampleRate: number): CompressorProcessor => new CompressorProcessor(sampleRate);

/** Level of a steady tone; attack and release do not matter for it, so that short ones are used. */
function picture(values: ParamValues, context: ValueContext): CurvePicture {
  const quick = { ...values, source: 'self', sideCut: 20, attack: 1, release: 200 };
  const curve = levelCurve({ create, params: compressorParams, values: quick, context }, -60, 6);
  return thresholdPicture(
    compressorParams,
    values,
    context,
    curve,
    (threshold) => curve.outDb[Math.round(threshold) + 60]!,
  );
}

export const compressorImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
