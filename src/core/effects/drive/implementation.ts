import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { Handle, TransferPicture } from '../pictures';
import { curveAt, DrawnCurve } from './curves';
import { CURVES, DRAWN_IDS, DRAWN_POINTS, driveParams, type Curve } from './params';
import { DriveProcessor } from './processor';

const PLACES = 241;

/** Height of a wave of -12 dBFS. */
const USUAL = 0.25;

/** Input along, output up; with the range that a wave of usual level reaches. */
function picture(values: ParamValues, context: ValueContext): TransferPicture {
  const number = numbersOf(driveParams, values, context);
  const drive = Math.pow(10, number('drive') / 20);
  const curve = (values.curve ?? driveParams.curve.initial) as Curve;
  const drawn = new DrawnCurve();
  drawn.take(Float64Array.from(DRAWN_IDS, number), 0);
  const reach = curve === 'drawn' ? 1.15 : Math.max(1.5, Math.min(4, USUAL * drive + Math.abs(number('bias'))));
  const input = Array.from({ length: PLACES }, (_, i) => reach * ((2 * i) / (PLACES - 1) - 1));
  const at = (x: number): number => (curve === 'drawn' ? drawn.at(x) : curveAt(CURVES.indexOf(curve), x));
  return {
    kind: 'transfer',
    input,
    output: input.map(at),
    met: { from: number('bias') - USUAL * drive, to: number('bias') + USUAL * drive },
    handles: curve === 'drawn' ? grips(values, context) : [],
  };
}

const grips = (values: ParamValues, context: ValueContext): Handle[] =>
  DRAWN_IDS.map((id, i) => ({
    label: `Height ${i + 1}`,
    x: (2 * i) / (DRAWN_POINTS - 1) - 1,
    y: numbersOf(driveParams, values, context)(id),
    pullX: null,
    pullY: dragEffect(driveParams, values, context, id, 'add'),
  }));

export const driveImplementation: EffectImplementation = {
  createProcessor: (sampleRate) => new DriveProcessor(sampleRate),
  picture,
};
