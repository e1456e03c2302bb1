import type { Preset } from '../define';

/** Named for a purpose, in our own words. */
export const reverbPresets: readonly Preset[] = [
  {
    id: 'neutral', name: 'Neutral', purpose: 'A plain hall without cuts, damping, motion or first reflections.',
    values: { balance: 'levels', dry: 1, wet: 1, space: 'hall', decay: 2000, early: 0, highDecay: 1, lowDecay: 1, lowCut: 20, highCut: 20_000, modDepth: 0, diffusion: 0.75 },
  },
  { id: 'openWater', name: 'Over open water', purpose: 'A wide hall in time with the piece, for a voice that shall stand alone.', values: { space: 'hall', decay: '2 bars', preDelay: '1/32', mix: 0.28, highDecay: 0.5 } },
  { id: 'boatShed', name: 'Boat shed', purpose: 'Wooden walls close by: puts dry parts into one place.', values: { space: 'room', decay: 700, early: 1, mix: 0.25, highDecay: 0.55, lowDecay: 0.8, lowCut: 180 } },
  { id: 'saltCistern', name: 'Salt cistern', purpose: 'Long, dark and heavy, for bass notes and single hits.', values: { space: 'chamber', decay: 6500, size: 1.6, mix: 0.32, highDecay: 0.25, highFrom: 3000, lowDecay: 1.6, lowCut: 40, width: 1.2 } },
  { id: 'brassSheet', name: 'Brass sheet', purpose: 'Dense at once and bright, for snares and plucked parts.', values: { space: 'plate', decay: 1600, early: 0, mix: 0.26, highDecay: 0.75, highFrom: 9000, lowCut: 250, diffusion: 0.95 } },
  { id: 'mooringCoil', name: 'Mooring coil', purpose: 'A sprung, splashing answer for guitar and organ.', values: { space: 'spring', decay: 2400, early: 0, mix: 0.3, highCut: 4200, lowCut: 160, highDecay: 0.6, modDepth: 0.05, diffusion: 0.35 } },
  { id: 'seaFret', name: 'Sea fret', purpose: 'No walls, only drift: turns a held note into a bed.', values: { space: 'cloud', decay: 14_000, mix: 0.5, early: 0, modDepth: 1.4, modRate: 0.35, swell: 600, diffusion: 1, lowCut: 200, highDecay: 0.6, width: 1.3 } },
  { id: 'tideRise', name: 'Tide rise', purpose: 'Swells for half a second before it falls: reverse-like lift into the next hit.', values: { space: 'hall', decay: 3200, swell: 520, early: 0, mix: 0.42, diffusion: 1 } },
  { id: 'frozenBay', name: 'Frozen bay', purpose: 'Play a chord in, then seal it: a bed that holds its level.', values: { space: 'cloud', decay: 20_000, mix: 0.6, early: 0, modDepth: 0.6, diffusion: 1, width: 1.4 } },
  { id: 'bowToVoice', name: 'Bow to the voice', purpose: 'A large hall that makes way while the voice sings.', values: { space: 'hall', decay: 4000, preDelay: 30, mix: 0.4, duck: 14, duckThreshold: -38, duckRelease: 420, highDecay: 0.5 } },
];
