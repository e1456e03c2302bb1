import type { ReadyField } from '../define';

/** Takes the sound around the listener. */
export const placerFields: readonly ReadyField[] = [
  {
    id: 'roundTheBoat',
    name: 'Round the boat',
    purpose: 'Placer: all round you from left to right, farther upwards.',
    preset: 'neutral',
    values: { reflections: 0.3, airDamping: 1 },
    across: { param: 'direction', from: 0, to: 1 },
    up: { param: 'distance', from: 0.2, to: 0.8 },
    away: { param: 'mix', from: 0, to: 1 },
  },
];
