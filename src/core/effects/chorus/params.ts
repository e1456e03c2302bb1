import { choice, figure, frequency, rate, ratio } from '../../params/make';
import type { Params } from '../../params/param';

export const LONGEST_DELAY_MS = 40;

export const chorusParams = {
  mode: choice({
    mutesOnChange: true,
    label: 'Lines',
    group: 'Lines',
    hint: 'Two lines, one for each side; three that share them; or one moving pitch with nothing untreated beside it.',
    initial: 'two',
    options: [
      { id: 'two', label: 'two lines' },
      { id: 'three', label: 'three lines' },
      { id: 'vibrato', label: 'vibrato' },
    ],
  }),
  rate: rate({ label: 'Rate', group: 'Lines', hint: 'How fast the pitch wavers.', min: 0.02, max: 14, initial: 0.6 }),
  depth: figure({
    label: 'Depth',
    group: 'Lines',
    hint: 'How far each line moves to and fro: with the rate it makes how far the pitch goes.',
    unit: 'ms',
    min: 0,
    max: 8,
    initial: 2,
    smoothingSeconds: 0.05,
    offAt: 'min',
  }),
  delay: figure({
    label: 'Delay',
    group: 'Lines',
    hint: 'How late the lines come in the middle of their way: short is metallic, long a second player.',
    unit: 'ms',
    min: 1,
    max: LONGEST_DELAY_MS - 10,
    initial: 12,
    smoothingSeconds: 0.1,
  }),
  phase: figure({
    label: 'Side phase',
    group: 'Lines',
    hint: 'How far the right side runs behind the left: wider, up to against it.',
    unit: 'degrees',
    min: 0,
    max: 180,
    initial: 90,
    notches: [0, 90, 180],
  }),
  feedback: ratio({
    label: 'Feedback',
    group: 'Colour',
    hint: 'How much of the lines enters again: thickens, then rings.',
    max: 0.9,
    initial: 0,
  }),
  lowCut: frequency({
    label: 'Low cut',
    group: 'Colour',
    hint: 'Keeps the bass of the treated sound still.',
    min: 20,
    max: 1000,
    initial: 20,
    offAt: 'min',
  }),
  drive: figure({
    label: 'Drive',
    group: 'Colour',
    hint: 'Warms the treated sound as a hot tape does.',
    unit: 'db',
    min: 0,
    max: 24,
    initial: 0,
    offAt: 'min',
  }),
} satisfies Params;
