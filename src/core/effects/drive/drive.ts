import { defineEffect, type Preset } from '../define';
import { driveParams } from './params';
import { whenGroup } from '../visibleWhen';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'A little tape, as loud as it came.', values: { drive: 6 } },
  {
    id: 'warmHold',
    name: 'Warm hold',
    purpose: 'Body for a thin voice or bass, hardly heard as drive.',
    values: { curve: 'tube', drive: 9, bias: 0.15, tone: -0.15 },
  },
  {
    id: 'redIron',
    name: 'Red iron',
    purpose: 'Firm and close: drums and bass that must stand in front.',
    values: { curve: 'transistor', drive: 20, tone: 0.1 },
  },
  {
    id: 'crackedHorn',
    name: 'Cracked horn',
    purpose: 'Speech from a broken loudspeaker on the quay.',
    values: { curve: 'hard', drive: 30, bandAmount: 16, bandHz: 1400, bandWidth: 1.8, tone: 0.25 },
  },
  {
    id: 'spareLow',
    name: 'Spare the keel',
    purpose: 'Rough above, with the lowest octaves left clean.',
    values: { curve: 'soft', drive: 22, bandAmount: -18, bandHz: 80, bandWidth: 3 },
  },
  {
    id: 'foldedSail',
    name: 'Folded sail',
    purpose: 'Folds a pure tone into a bright, moving one: ride the drive.',
    values: { curve: 'fold', drive: 15, oversampling: '8', tone: -0.2 },
  },
  {
    id: 'saltWire',
    name: 'Salt wire',
    purpose: 'Wrapped round and torn: a texture under a riser.',
    values: { curve: 'wrap', drive: 14, oversampling: '8', mix: 0.6, tone: -0.4 },
  },
  {
    id: 'ownHand',
    name: 'Own hand',
    purpose: 'A staircase drawn by hand: draw your own in the picture.',
    values: {
      curve: 'drawn',
      drive: 12,
      height1: -0.9,
      height2: -0.9,
      height3: -0.35,
      height4: -0.35,
      height5: 0,
      height6: 0.35,
      height7: 0.35,
      height8: 0.9,
      height9: 0.9,
    },
  },
];

export const drive = defineEffect({
  id: 'drive',
  name: 'Drive',
  family: 'tone',
  purpose: 'Bends the wave: warm, rough, folded or torn, as loud as it came in.',
  searchWords: 'distortion saturation overdrive fuzz warm tape tube clip clipping',
  params: driveParams,
  presets,
  headline: ['curve', 'drive'],
  visibleWhen: whenGroup(driveParams, 'Drawn', { param: 'curve', is: 'drawn' }),
});
