import { defineEffect } from '../define';
import { reverbFields } from './fields';
import { reverbParams } from './params';
import { reverbPresets } from './presets';

export const reverb = defineEffect({
  id: 'reverb',
  name: 'Reverb',
  family: 'reverb',
  purpose: 'A space to stand in: room, chamber, hall, plate, spring or cloud, which can swell, bow and freeze.',
  searchWords: 'ambience ambient space tail decay lush freeze chamber hall plate room spring wash gated',
  params: reverbParams,
  presets: reverbPresets,
  holds: ['freeze'],
  sampleAccurateSwitch: 'freeze',
  headline: ['space', 'decay'],
  fields: reverbFields,
});
