import type { Params } from '../../params/param';
import { gateParams, STEP_IDS } from '../gate/params';
import { holdParams } from '../hold/params';

const { rate, length, open, swing, smooth, depth } = gateParams;

/** Those of the gate's figures that its pattern goes by. */
export const patternParams: Params = {
  rate,
  length,
  open,
  swing,
  smooth,
  depth,
  ...Object.fromEntries(STEP_IDS.map((id) => [id, (gateParams as Params)[id]!])),
};

export const chopParams: Params = { ...holdParams, ...patternParams };
