import { choice, figure, frequency, gain, rate, ratio, time } from '../../params/make';
import type { Params } from '../../params/param';
import { TIME } from '../../params/taper';

export const SPACES = ['room', 'chamber', 'hall', 'plate', 'spring', 'cloud'] as const;

export const reverbParams = {
  space: choice({
    label: 'Space', group: 'Space', hint: 'What it rings in: walls near or far, a sheet of metal, coils, or no walls at all.', initial: 'hall',
    options: SPACES.map((id) => ({ id, label: id })),
  }),
  decay: time({ label: 'Decay', group: 'Space', hint: 'How long until it has fallen by 60 dB at 1 kHz.', min: 100, max: 60_000, initial: '2 bars', smoothingSeconds: 0.08, ladder: ['2 bars', '1 bar', '1/2', '1/4', '1/8', '1/16'] }),
  preDelay: time({ label: 'Pre-delay', group: 'Space', hint: 'Silence before the space answers: keeps words in front of it.', min: 0, max: 500, initial: 0, smoothingSeconds: 0.05, ladder: ['1/8', '1/16', '1/32', '1/64'] }),
  size: ratio({ label: 'Size', group: 'Space', hint: 'Distance of the walls: small is tight and coloured, large is wide and slow to build.', min: 0.5, max: 2, initial: 1, notches: [1], smoothingSeconds: 0.15 }),
  early: gain({ label: 'Early', group: 'Space', hint: 'Level of the first reflections, which tell how near the walls are.', initial: 0.7 }),
  swell: figure({ label: 'Swell', group: 'Space', hint: 'How long the tail takes to rise to its full level.', unit: 'ms', min: 0, max: 4000, initial: 0, taper: TIME, smoothingSeconds: 0.1, offAt: 'min' }),
  width: ratio({ label: 'Width', group: 'Space', hint: 'Spread of the tail: 0 is mono, 100 % as made.', max: 1.5, initial: 1, notches: [1] }),
  freeze: choice({
    label: 'Freeze', group: 'Freeze', hint: 'Sealed holds what rings for ever; open holds it and still takes new sound in.', initial: 'off',
    options: [{ id: 'off', label: 'off' }, { id: 'sealed', label: 'sealed' }, { id: 'open', label: 'open' }],
  }),
  input: ratio({ label: 'Input', group: 'Freeze', hint: 'What enters the space: ride it to throw single words in.', initial: 1 }),
  diffusion: ratio({ label: 'Diffusion', group: 'Tone', hint: 'Single answers at the left, a smooth wash at the right.', initial: 0.75 }),
  highDecay: ratio({ label: 'High decay', group: 'Tone', hint: 'How long the highs ring, against the middle: less is softer walls.', min: 0.15, initial: 0.45 }),
  highFrom: frequency({ label: 'Highs from', group: 'Tone', hint: 'Where the highs begin to be swallowed.', min: 2500, max: 16_000, initial: 5000 }),
  lowDecay: ratio({ label: 'Low decay', group: 'Tone', hint: 'How long the lows ring, against the middle: over 100 % is warm and heavy.', min: 0.25, max: 2.5, initial: 1.1, notches: [1] }),
  lowCut: frequency({ label: 'Low cut', group: 'Tone', hint: 'Takes away what is below, so the tail does not pile up in the bass.', min: 20, max: 1200, initial: 120, offAt: 'min' }),
  highCut: frequency({ label: 'High cut', group: 'Tone', hint: 'Takes away what is above, so the tail stands behind the sound.', min: 800, max: 20_000, initial: 9000, offAt: 'max' }),
  modRate: rate({ label: 'Motion rate', group: 'Motion', hint: 'How fast the walls drift.', min: 0.05, max: 4, initial: 0.5 }),
  modDepth: figure({ label: 'Motion', group: 'Motion', hint: 'How far the walls drift: some keeps the tail from ringing, much makes it shimmer.', unit: 'ms', min: 0, max: 3, initial: 0.25, smoothingSeconds: 0.05, offAt: 'min' }),
  duck: figure({ label: 'Ducking', group: 'Motion', hint: 'How far the tail bows while the input sounds.', unit: 'db', min: 0, max: 36, initial: 0, offAt: 'min' }),
  duckThreshold: figure({ label: 'Duck above', group: 'Motion', hint: 'Input level from which the tail bows.', unit: 'db', min: -60, max: 0, initial: -36 }),
  duckRelease: figure({ label: 'Duck release', group: 'Motion', hint: 'How soon it rises again after the input stops.', unit: 'ms', min: 20, max: 2000, initial: 250 }),
} satisfies Params;
