import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { numbersOf, dragEffect } from '../handles';
import type { RepeatsPicture } from '../pictures';
import { repeatsPicture } from '../repeatsPicture';
import { sideDelayParams } from './params';
import { SideDelayProcessor } from './processor';

const create = (sampleRate: number): SideDelayProcessor => new SideDelayProcessor(sampleRate);

function picture(values: ParamValues, context: ValueContext): RepeatsPicture {
  const number = numbersOf(sideDelayParams, values, context);
  return repeatsPicture({ create, params: sideDelayParams, values, context }, 0.07, 0.0004, [
    {
      label: 'Time and level',
      x: number('time') / 1000,
      y: Math.pow(10, number('level') / 20),
      pullX: dragEffect(sideDelayParams, values, context, 'time', 'add', 1000),
      pullY: null,
    },
  ]);
}

export const sideDelayImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
