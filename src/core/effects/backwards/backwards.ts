import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { backwardsParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Turns quarters round as they are.', values: { ...NEUTRAL } },
  {
    id: 'undertow',
    name: 'Undertow',
    purpose: 'Eighths turned round: the beat stays, the strokes are sucked in.',
    values: { length: '1/8', startsOn: '1/8', endsOn: '1/8', crossfade: 3 },
  },
  {
    id: 'intoTheGap',
    name: 'Into the gap',
    purpose: 'The last bar backwards, where a part ends.',
    values: { length: '1 bar', startsOn: '1/4', endsOn: '1 bar', crossfade: 6 },
  },
  {
    id: 'ebbOnAndOn',
    name: 'Ebb',
    purpose: 'Back and back into what was played: for breaks without a beat.',
    values: { mode: 'on', startsOn: '1/4', endsOn: '1/4', fadeIn: 20, fadeOut: 40 },
  },
  {
    id: 'turnedVoice',
    name: 'Turned voice',
    purpose: 'Half bars of a voice, softly joined.',
    values: { length: '1/2', startsOn: '1/4', endsOn: '1/4', crossfade: 40 },
  },
  {
    id: 'wakeBehind',
    name: 'Wake',
    purpose: 'Backwards under the sound as it goes on.',
    values: {
      length: '1/4',
      startsOn: '1/8',
      endsOn: '1/8',
      heard: 'blend',
      blend: 0.55,
      highCut: 5000,
      crossfade: 20,
    },
  },
  {
    id: 'shuffledFeet',
    name: 'Shuffled feet',
    purpose: 'Sixteenths turned round: hats and shakers run the other way.',
    values: { length: '1/16', startsOn: '1/16', endsOn: '1/16', crossfade: 2, lowCut: 150 },
  },
  {
    id: 'smear',
    name: 'Smear',
    purpose: 'Long slices with long crossings: a chord becomes a cloud of itself.',
    values: { length: '1 bar', startsOn: '1/4', endsOn: '1/4', crossfade: 200, fadeIn: 30, fadeOut: 50 },
  },
];

export const backwards = defineHold({
  id: 'backwards',
  name: 'Backwards',
  purpose: 'While it is held, what has just passed is heard in reverse.',
  searchWords: 'reverse reversed rewind',
  glyph: 'M44 17C30 17 16 12 8 5M8 5l9 0M8 5l1 8',
  params: backwardsParams,
  presets,
  headline: ['length', 'startsOn'],
  visibleWhen: { length: [{ param: 'mode', is: 'slices' }] },
});
