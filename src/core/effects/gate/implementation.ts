import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import { levelCurve, thresholdPicture } from '../levelCurve';
import type { CurvePicture, MotionPicture } from '../pictures';
import { respond } from '../respond';
import { gateParams, STEP_IDS } from './params';
import { GateProcessor } from './processor';

const create = (sampleRate: number): GateProcessor => new GateProcessor(sampleRate);

const RATE = 24_000;

const POINTS = 480;

const picture = (values: ParamValues, context: ValueContext): MotionPicture | CurvePicture =>
  values.mode === 'level' ? levelPicture(values, context) : patternPicture(values, context);

/** One cycle of the pattern, with a handle on each step. */
function patternPicture(values: ParamValues, context: ValueContext): MotionPicture {
  const number = numbersOf(gateParams, values, context);
  const length = Math.round(number('length'));
  const stepSeconds = 1 / number('rate');
  const spanSeconds = length * stepSeconds;
  const { left } = respond({
    create,
    params: gateParams,
    values,
    context,
    sampleRate: RATE,
    seconds: spanSeconds,
    input: () => [1, 1],
  });
  const curve = Array.from(
    { length: POINTS },
    (_, i) => Math.round(1000 * left[Math.floor((i * (spanSeconds * RATE - 1)) / (POINTS - 1))]!) / 1000,
  );
  const handles = STEP_IDS.slice(0, length).map((id, i) => ({
    label: `Step ${i + 1}`,
    x:
      startOf(i, number('swing'), stepSeconds) +
      0.5 * stepSeconds * number('open') * (i % 2 === 0 ? 1 + number('swing') : 1 - number('swing')),
    y: number(id),
    pullX: null,
    pullY: dragEffect(gateParams, values, context, id, 'add'),
  }));
  return { kind: 'motion', spanSeconds, left: curve, right: curve, handles };
}

const startOf = (step: number, swing: number, seconds: number): number =>
  (step + (step % 2 === 1 ? swing : 0)) * seconds;

function levelPicture(values: ParamValues, context: ValueContext): CurvePicture {
  const quick = { ...values, hold: 0, release: 5, smooth: 2 };
  const curve = levelCurve({ create, params: gateParams, values: quick, context }, -80, 0);
  return thresholdPicture(gateParams, values, context, curve, (threshold) => threshold);
}

export const gateImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
