import { defineEffect, type Preset } from '../define';
import { braidParams, MAX_STRANDS, ROW_GROUP, ROW_IDS } from './params';
import { patternPresets } from './patternPresets';
import { whenGroup, type VisibleWhen } from '../visibleWhen';

const PATTERN = { param: 'plays', is: 'pattern' } as const;

const apart = { level1: 1, level2: 1 };

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Two empty strands that make up the whole: lay effects into either.',
    values: {},
  },
  {
    id: 'keelAndSail',
    name: 'Keel and sail',
    purpose: 'Mid down one strand, side down the other, to treat them apart.',
    values: { ...apart, input1: 'mid', input2: 'side' },
    strands: [
      { place: 1, name: 'Mid', chain: [] },
      { place: 2, name: 'Side', chain: [] },
    ],
  },
  {
    id: 'portAndStarboard',
    name: 'Port and starboard',
    purpose: 'Left and right down their own strands.',
    values: { ...apart, input1: 'left', input2: 'right', pan1: -1, pan2: 1 },
    strands: [
      { place: 1, name: 'Left', chain: [] },
      { place: 2, name: 'Right', chain: [] },
    ],
  },
  {
    id: 'dryLeftWetRight',
    name: 'Shore and echo wall',
    purpose: 'The part dry at the left, its space at the right: wide from mono.',
    values: { ...apart, pan1: -1, pan2: 1, level2: 1.1 },
    strands: [
      { place: 1, name: 'Dry', chain: [] },
      {
        place: 2,
        name: 'Space',
        chain: [{ effect: 'reverb', preset: 'brassSheet', values: { balance: 'mix', mix: 1 } }],
      },
    ],
  },
  {
    id: 'bloom',
    name: 'Bloom',
    purpose: 'The part itself beside rising taps into a long hall.',
    values: { ...apart, level2: 0.7 },
    strands: [
      { place: 1, name: 'Dry', chain: [] },
      {
        place: 2,
        name: 'Bloom',
        chain: [
          { effect: 'taps', preset: 'neutral', values: { balance: 'mix', mix: 1 } },
          { effect: 'reverb', preset: 'tideRise', values: { balance: 'mix', mix: 1 } },
        ],
      },
    ],
  },
  {
    id: 'lateTwin',
    name: 'Late twin',
    purpose: 'The same sound twice, the second 19 ms later and to the right.',
    values: { level1: 1, level2: 0.9, pan1: -0.6, pan2: 0.6, align2: 19 },
    strands: [
      { place: 1, name: 'First', chain: [] },
      { place: 2, name: 'Late', chain: [] },
    ],
  },
  {
    id: 'turnByTurn',
    name: 'Turn by turn',
    purpose: 'Four treatments, one at a time: move Strand to change between them.',
    values: { plays: 'one', level1: 1, level2: 1, level3: 1, level4: 1 },
    strands: [
      { place: 1, name: 'As it is', chain: [] },
      { place: 2, name: 'Echo', chain: [{ effect: 'echo', preset: 'neutral' }] },
      { place: 3, name: 'Phase', chain: [{ effect: 'phaser', preset: 'neutral' }] },
      { place: 4, name: 'Shed', chain: [{ effect: 'reverb', preset: 'boatShed', values: { mix: 0.6 } }] },
    ],
  },
  ...patternPresets,
];

export const braid = defineEffect({
  id: 'braid',
  name: 'Braid',
  family: 'braid',
  maxStrands: MAX_STRANDS,
  sampleAccurateSwitch: 'taken',
  purpose: 'Parts the sound into strands, each with its own effects: side by side, or one per step of a pattern.',
  searchWords: 'parallel split layers side by side rack mid side sequencer pattern',
  params: braidParams,
  presets,
  headline: ['plays'],
  editorParts: [{ part: 'strandRow', replaces: ROW_GROUP, after: 'order', when: { param: 'order', is: 'drawn' } }],
  visibleWhen: {
    chosen: [{ param: 'plays', is: 'one' }],
    crossfade: [{ param: 'plays', isNot: 'all' }],
    ...whenGroup(braidParams, 'Pattern', PATTERN),
    roll: [PATTERN, { param: 'order', is: 'thrown' }],
    ...(Object.fromEntries(
      ROW_IDS.map((id, i) => [id, [PATTERN, { param: 'order', is: 'drawn' }, { param: 'steps', atLeast: i + 1 }]]),
    ) as VisibleWhen),
    ...(Object.assign(
      {},
      ...Array.from({ length: MAX_STRANDS }, (_, i) => whenGroup(braidParams, `Strand ${i + 1}`, { strand: i + 1 })),
    ) as VisibleWhen),
  },
});
