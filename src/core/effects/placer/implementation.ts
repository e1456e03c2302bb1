import type { EffectImplementation } from '../implementation';
import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber, toEngineNumber } from '../../params/resolve';
import type { PlacePicture } from '../pictures';
import { respond } from '../respond';
import { interauralSeconds, spotAt, type Spot } from './geometry';
import { FARTHEST_METRES, NEAREST_METRES, PATH_POINTS, placerParams } from './params';
import { PlacerProcessor } from './processor';

const create = (sampleRate: number): PlacerProcessor => new PlacerProcessor(sampleRate);

const RATE = 48_000;

const PATH_STEPS = 72;

function picture(values: ParamValues, context: ValueContext): PlacePicture {
  const number = (id: string): number => {
    const param = placerParams[id]!;
    return param.kind === 'number'
      ? resolveNumber(param, values[id] ?? param.initial, context)
      : toEngineNumber(param, values[id] ?? param.initial, context);
  };
  const corners = Float64Array.from({ length: 2 * PATH_POINTS }, (_, i) =>
    number(`${i % 2 === 0 ? 'x' : 'y'}${(i >> 1) + 1}`),
  );
  const spot: Spot = { x: 0, y: 0 };
  const where = (turns: number): { x: number; y: number } => {
    spotAt(spot, number('path'), turns, number('direction'), number('distance'), number('extent'), corners);
    return { ...spot };
  };
  const path = number('path') === 0 ? [] : Array.from({ length: PATH_STEPS + 1 }, (_, i) => where(i / PATH_STEPS));
  const at = where(0);
  // Drawn at its audible position: at the beginning of its path, when it has one, and not nearer than the minimum
  // distance.
  const flat = Math.max(NEAREST_METRES, Math.hypot(at.x, at.y));
  const azimuth = Math.atan2(at.x, at.y);
  const standing = {
    ...values,
    path: 'stand',
    reflections: 0,
    direction: ((azimuth * 180) / Math.PI + 360) % 360,
    distance: Math.min(FARTHEST_METRES, flat),
  };
  const { left, right } = respond({
    create,
    params: placerParams,
    values: standing,
    context,
    sampleRate: RATE,
    seconds: 0.2,
  });
  const level = (side: Float64Array): number => side.reduce((sum, x) => sum + x * x, 1e-20);
  const raised = flat / Math.hypot(flat, number('height'));
  const farthest = Math.max(number('distance'), ...path.map(({ x, y }) => Math.hypot(x, y)));
  return {
    kind: 'place',
    at,
    path,
    itdMs: 1000 * interauralSeconds(Math.asin(Math.sin(azimuth) * raised)),
    ildDb: 10 * Math.log10(level(right) / level(left)),
    farthest,
  };
}

export const placerImplementation: EffectImplementation = {
  createProcessor: create,
  picture,
};
