import { defineEffect, type Preset } from '../define';
import { crushParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Twelve bits, at the rate it came.', values: { rate: 48_000, bits: 12 } },
  {
    id: 'oldSampler',
    name: 'Tin sampler',
    purpose: 'Drums as from a box with little memory.',
    searchWords: 'lofi sampler hip hop drums',
    values: { rate: 22_000, bits: 10, before: 10_000, after: 12_000 },
  },
  {
    id: 'toyBoat',
    name: 'Toy boat',
    purpose: 'Small, buzzing and bright: keys and voices as from a toy.',
    values: { rate: 9000, bits: 6, bend: 0.3 },
  },
  {
    id: 'rustRain',
    name: 'Rust rain',
    purpose: 'An unsteady clock over hats and textures.',
    values: { rate: 5200, wobble: 0.7, bits: 12, after: 9000 },
  },
  {
    id: 'downTheWell',
    name: 'Down the well',
    purpose: 'Ride the sample rate to the left at the end of a bar.',
    values: { rate: 16_000, bits: 16, before: 20_000 },
  },
  {
    id: 'oneBit',
    name: 'One wire',
    purpose: 'One bit alone: everything becomes a square wave.',
    values: { rate: 48_000, bits: 1, bias: 0.5, after: 5000 },
  },
  {
    id: 'gravel',
    name: 'Gravel',
    purpose: 'Coarse where it is quiet: tails that crumble.',
    values: { rate: 14_000, bits: 5, bend: -0.7, mix: 0.5 },
  },
];

export const crush = defineEffect({
  id: 'crush',
  name: 'Crush',
  family: 'tone',
  purpose: 'Fewer samples, fewer heights: steps in the wave, at the level it came in.',
  searchWords: 'bitcrusher bit crusher lofi lo-fi sample rate retro 8 bit downsample',
  params: crushParams,
  presets,
  headline: ['rate', 'bits'],
});
