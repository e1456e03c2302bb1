import { figure, toggle } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const limiterParams = {
  ...WHOLLY_WET_LINEAR,
  gain: figure({
    label: 'Gain',
    group: 'Level',
    hint: 'How hard the sound is pushed against the ceiling.',
    unit: 'db',
    min: 0,
    max: 24,
    initial: 0,
    notches: [0],
  }),
  ceiling: figure({
    label: 'Ceiling',
    group: 'Level',
    hint: 'No peak goes above it.',
    unit: 'db',
    min: -24,
    max: 0,
    initial: -1,
  }),
  release: figure({
    label: 'Release',
    group: 'Time',
    hint: 'How soon the level comes back after a peak: short is loud and rough, long is smooth.',
    unit: 'ms',
    min: 5,
    max: 1000,
    initial: 120,
  }),
  lookAhead: figure({
    mutesOnChange: true,
    label: 'Look-ahead',
    group: 'Time',
    hint: 'How early it gives way before a peak: longer is cleaner; all is that much later.',
    unit: 'ms',
    min: 0.5,
    max: 8,
    initial: 2,
    smoothingSeconds: 0,
  }),
  truePeak: toggle({
    label: 'True peak',
    group: 'Level',
    hint: 'Heeds the peaks between the samples, which a converter will make.',
    initial: true,
  }),
} satisfies Params;
