import { defineEffect, type Preset } from '../define';
import { widthParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Mid and side as they are.', values: {} },
  {
    id: 'firmKeel',
    name: 'Firm keel',
    purpose: 'Bass in the middle, the rest as wide as before.',
    values: { bassMono: 130 },
  },
  {
    id: 'openSound',
    name: 'Open sound',
    purpose: 'Wider above, firm below: for pads and returns.',
    values: { side: 4, bassMono: 160, sideLowCut: 220 },
  },
  {
    id: 'narrowBoat',
    name: 'Narrow boat',
    purpose: 'Draws a wide part together, so that others have the sides.',
    values: { side: -8 },
  },
  {
    id: 'outriggers',
    name: 'Outriggers',
    purpose: 'The sides alone, much quieter than the whole: what a mono speaker would lose.',
    values: { mid: -60 },
  },
  { id: 'oneMast', name: 'One mast', purpose: 'Mono, to check.', values: { mono: true } },
  { id: 'aboutTurn', name: 'About turn', purpose: 'Left and right change places.', values: { swap: true } },
];

export const width = defineEffect({
  id: 'width',
  name: 'Width',
  family: 'space',
  purpose: 'Mid against side, with the bass kept in the middle.',
  searchWords: 'mid side M/S widen wide stereo mono bass mono',
  params: widthParams,
  presets,
  headline: ['side', 'bassMono'],
});
