import type { ParamValues, ValueContext } from '../../params/param';
import { defineEffect, type Preset } from '../define';
import { numbersOf, pullOn } from '../handles';
import type { RepeatsPicture } from '../pictures';
import { PICTURE_RATE, repeatsPicture } from '../repeatsPicture';
import { grainsParams } from './params';
import { GrainsProcessor } from './processor';

const create = (sampleRate: number): GrainsProcessor => new GrainsProcessor(sampleRate);

const TONE_HZ = 300;

/**
 * Where the grains bring a short tone back: each grain that it falls into is a ripple. It lasts so long that even few
 * grains meet it, and has the energy of a click.
 */
function picture(values: ParamValues, context: ValueContext): RepeatsPicture {
  const number = numbersOf(grainsParams, values, context);
  const [time, scatter] = [number('time'), number('scatter')];
  const sent = Math.round(Math.min(1, 2.5 / number('density')) * PICTURE_RATE);
  const level = Math.sqrt(2 / sent);
  const input = (i: number): readonly [number, number] => {
    const x = i < sent ? level * Math.sin((2 * Math.PI * TONE_HZ * i) / PICTURE_RATE) : 0;
    return [x, x];
  };
  const span = Math.min(7, sent / PICTURE_RATE + (time + scatter) * 0.0011 + number('size') / 1000 + 0.05);
  return repeatsPicture(
    {
      create,
      params: grainsParams,
      values: { ...values, freeze: false, feedback: 0, semitones: 0, octaves: 0, detune: 0 },
      context,
      input,
    },
    span,
    0.004,
    [
      {
        label: 'Time back',
        x: time / 1000,
        y: 0.7,
        pullX: pullOn(grainsParams, values, context, 'time', 'add', 1000),
        pullY: null,
      },
    ],
  );
}

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'An even stream, in tune, in the middle.',
    values: { scatter: 20, regular: 1, detune: 0, spread: 0 },
  },
  {
    id: 'fog',
    name: 'Fog over slack water',
    purpose: 'A bed of long grains out of any chord or voice.',
    values: { size: 420, density: 22, scatter: 900, time: '1/2', spread: 1, mix: 0.6 },
  },
  {
    id: 'frozenFog',
    name: 'Standing fog',
    purpose: 'Freeze it on a moment and let it lie under what comes.',
    values: { size: 380, density: 30, scatter: 320, time: 400, spread: 1, mix: 0.6 },
  },
  {
    id: 'spray',
    name: 'Spray',
    purpose: 'Bright drops an octave up behind a plucked part.',
    values: { size: 46, density: 14, scatter: 260, semitones: 12, regular: 0, spread: 1, mix: 0.4 },
  },
  {
    id: 'climbing',
    name: 'Climbing smoke',
    purpose: 'Each turn a fifth higher: under a riser.',
    values: { size: 160, density: 26, scatter: 120, semitones: 7, feedback: 0.8, mix: 0.5 },
  },
  {
    id: 'undertow',
    name: 'Backwash',
    purpose: 'Backwards and low: a pull before a break.',
    values: { size: 300, density: 12, backwards: 1, semitones: -12, time: '1/4', scatter: 200, mix: 0.5 },
  },
  {
    id: 'gravelBed',
    name: 'Gravel bed',
    purpose: 'Very short grains: a voice or drum turned to texture.',
    values: { size: 14, density: 70, scatter: 30, time: 60, regular: 0.1, mix: 0.7 },
  },
  {
    id: 'octaveSwarm',
    name: 'Swarm',
    purpose: 'Leaping octaves all round: wide, unquiet pads.',
    values: { size: 180, density: 36, octaves: 0.6, detune: 12, scatter: 420, spread: 1, mix: 0.55 },
  },
];

export const grains = defineEffect({
  id: 'grains',
  name: 'Grains',
  family: 'delay',
  purpose: 'Short pieces of what has passed, scattered, turned and laid over one another: clouds and beds.',
  params: grainsParams,
  presets,
  headline: ['time', 'density'],
  holds: ['freeze'],
  createProcessor: create,
  picture,
});
