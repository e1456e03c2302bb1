import type { Preset } from '../define';
import { defineHold } from '../hold/define';
import { NEUTRAL } from '../hold/params';
import { stutterParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Repeats an eighth as it is.', values: { ...NEUTRAL } },
  {
    id: 'lastWord',
    name: 'Last word',
    purpose: 'The last quarter of a part again and again, until you let go on the bar.',
    values: { slice: '1/4', startsOn: '1/4', endsOn: '1 bar' },
  },
  {
    id: 'deckRattle',
    name: 'Deck rattle',
    purpose: 'Sixteenths of the drums, firm on the grid.',
    values: { slice: '1/16', startsOn: '1/16', endsOn: '1/16', from: 'after' },
  },
  {
    id: 'windlass',
    name: 'Windlass',
    purpose: 'Faster and faster into the next part, up to a hum.',
    values: { slice: '1/8', startsOn: '1/8', endsOn: '1 bar', speedUp: 0.12 },
  },
  {
    id: 'gullStair',
    name: 'Gull stair',
    purpose: 'Climbs by two semitones with each eighth.',
    values: { slice: '1/8', startsOn: '1/8', endsOn: '1/8', pitch: 2 },
  },
  {
    id: 'sinkingStone',
    name: 'Sinking stone',
    purpose: 'Falls and fades away under whatever comes next.',
    values: { slice: '1/8d', startsOn: '1/8', endsOn: '1/4', pitch: -1, decay: 0.2, heard: 'blend', blend: 0.7 },
  },
  {
    id: 'hullTone',
    name: 'Hull tone',
    purpose: 'A slice so short that it becomes a note.',
    values: { slice: 9, startsOn: '1/16', endsOn: '1/16', fadeIn: 4, fadeOut: 20, highCut: 6000 },
  },
  {
    id: 'toAndFro',
    name: 'To and fro',
    purpose: 'Forwards and backwards in turn, for voices and chords.',
    values: { slice: '1/4', startsOn: '1/8', endsOn: '1/8', backwards: 'second' },
  },
  {
    id: 'fresh',
    name: 'Fresh catch',
    purpose: 'Sixteenths that are taken anew on every beat: it goes with the changes underneath.',
    values: { slice: '1/16', startsOn: '1/16', endsOn: '1/16', catchEvery: '1/4' },
  },
];

export const stutter = defineHold({
  id: 'stutter',
  name: 'Stutter',
  purpose: 'While it is held, a slice of what has just passed is repeated on the grid.',
  searchWords: 'repeat loop roll glitch buffer retrigger',
  glyph: 'M6 3v14M14 3v14M22 4v12M30 6v8M38 8v4',
  params: stutterParams,
  presets,
  headline: ['slice', 'startsOn'],
});
