import type { ReadyField } from '../define';

/** A space that is fed only while a finger is away from the centre, and rings out when it has gone. */
export const reverbFields: readonly ReadyField[] = [
  {
    id: 'openWater',
    name: 'Open water',
    purpose: 'Reverb: longer to the right, louder upwards; it rings out when you let go.',
    preset: 'neutral',
    values: { balance: 'levels', dry: 1, space: 'hall', input: 0 },
    across: { param: 'decay', from: 0.3, to: 0.8 },
    up: { param: 'wet', from: 0.3, to: 0.8 },
    away: { param: 'input', from: 0, to: 1 },
  },
];
