import { choice, figure, ratio, time } from '../../params/make';
import type { NumberParam, Params } from '../../params/param';
import { holdParams } from '../hold/params';

export const ORDERS = ['drawn', 'thrown', 'turned'] as const;
export const MAX_DRAWN = 16;
export const DRAWN_IDS = Array.from({ length: MAX_DRAWN }, (_, i) => `place${i + 1}`);

const place = (n: number): NumberParam =>
  figure({
    label: `Slice at ${n}`,
    group: 'Drawn order',
    hint: 'Which slice of what was caught is heard here, counted from its beginning.',
    unit: 'count',
    min: 1,
    max: MAX_DRAWN,
    initial: n,
    smoothingSeconds: 0,
  });

export const reorderParams = {
  ...holdParams,
  window: time({
    label: 'Caught',
    group: 'Order',
    hint: 'How much of what has just passed is cut up.',
    min: 40,
    max: 16_000,
    initial: '1 bar',
  }),
  slice: time({
    label: 'Slice',
    group: 'Order',
    hint: 'How long each piece of it is: long keeps words, short makes a rhythm.',
    min: 20,
    max: 8000,
    initial: '1/8',
  }),
  order: choice({
    label: 'Order',
    group: 'Order',
    hint: 'As you draw it, by chance, or from the last slice to the first.',
    initial: 'thrown',
    options: [
      { id: 'drawn', label: 'drawn' },
      { id: 'thrown', label: 'thrown' },
      { id: 'turned', label: 'from the last on' },
    ],
  }),
  roll: figure({
    label: 'Roll',
    group: 'Chance',
    hint: 'Each number is one throw of everything that chance decides, the same for ever.',
    unit: 'count',
    min: 0,
    max: 999,
    initial: 1,
    smoothingSeconds: 0,
  }),
  backwards: ratio({
    label: 'Backwards',
    group: 'Chance',
    hint: 'How many of the slices are heard in reverse.',
    initial: 0,
  }),
  gaps: ratio({ label: 'Gaps', group: 'Chance', hint: 'How many of the slices stay silent.', initial: 0 }),
  ...(Object.fromEntries(DRAWN_IDS.map((id, i) => [id, place(i + 1)])) as Record<string, NumberParam>),
} satisfies Params;
