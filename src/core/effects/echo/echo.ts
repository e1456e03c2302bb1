import { defineEffect } from '../define';
import { echoFields } from './fields';
import { echoParams } from './params';
import { echoPresets } from './presets';

export const echo = defineEffect({
  id: 'echo',
  name: 'Echo',
  family: 'delay',
  purpose: 'Repeats in time, through a loop that can darken, drive, smear and waver them.',
  searchWords: 'delay repeats slapback slap ping pong dub tape delay throw feedback LFO',
  params: echoParams,
  presets: echoPresets,
  holds: ['hold'],
  sampleAccurateSwitch: 'hold',
  headline: ['timeL', 'feedback'],
  follows: { while: 'linked', leaders: { timeR: 'timeL' } },
  visibleWhen: {
    timeR: [{ param: 'linked', is: false }],
    firstSide: [{ param: 'routing', is: 'pingpong' }],
  },
  fields: echoFields,
});
