import type { ParamValues, ValueContext } from '../../params/param';
import { defineEffect, type Preset } from '../define';
import { numbersOf, pullOn } from '../handles';
import { levelCurve } from '../levelCurve';
import type { CurvePicture, MotionPicture } from '../pictures';
import { respond } from '../respond';
import { gateParams, STEP_IDS } from './params';
import { GateProcessor } from './processor';

const create = (sampleRate: number): GateProcessor => new GateProcessor(sampleRate);
const RATE = 24_000;
const POINTS = 480;

const picture = (values: ParamValues, context: ValueContext): MotionPicture | CurvePicture =>
  values.mode === 'level' ? levelPicture(values, context) : patternPicture(values, context);

/** The pattern once, with a grip on each step. */
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
    pullY: pullOn(gateParams, values, context, id, 'add'),
  }));
  return { kind: 'motion', spanSeconds, left: curve, right: curve, handles };
}

const startOf = (step: number, swing: number, seconds: number): number =>
  (step + (step % 2 === 1 ? swing : 0)) * seconds;

function levelPicture(values: ParamValues, context: ValueContext): CurvePicture {
  const threshold = numbersOf(gateParams, values, context)('threshold');
  const { inDb, outDb } = levelCurve(
    { create, params: gateParams, values: { ...values, hold: 0, release: 5, smooth: 2 }, context },
    -80,
    0,
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
        y: threshold,
        pullX: pullOn(gateParams, values, context, 'threshold', 'add'),
        pullY: null,
      },
    ],
  };
}

const steps = (...heights: readonly number[]): Record<string, number> =>
  Object.fromEntries(STEP_IDS.map((id, i) => [id, heights[i] ?? 0]));

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Every second sixteenth.', values: {} },
  {
    id: 'oarStroke',
    name: 'Oar stroke',
    purpose: 'Three and three and two: pads that row along.',
    values: { rate: '1/16', length: 8, smooth: 12, ...steps(1, 0, 0, 1, 0, 0, 1, 0) },
  },
  {
    id: 'sluice',
    name: 'Sluice',
    purpose: 'Cut hard and short in sixteenths with accents.',
    values: {
      rate: '1/16',
      length: 16,
      open: 0.5,
      smooth: 2,
      trim: 1.25,
      ...steps(1, 0.4, 0.7, 0.4, 1, 0.4, 0.7, 0.9, 1, 0.4, 0.7, 0.4, 1, 0.7, 0.9, 0.4),
    },
  },
  {
    id: 'limp',
    name: 'Limp',
    purpose: 'Swung eighths under a straight beat.',
    values: { rate: '1/8', length: 4, swing: 0.33, open: 0.6, smooth: 10, ...steps(1, 0.7, 1, 0.7) },
  },
  {
    id: 'faster',
    name: 'Spinning up',
    purpose: 'Ride its step to the right at the end of a riser.',
    values: { rate: '1/8', length: 2, open: 0.5, smooth: 4, ...steps(1, 1) },
  },
  {
    id: 'halfShut',
    name: 'Half shut',
    purpose: 'Only bows by a few decibels: movement that is felt.',
    values: { rate: '1/8', length: 8, depth: 0.5, smooth: 30, ...steps(1, 0.3, 0.8, 0.3, 1, 0.3, 0.6, 0.9) },
  },
  {
    id: 'shutDoor',
    name: 'Shut the door',
    purpose: 'By its level: cuts the tail of a big reverb.',
    values: { mode: 'level', threshold: -34, hold: 90, release: 60 },
  },
  {
    id: 'quietRoom',
    name: 'Quiet room',
    purpose: 'By its level: takes hum and breath away between words.',
    values: { mode: 'level', threshold: -48, hold: 120, release: 300, depth: 0.9 },
  },
];

export const gate = defineEffect({
  id: 'gate',
  name: 'Gate',
  family: 'tone',
  purpose: 'Opens and shuts in a pattern on the grid, or by the sound’s own level.',
  params: gateParams,
  presets,
  headline: ['mode', 'rate'],
  createProcessor: create,
  picture,
});
