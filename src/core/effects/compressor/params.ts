import { choice, figure, frequency } from '../../params/make';
import { LOG } from '../../params/taper';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const compressorParams = {
  ...WHOLLY_WET_LINEAR,
  threshold: figure({ label: 'Threshold', group: 'Level', hint: 'From this level on it holds the sound back.', unit: 'db', min: -60, max: 0, initial: -18 }),
  ratio: figure({ label: 'Ratio', group: 'Level', hint: 'How many decibels more must come in for one more to come out.', unit: 'count', min: 1, max: 20, taper: LOG, initial: 3, notches: [1, 2, 4, 10, 20] }),
  knee: figure({ label: 'Knee', group: 'Level', hint: 'How gradually it begins: hard at the left, unnoticed at the right.', unit: 'db', min: 0, max: 24, initial: 6 }),
  makeUp: figure({ label: 'Make-up', group: 'Level', hint: 'Gives back the level that was taken.', unit: 'db', min: -12, max: 24, initial: 0, notches: [0] }),
  attack: figure({ label: 'Attack', group: 'Time', hint: 'How soon it holds back: short takes the hit, long lets it through.', unit: 'ms', min: 0.1, max: 200, taper: LOG, initial: 10 }),
  release: figure({ label: 'Release', group: 'Time', hint: 'How soon it lets go: in time with the song it breathes along.', unit: 'ms', min: 5, max: 2000, taper: LOG, initial: 140 }),
  source: choice({ dips: true,
    label: 'Listens to', group: 'Side', hint: 'Its own sound, or that of another track, which then makes room for itself.', initial: 'self',
    options: [{ id: 'self', label: 'its own sound' }, { id: 'side', label: 'another track' }],
  }),
  sideCut: frequency({ label: 'Listen above', group: 'Side', hint: 'Lows under it do not make it act.', min: 20, max: 4000, initial: 20, offAt: 'min' }),
} satisfies Params;
