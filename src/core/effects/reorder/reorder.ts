import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { whenGroup } from '../visibleWhen';
import { reorderParams } from './params';

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'The last bar as it was, again and again.',
    values: { ...NEUTRAL, order: 'drawn' },
  },
  {
    id: 'spilledCrate',
    name: 'Spilled crate',
    purpose: 'Eighths of the last bar in a throw of chance.',
    values: { startsOn: '1/8', endsOn: '1/8' },
  },
  {
    id: 'backAndForth',
    name: 'Back and forth',
    purpose: 'From the last slice to the first, beat by beat.',
    values: { order: 'turned', slice: '1/4', startsOn: '1/4', endsOn: '1/4' },
  },
  {
    id: 'brokenOars',
    name: 'Broken oars',
    purpose: 'Sixteenths with gaps: a beat becomes a pattern of its own.',
    values: { slice: '1/16', gaps: 0.3, startsOn: '1/8', endsOn: '1/8', roll: 7 },
  },
  {
    id: 'turnedNets',
    name: 'Turned nets',
    purpose: 'Half of the slices run backwards.',
    values: { slice: '1/8', backwards: 0.5, startsOn: '1/8', endsOn: '1/8', roll: 12 },
  },
  {
    id: 'callTwice',
    name: 'Call twice',
    purpose: 'The first beat twice, then the last two: an answer from the same words.',
    values: {
      order: 'drawn',
      slice: '1/4',
      place1: 1,
      place2: 1,
      place3: 4,
      place4: 4,
      startsOn: '1/4',
      endsOn: '1 bar',
    },
  },
  {
    id: 'gravel',
    name: 'Gravel',
    purpose: 'Thirty-seconds thrown about: all that is left is texture.',
    values: { slice: '1/32', window: '1/2', startsOn: '1/16', endsOn: '1/16', roll: 31 },
  },
  {
    id: 'twoBars',
    name: 'Two bars back',
    purpose: 'Takes from two bars, in halves: for chords and voices.',
    values: { window: '2 bars', slice: '1/2', startsOn: '1/2', endsOn: '1/2', fadeIn: 5, roll: 4 },
  },
  {
    id: 'echoOfOrder',
    name: 'Under it all',
    purpose: 'Thrown slices, dark and low, under the sound as it is.',
    values: { heard: 'blend', blend: 0.5, highCut: 3000, startsOn: '1/8', endsOn: '1/8', roll: 19 },
  },
];

export const reorder = defineHold({
  id: 'reorder',
  name: 'Reorder',
  purpose: 'While it is held, slices of the last bar are heard in another order.',
  searchWords: 'shuffle slices glitch rearrange beat slicer',
  glyph: 'M6 7h6v7H6zM17 4h6v12h-6zM28 8h6v5h-6zM39 5h5v10h-5z',
  params: reorderParams,
  presets,
  headline: ['slice', 'order'],
  visibleWhen: { ...whenGroup(reorderParams, 'Drawn order', { param: 'order', is: 'drawn' }) },
});
