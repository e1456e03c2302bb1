import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber } from '../../params/resolve';
import { defineEffect, type Preset } from '../define';
import type { MotionPicture } from '../pictures';
import { respond } from '../respond';
import { tremoloParams } from './params';
import { TremoloProcessor } from './processor';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'A sine on both sides together.', values: {} },
  { id: 'lampPulse', name: 'Harbour lamp', purpose: 'A slow pulse under pads.', values: { rate: '1/2', depth: 0.45 } },
  {
    id: 'sideToSide',
    name: 'Rowing',
    purpose: 'Wanders from side to side with the bar.',
    values: { rate: '1 bar', depth: 0.8, phase: 180 },
  },
  {
    id: 'cutRope',
    name: 'Cut rope',
    purpose: 'Hard sixteenths out of a held chord.',
    values: { rate: '1/16', depth: 1, shape: 'square' },
  },
  { id: 'shiver', name: 'Shiver', purpose: 'A quick flutter for keys and guitar.', values: { rate: 6.2, depth: 0.5 } },
  {
    id: 'undertow',
    name: 'Undertow',
    purpose: 'Every beat sinks away and returns, as if bowing to a drum.',
    values: { rate: '1/4', depth: 0.85, shape: 'rise', start: 0 },
  },
  {
    id: 'twoLamps',
    name: 'Two lamps',
    purpose: 'The sides in turn, in triplets.',
    values: { rate: '1/8t', depth: 0.9, shape: 'triangle', phase: 180 },
  },
];

const PICTURE_RATE = 6000;
const POINTS = 160;
const TURNS = 2.5;

function picture(values: ParamValues, context: ValueContext): MotionPicture {
  const hz = resolveNumber(tremoloParams.rate, values.rate ?? tremoloParams.rate.initial, context);
  const spanSeconds = TURNS / hz;
  const answer = respond({
    create: (at) => new TremoloProcessor(at),
    params: tremoloParams,
    values,
    context,
    sampleRate: PICTURE_RATE,
    seconds: spanSeconds,
    input: () => [1, 1],
  });
  const points = (side: Float64Array): number[] =>
    Array.from(
      { length: POINTS },
      (_, i) => side[Math.min(side.length - 1, Math.round((i / (POINTS - 1)) * spanSeconds * PICTURE_RATE))]!,
    );
  return { kind: 'motion', spanSeconds, left: points(answer.left), right: points(answer.right) };
}

export const tremolo = defineEffect({
  id: 'tremolo',
  name: 'Tremolo',
  family: 'modulation',
  purpose: 'Level that comes and goes in time, together or from side to side (auto-pan).',
  params: tremoloParams,
  presets,
  headline: ['rate', 'depth'],
  createProcessor: (sampleRate) => new TremoloProcessor(sampleRate),
  picture,
});
