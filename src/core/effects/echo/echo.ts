import { defineEffect } from '../define';
import { echoParams } from './params';
import { pictureOfEcho } from './picture';
import { echoPresets } from './presets';
import { EchoProcessor } from './processor';

export const echo = defineEffect({
  id: 'echo',
  name: 'Echo',
  family: 'delay',
  purpose: 'Repeats in time, through a loop that can darken, drive, smear and waver them.',
  params: echoParams,
  presets: echoPresets,
  holds: ['hold'],
  headline: ['timeL', 'feedback'],
  createProcessor: (sampleRate) => new EchoProcessor(sampleRate),
  picture: pictureOfEcho,
});
