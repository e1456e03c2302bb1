import type { ReadyField } from '../define';

/** An echo that is fed only while a finger is away from the centre, and rings on when it has gone. */
export const echoFields: readonly ReadyField[] = [
  {
    id: 'farShore',
    name: 'Far shore',
    purpose: 'Echo: note values across, feedback upwards; it rings on when you let go.',
    preset: 'neutral',
    values: { balance: 'levels', dry: 1, wet: 0.7, linked: true, change: 'crossfade', input: 0 },
    across: { param: 'timeL', from: 0.35, to: 0.75, notes: true },
    up: { param: 'feedback', from: 0, to: 0.8 },
    away: { param: 'input', from: 0, to: 1 },
  },
];
