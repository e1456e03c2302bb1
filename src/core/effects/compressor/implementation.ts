import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { levelCurve, thresholdPicture } from '../levelCurve';
import type { CurvePicture } from '../pictures';
import { compressorParams } from './params';
import { CompressorProcessor } from './processor';

const create = (sampleRate: number): CompressorProcessor => new CompressorProcessor(sampleRate);

/** What a steady tone comes to: the times do not show in it, so it is sounded with short ones. */
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
