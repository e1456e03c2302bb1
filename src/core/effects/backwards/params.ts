import { choice, figure, time } from '../../params/make';
import type { Params } from '../../params/param';
import { holdParams } from '../hold/params';

export const MODES = ['slices', 'on'] as const;

export const backwardsParams = {
  ...holdParams,
  length: time({
    label: 'Length',
    group: 'Backwards',
    hint: 'How much is turned round at once: short slices keep the tune, long ones lose it.',
    min: 20,
    max: 16_000,
    initial: '1/4',
  }),
  mode: choice({
    label: 'Mode',
    group: 'Backwards',
    hint: 'Slice by slice it goes with what comes; on and on it goes back into the past.',
    initial: 'slices',
    options: [
      { id: 'slices', label: 'slice by slice' },
      { id: 'on', label: 'on and on' },
    ],
  }),
  crossfade: figure({
    label: 'Crossfade',
    group: 'Backwards',
    hint: 'How softly one slice goes over into the next.',
    unit: 'ms',
    min: 1,
    max: 200,
    initial: 1,
    taper: { kind: 'log' },
  }),
} satisfies Params;
