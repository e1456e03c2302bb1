import type { ParamValues, ValueContext } from '../../params/param';
import { defineEffect, type Preset } from '../define';
import { numbersOf, pullOn } from '../handles';
import type { ResponsePicture } from '../pictures';
import { responsePicture } from '../responsePicture';
import { flangerParams } from './params';
import { FlangerProcessor } from './processor';

const create = (sampleRate: number): FlangerProcessor => new FlangerProcessor(sampleRate);
/** Places of the sweep at which it is looked at. */
const PLACES = 25;

function picture(values: ParamValues, context: ValueContext): ResponsePicture {
  const number = numbersOf(flangerParams, values, context);
  const still = (place: number): ResponsePicture =>
    responsePicture({ create, params: flangerParams, values: { ...values, depth: 0, place }, context }, []);
  // The first notch, which falls as the time rises.
  const first = 500 / Math.max(0.03, number('delay') * (1 + number('place')));
  const handles =
    values.throughZero === true
      ? []
      : [
          {
            label: 'Delay',
            x: Math.min(18_000, first),
            y: 0,
            pullX: pullOn(flangerParams, values, context, 'delay', 'times', -1),
            pullY: null,
          },
        ];
  const middle = { ...still(number('place')), handles };
  const depth = number('depth');
  if (depth === 0) return middle;
  const swings = Array.from({ length: PLACES }, (_, i) => depth * ((2 * i) / (PLACES - 1) - 1));
  const seen = swings.map((swing) => still(Math.max(-1, Math.min(1, number('place') + swing))).left);
  const behindTurns = number('phase') / 360;
  // In the middle of a sweep through zero the copy lies on the sound, and there is nothing to be seen: it is drawn half
  // way out.
  const rest = values.throughZero === true ? 0.5 * depth : 0;
  return {
    ...middle,
    ...(rest > 0 ? { left: still(Math.min(1, number('place') + rest)).left } : {}),
    sweep: {
      octaves: swings,
      left: seen,
      right: behindTurns > 0 ? seen : null,
      depth,
      hz: number('rate'),
      behindTurns,
      slides: false,
      rest,
    },
  };
}

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'A comb that stands still.', values: { depth: 0 } },
  {
    id: 'jetty',
    name: 'Off the jetty',
    purpose: 'Long slow sweep over a whole mix or a pad.',
    values: { delay: 3.2, depth: 0.95, rate: '4 bars', feedback: 0.25 },
  },
  {
    id: 'twoTapes',
    name: 'Two tapes',
    purpose: 'Through zero: the moment at which everything falls together.',
    values: { throughZero: true, delay: 4, depth: 1, rate: 0.11, turned: true },
  },
  {
    id: 'tinRoof',
    name: 'Tin roof',
    purpose: 'Sharp, ringing and metallic, for drums and hats.',
    values: { delay: 0.7, feedback: 0.78, depth: 0.6, rate: '1 bar' },
  },
  {
    id: 'hollowReed',
    name: 'Hollow reed',
    purpose: 'Turned over: a voice through a pipe.',
    values: { delay: 1.1, feedback: -0.55, turned: true, depth: 0.35, rate: 0.3 },
  },
  {
    id: 'handSweep',
    name: 'By hand',
    purpose: 'Stands until its place is ridden: draw the sweep of a transition.',
    values: { delay: 3, depth: 0, feedback: 0.5 },
  },
  {
    id: 'crossing',
    name: 'Crossing',
    purpose: 'The sides sweep against each other: wide keys and guitars.',
    values: { delay: 2, depth: 0.8, phase: 180, rate: 0.17, feedback: 0.2 },
  },
];

export const flanger = defineEffect({
  id: 'flanger',
  name: 'Flanger',
  family: 'modulation',
  purpose: 'The sound against a copy of itself whose lateness swings: a comb that travels.',
  params: flangerParams,
  presets,
  headline: ['delay', 'feedback'],
  createProcessor: create,
  picture,
});
