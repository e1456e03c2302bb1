import type { Preset } from '../define';

export const filterPresets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'A plain low-pass without ring, drive or sway.',
    values: { resonance: 0 },
  },
  {
    id: 'underDeck',
    name: 'Under the deck',
    purpose: 'A part heard through planks: dull, with a little ring.',
    values: { kind: 'low', slope: '24', cutoff: 520, resonance: 0.18 },
  },
  {
    id: 'comeUp',
    name: 'Come up for air',
    purpose: 'Steep low-pass to ride open into a downbeat.',
    values: { kind: 'low', slope: '24', cutoff: 180, resonance: 0.3, drive: 3 },
  },
  {
    id: 'tinCup',
    name: 'Tin cup',
    purpose: 'Narrow, small and much quieter, for one line that should sound far off.',
    searchWords: 'telephone radio lofi lo-fi megaphone',
    values: { kind: 'band', slope: '12', cutoff: 1500, resonance: 0.3, drive: 6, trim: 2 },
  },
  {
    id: 'swellLine',
    name: 'Swell line',
    purpose: 'Sways with the bar under pads and held notes.',
    values: { kind: 'low', cutoff: 900, resonance: 0.25, lfoDepth: 1.4, lfoRate: '1 bar' },
  },
  {
    id: 'plankStep',
    name: 'Plank step',
    purpose: 'Opens with every hit, for percussion and plucked parts.',
    values: { kind: 'low', slope: '24', cutoff: 260, resonance: 0.35, envelope: 3, attack: 3, release: 140 },
  },
  {
    id: 'clearKeel',
    name: 'Clear the keel',
    purpose: 'Takes the bass away before a drop or under a return.',
    values: { kind: 'high', slope: '24', cutoff: 220, resonance: 0 },
  },
];
