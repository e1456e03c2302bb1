import { defineEffect } from '../define';
import { filterFields } from './fields';
import { filterParams } from './params';
import { filterPresets } from './presets';

export const filter = defineEffect({
  id: 'filter',
  name: 'Filter',
  family: 'tone',
  purpose: 'Takes away above, below or around a place that can be ridden, swayed or led by the sound.',
  searchWords: 'lowpass highpass low-pass high-pass bandpass telephone LFO sweep cutoff resonance wah envelope',
  params: filterParams,
  presets: filterPresets,
  headline: ['kind', 'cutoff'],
  fields: filterFields,
});
