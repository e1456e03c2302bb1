import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { tapeStopParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Stops evenly within half a bar.',
    values: { ...NEUTRAL },
  },
  {
    id: 'anchorDown',
    name: 'Anchor down',
    purpose: 'The whole song stops within a beat, before the drop.',
    values: { time: '1/4', startsOn: '1/4', endsOn: '1 bar' },
  },
  {
    id: 'longEbb',
    name: 'Long ebb',
    purpose: 'Sinks over a whole bar and is gone: the end of a part.',
    values: { time: '1 bar', curve: -0.4, startsOn: '1/4', endsOn: '1 bar' },
  },
  {
    id: 'pulledUp',
    name: 'Pulled up',
    purpose: 'From nothing up to speed, in time for the next bar.',
    values: { direction: 'start', time: '1/2', startsOn: '1/8', endsOn: '1 bar' },
  },
  {
    id: 'dipped',
    name: 'Dip',
    purpose: 'Down by an octave and back within a beat.',
    values: { direction: 'bend', time: '1/4', startsOn: '1/8', endsOn: '1/8' },
  },
  {
    id: 'seasick',
    name: 'Seasick',
    purpose: 'A slow bend that does not turn quite evenly.',
    values: { direction: 'bend', time: '1/1', depth: 0.3, wow: 0.7, startsOn: '1/4', endsOn: '1/4' },
  },
  {
    id: 'quickBrake',
    name: 'Quick brake',
    purpose: 'As short as a hit: a brake in the middle of a fill.',
    values: { time: '1/16', curve: 0.3, startsOn: '1/16', endsOn: '1/16' },
  },
  {
    id: 'stumble',
    name: 'Stumble',
    purpose: 'Stops for a moment and goes on with the sound.',
    values: { time: '1/8', after: 'sound', startsOn: '1/8', endsOn: '1/8' },
  },
  {
    id: 'powerCut',
    name: 'Power cut',
    purpose: 'Falls at once and then creeps to its end.',
    searchWords: 'power down',
    values: { time: '1/1', curve: 0.8, highCut: 4000, startsOn: '1/8', endsOn: '1 bar' },
  },
];

export const tapeStop = defineHold({
  id: 'tapeStop',
  name: 'Tape stop',
  purpose: 'While it is held, the sound slows to a stop, comes up from one, or bends.',
  searchWords: 'tape stop brake turntable stop slow down power down vinyl',
  glyph: 'M4 5h12c12 0 20 3 28 11',
  params: tapeStopParams,
  presets,
  headline: ['direction', 'time'],
  visibleWhen: {
    depth: [{ param: 'direction', is: 'bend' }],
    after: [{ param: 'direction', is: 'stop' }],
  },
});
