import type { ReadyField } from '../define';

const AWAY = { param: 'mix', from: 0, to: 1 };
const RESONANCE = { param: 'resonance', from: 0, to: 0.8 };

/** Sweeps that are free of the filter in the centre of the field. */
export const filterFields: readonly ReadyField[] = [
  {
    id: 'lowWater',
    name: 'Low water',
    purpose: 'Low-pass: to the left it closes, upwards it rings.',
    preset: 'neutral',
    values: { kind: 'low', slope: '24' },
    across: { param: 'cutoff', from: 0.15, to: 0.95 },
    up: RESONANCE,
    away: AWAY,
  },
  {
    id: 'narrows',
    name: 'Narrows',
    purpose: 'Band-pass: only a band is left, which you carry up and down.',
    preset: 'neutral',
    values: { kind: 'band', slope: '12' },
    across: { param: 'cutoff', from: 0.2, to: 0.9 },
    up: RESONANCE,
    away: AWAY,
  },
  {
    id: 'spray',
    name: 'Spray',
    purpose: 'High-pass: to the right the bottom goes, upwards it rings.',
    preset: 'neutral',
    values: { kind: 'high', slope: '24' },
    across: { param: 'cutoff', from: 0.05, to: 0.85 },
    up: RESONANCE,
    away: AWAY,
  },
];
