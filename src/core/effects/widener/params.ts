import { choice, figure, ratio, toggle } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const widenerParams = {
  ...WHOLLY_WET_LINEAR,
  method: choice({
    mutesOnChange: true,
    label: 'Method',
    group: 'Width',
    hint: 'Combs fill the gaps of one side with the other; offsets are two close takes apart.',
    initial: 'comb',
    options: [
      { id: 'comb', label: 'combs' },
      { id: 'offset', label: 'offsets' },
    ],
  }),
  amount: ratio({ label: 'Amount', group: 'Width', hint: 'How far the sides are drawn apart.', initial: 0.6 }),
  delay: figure({
    label: 'Delay',
    group: 'Width',
    hint: 'Short is airy and coloured, long is wide and heard as a second take.',
    unit: 'ms',
    min: 1,
    max: 40,
    initial: 11,
    smoothingSeconds: 0.1,
  }),
  monoSafe: toggle({
    label: 'Mono-safe',
    group: 'Width',
    hint: 'Both sides together give the sound as it was, whatever is set.',
    initial: true,
  }),
} satisfies Params;
