import { figure, rate, ratio } from '../../params/make';
import type { Params } from '../../params/param';

export const MAX_VOICES = 4;

export const doublingParams = {
  voices: figure({
    mutesOnChange: true,
    label: 'Voices',
    group: 'Voices',
    hint: 'How many more takes stand beside the first.',
    unit: 'count',
    min: 1,
    max: MAX_VOICES,
    initial: 2,
    notches: [1, 2, 3, 4],
    smoothingSeconds: 0,
  }),
  time: figure({
    label: 'Time',
    group: 'Voices',
    hint: 'How late the takes come; each a little later than the one before.',
    unit: 'ms',
    min: 1,
    max: 120,
    initial: 22,
    smoothingSeconds: 0.1,
  }),
  detune: figure({
    label: 'Detune',
    group: 'Voices',
    hint: 'How far the takes lie above and below the pitch.',
    unit: 'cents',
    min: 0,
    max: 50,
    initial: 7,
  }),
  spread: ratio({
    label: 'Spread',
    group: 'Voices',
    hint: 'How far the takes stand apart, left and right.',
    initial: 0.8,
  }),
  feedback: ratio({
    label: 'Feedback',
    group: 'Voices',
    hint: 'How much of the takes enters again: thickens, then rings.',
    max: 0.9,
    initial: 0,
  }),
  driftRate: rate({
    label: 'Drift rate',
    group: 'Drift',
    hint: 'How fast the takes wander in time: slow is a loose ensemble, fast wavers.',
    min: 0.05,
    max: 8,
    initial: 0.35,
  }),
  drift: figure({
    label: 'Drift',
    group: 'Drift',
    hint: 'How far they wander: as players do who never land quite together.',
    unit: 'ms',
    min: 0,
    max: 8,
    initial: 1.2,
    smoothingSeconds: 0.05,
    offAt: 'min',
  }),
} satisfies Params;
