import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber, toEngineNumber } from '../../params/resolve';
import { defineEffect, type Preset } from '../define';
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
  // Heard where it is: at the beginning of its path, when it has one, and never nearer than a sound can come.
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

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Straight ahead at one metre, without air, floor or walls.',
    values: { direction: 0, distance: 1, airDamping: 0, reflections: 0 },
  },
  {
    id: 'starboard',
    name: 'To starboard',
    purpose: 'Half right and near, firm in headphones.',
    values: { direction: 55, distance: 1.4 },
  },
  {
    id: 'behind',
    name: 'Behind you',
    purpose: 'A call from the back of the pier.',
    values: { direction: 195, distance: 5, outerEar: 0.6, distanceLevel: 0.4, reflections: 0.4, trim: 1.4 },
  },
  {
    id: 'circling',
    name: 'Circling gull',
    purpose: 'Flies round you once in two bars.',
    values: {
      path: 'circle',
      distance: 4,
      height: 3,
      outerEar: 0.6,
      distanceLevel: 0.4,
      rate: '2 bars',
      reflections: 0.15,
      trim: 1.4,
    },
  },
  {
    id: 'passing',
    name: 'Passing ferry',
    purpose: 'Comes, passes and goes, with the pitch that falls.',
    values: { path: 'eight', direction: 0, distance: 14, rate: 0.05, doppler: true, distanceLevel: 0.4, trim: 1.4 },
  },
  {
    id: 'lantern',
    name: 'Swinging lantern',
    purpose: 'To and fro before you, in time.',
    values: { path: 'swing', direction: 0, extent: 70, distance: 2, distanceLevel: 0.7, rate: '1 bar' },
  },
  {
    id: 'wideAhead',
    name: 'Wide ahead',
    purpose: 'Both sides of a part spread before you at a distance.',
    values: { direction: 0, distance: 3, distanceLevel: 0.4, spread: 90, reflections: 0.35, trim: 1.3 },
  },
];

export const placer = defineEffect({
  id: 'placer',
  name: 'Placer',
  family: 'space',
  purpose: 'Puts a sound at a place around you, near or far, and moves it along a path.',
  params: placerParams,
  presets,
  headline: ['direction', 'distance'],
  createProcessor: create,
  picture,
});
