import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, pullOn } from '../handles';
import { levelCurve } from '../levelCurve';
import type { CurvePicture } from '../pictures';
import { compressorParams } from './params';
import { CompressorProcessor } from './processor';

const create = (sampleRate: number): CompressorProcessor => new CompressorProcessor(sampleRate);

/** What a steady tone comes to: the times do not show in it, so it is sounded with short ones. */
function picture(values: ParamValues, context: ValueContext): CurvePicture {
  const threshold = numbersOf(compressorParams, values, context)('threshold');
  const { inDb, outDb } = levelCurve(
    {
      create,
      params: compressorParams,
      values: { ...values, source: 'self', sideCut: 20, attack: 1, release: 200 },
      context,
    },
    -60,
    6,
  );
  return {
    kind: 'curve',
    inDb,
    outDb,
    mark: { name: 'threshold', db: threshold },
    handles: [
      {
        label: 'Threshold',
        x: threshold,
        y: outDb[Math.round(threshold) + 60]!,
        pullX: pullOn(compressorParams, values, context, 'threshold', 'add'),
        pullY: null,
      },
    ],
  };
}

export const compressorImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
