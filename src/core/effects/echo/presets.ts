import type { Preset } from '../define';

const NEUTRAL: Preset = {
  id: 'neutral', name: 'Neutral', purpose: 'Clean repeats and nothing else: no filter, drive, waver, smear or ducking.',
  values: { balance: 'levels', dry: 1, wet: 1, timeL: '1/4', feedback: 0.5 },
};

/** Named for a purpose, in our own words. */
export const echoPresets: readonly Preset[] = [
  NEUTRAL,
  {
    id: 'callAcross', name: 'Call across the water', purpose: 'A voice answered from the far bank, a little darker each time.',
    values: { timeL: '1/8d', feedback: 0.58, mix: 0.28, routing: 'pingpong', filter: 'low', cutoff: 3200, resonance: 0.1, diffusion: 0.12, width: 1.2, duck: 6 },
  },
  {
    id: 'hullSlap', name: 'Hull slap', purpose: 'One short slap that stands a voice or drum off the wall.',
    values: { timeL: 95, feedback: 0.08, mix: 0.24, filter: 'low', cutoff: 5200, drive: 4, driveKind: 'tape', wowDepth: 0.15 },
  },
  {
    id: 'throwToGap', name: 'Throw into the gap', purpose: 'Input shut until you ride it: throw a word and let it ring on.',
    values: { timeL: '1/4d', feedback: 0.72, input: 0, balance: 'levels', dry: 1, wet: 0.8, filter: 'band', cutoff: 1400, resonance: 0.1, drive: 6, driveKind: 'tube', diffusion: 0.2 },
  },
  {
    id: 'deepHold', name: 'Under the pier', purpose: 'Heavy dark repeats for dub throws on snare or chord.',
    values: { timeL: '1/4d', feedback: 0.78, mix: 0.35, filter: 'low', cutoff: 1500, resonance: 0.35, filterDepth: 0.6, filterRate: '1 bar', drive: 9, driveKind: 'tape', wowDepth: 0.35, eqLow: -4 },
  },
  {
    id: 'steppingStones', name: 'Stepping stones', purpose: 'Sixteenths that hop from side to side under plucked parts.',
    values: { timeL: '1/16d', feedback: 0.5, mix: 0.3, routing: 'pingpong', filter: 'high', cutoff: 350, eqHigh: -3, width: 1.4 },
  },
  {
    id: 'twoFerries', name: 'Two ferries', purpose: 'Different times left and right that weave into one pattern.',
    values: { timeL: '1/8d', timeR: '1/4t', linked: false, feedback: 0.48, crossFeed: 0.25, mix: 0.3, filter: 'low', cutoff: 4800, width: 1.3 },
  },
  {
    id: 'wornReel', name: 'Worn reel', purpose: 'Unsteady, warm and a bit dull, for keys and guitar.',
    values: { timeL: '1/4', feedback: 0.5, mix: 0.32, filter: 'low', cutoff: 2600, drive: 8, driveKind: 'tape', wowDepth: 0.8, wowRate: 0.7, flutterDepth: 0.18, diffusion: 0.15, eqLow: -2 },
  },
  {
    id: 'radioMast', name: 'Radio mast', purpose: 'Narrow, coarse repeats, as through a small speaker far off.',
    values: { timeL: '1/8', feedback: 0.55, mix: 0.3, filter: 'band', cutoff: 1800, resonance: 0.3, drive: 12, driveKind: 'transistor', rateReduction: 9000, bitDepth: 10 },
  },
  {
    id: 'fogBank', name: 'Fog bank', purpose: 'Repeats that melt into a haze behind pads and long tones.',
    values: { timeL: '1/2', feedback: 0.74, mix: 0.4, diffusion: 0.85, diffusionSides: 0.9, filter: 'low', cutoff: 2200, wowDepth: 0.5, wowRate: 0.3, width: 1.6, crossFeed: 0.3 },
  },
  {
    id: 'doubledPlank', name: 'Doubled plank', purpose: 'A close second take that thickens without being heard as echo.',
    values: { timeL: 24, timeR: 31, linked: false, feedback: 0, mix: 0.4, wowDepth: 0.4, wowRate: 0.9, flutterDepth: 0.08, sideOffset: 6, width: 1.5 },
  },
  {
    id: 'tideTurns', name: 'Tide turns', purpose: 'Feedback just over 100 %: grows by itself until the guard holds it. Ride it.',
    values: { timeL: '1/4', feedback: 1.06, mix: 0.3, filter: 'band', cutoff: 900, resonance: 0.2, filterDepth: 1.2, filterRate: '2 bars', drive: 10, driveKind: 'tube', input: 0.6 },
  },
  {
    id: 'bowAside', name: 'Bow aside', purpose: 'Full repeats that make way while the voice sings and rise in its breaths.',
    values: { timeL: '1/4', feedback: 0.55, mix: 0.42, duck: 18, duckThreshold: -40, duckRelease: 350, filter: 'low', cutoff: 5000, width: 1.3 },
  },
  {
    id: 'brassPipe', name: 'Brass pipe', purpose: 'A few milliseconds of strong feedback: a tuned metallic ring on hits.',
    values: { timeL: 6.8, feedback: 0.88, mix: 0.35, filter: 'low', cutoff: 6500, change: 'crossfade' },
  },
];
