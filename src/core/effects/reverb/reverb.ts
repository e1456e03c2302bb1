import { defineEffect } from '../define';
import { reverbParams } from './params';
import { pictureOfReverb } from './picture';
import { reverbPresets } from './presets';
import { ReverbProcessor } from './processor';

export const reverb = defineEffect({
  id: 'reverb',
  name: 'Reverb',
  family: 'reverb',
  purpose: 'A space to stand in: room, chamber, hall, plate, spring or cloud, which can swell, bow and freeze.',
  params: reverbParams,
  presets: reverbPresets,
  holds: ['freeze'],
  headline: ['space', 'decay'],
  createProcessor: (sampleRate) => new ReverbProcessor(sampleRate),
  picture: pictureOfReverb,
});
