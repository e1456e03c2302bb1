import { choice, figure, frequency, gain, ratio, time, toggle } from '../../params/make';
import type { NumberParam, Param, Params } from '../../params/param';

export const MAX_TAPS = 16;

const tap = (n: number): Readonly<Record<string, Param>> => {
  const group = `Tap ${n}`;
  const place: NumberParam = time({
    label: 'Time',
    group,
    hint: 'How long after the sound this tap is heard.',
    min: 0,
    max: 4000,
    initial: n * 125,
    smoothingSeconds: 0.05,
  });
  return {
    [`time${n}`]: place,
    [`level${n}`]: gain({
      label: 'Level',
      group,
      hint: 'How loud this tap is.',
      initial: Math.round(1000 * Math.pow(0.82, n - 1)) / 1000,
      max: 1.5,
    }),
    [`pan${n}`]: figure({
      label: 'Pan',
      group,
      hint: 'Where this tap is heard between left and right.',
      unit: 'pan',
      min: -1,
      max: 1,
      initial: 0,
      notches: [0],
    }),
    [`lowCut${n}`]: frequency({
      label: 'Low cut',
      group,
      hint: 'Thins this tap: its lows are taken.',
      initial: 20,
      offAt: 'min',
    }),
    [`highCut${n}`]: frequency({
      label: 'High cut',
      group,
      hint: 'Darkens this tap: its highs are taken.',
      initial: 20_000,
      offAt: 'max',
    }),
    [`reverse${n}`]: toggle({
      label: 'Backwards',
      group,
      hint: 'Plays what came in before this tap backwards into it.',
      initial: false,
    }),
  };
};

const whole = {
  count: figure({
    label: 'Taps',
    group: 'Pattern',
    hint: 'How many taps sound.',
    unit: 'count',
    min: 1,
    max: MAX_TAPS,
    initial: 4,
    notches: [1, 2, 3, 4, 6, 8, 12, 16],
    smoothingSeconds: 0,
  }),
  stretch: ratio({
    label: 'Stretch',
    group: 'Pattern',
    hint: 'All times longer or shorter together.',
    min: 0.25,
    max: 4,
    initial: 1,
    notches: [0.5, 1, 2],
    smoothingSeconds: 0.1,
  }),
  swing: ratio({
    label: 'Swing',
    group: 'Pattern',
    hint: 'Every second tap comes later, up to half its gap.',
    initial: 0,
  }),
  rise: figure({
    label: 'Rise',
    group: 'Pattern',
    hint: 'Right of the middle the taps swell, left they fall away faster.',
    unit: 'db',
    min: -36,
    max: 36,
    initial: 0,
    notches: [0],
  }),
  density: ratio({
    label: 'Density',
    group: 'Pattern',
    hint: 'How many of the taps are heard: fewer leave gaps.',
    initial: 1,
  }),
  feedback: ratio({
    label: 'Feedback',
    group: 'Pattern',
    hint: 'The whole pattern again, a last tap’s time later.',
    max: 1,
    initial: 0,
  }),
  width: ratio({
    label: 'Width',
    group: 'Pattern',
    hint: 'Draws all taps to the middle, or as far out as they are set.',
    initial: 1,
    max: 1,
  }),
  input: ratio({ label: 'Input', group: 'Pattern', hint: 'What enters: ride it to throw single hits in.', initial: 1 }),
  change: choice({
    label: 'Time changes',
    group: 'Pattern',
    hint: 'Glide bends the pitch as tape does; crossfade keeps it.',
    initial: 'crossfade',
    options: [
      { id: 'glide', label: 'glide' },
      { id: 'crossfade', label: 'crossfade' },
    ],
  }),
} satisfies Params;

export const tapsParams: Params & typeof whole = {
  ...whole,
  ...(Object.assign({}, ...Array.from({ length: MAX_TAPS }, (_, i) => tap(i + 1))) as Params),
};
