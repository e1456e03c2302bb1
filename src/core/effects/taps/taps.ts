import { defineEffect, type Preset } from '../define';
import { MAX_TAPS, tapsParams } from './params';
import { whenGroup, type VisibleWhen } from '../visibleWhen';

/** Times by note, levels and places of the taps that a preset uses. */
function pattern(
  times: readonly (string | number)[],
  levels: readonly number[],
  pans: readonly number[],
): Record<string, string | number> {
  const values: Record<string, string | number> = { count: times.length };
  times.forEach((time, i) => {
    values[`time${i + 1}`] = time;
    values[`level${i + 1}`] = levels[i % levels.length]!;
    values[`pan${i + 1}`] = pans[i % pans.length]!;
  });
  return values;
}

const cluster = Array.from({ length: 12 }, (_, i) => Math.round(10 * (9 + 11 * i + 23 * ((i * 0.618) % 1))) / 10);

const row = Array.from({ length: MAX_TAPS }, (_, i) => 95 * (i + 1));

const presets: readonly Preset[] = [
  {
    id: 'neutral',
    name: 'Neutral',
    purpose: 'Four even taps at full level, in the middle.',
    values: { balance: 'levels', dry: 1, wet: 0.7, ...pattern(['1/8', '1/4', '1/4d', '1/2'], [1], [0]) },
  },
  {
    id: 'limpingStep',
    name: 'Limping step',
    purpose: 'A dotted figure that answers from both sides.',
    values: {
      mix: 0.35,
      ...pattern(['1/8d', '1/4', '1/4d', '1/2', '1/2d'], [0.9, 0.6, 0.7, 0.45, 0.4], [-0.7, 0.4, 0.7, -0.4, 0]),
    },
  },
  {
    id: 'spray',
    name: 'Spray',
    purpose: 'A cluster of short taps: put it before a long reverb and it blooms.',
    values: { mix: 0.5, ...pattern(cluster, [0.5], [-0.9, 0.7, -0.4, 0.9, 0.2, -0.7]), rise: -6 },
  },
  {
    id: 'comingTide',
    name: 'Coming tide',
    purpose: 'A slow row of taps that swells: a bloom with a long breath.',
    values: { mix: 0.5, ...pattern(row, [0.55], [-0.6, 0.6, -0.2, 0.2]), rise: 24 },
  },
  {
    id: 'threeGulls',
    name: 'Three gulls',
    purpose: 'Three answers in triplets, thinner each time.',
    values: {
      mix: 0.35,
      ...pattern(['1/4t', '1/2t', '1/2'], [0.8, 0.6, 0.4], [-0.8, 0.8, 0]),
      lowCut1: 300,
      lowCut2: 600,
      lowCut3: 1000,
    },
  },
  {
    id: 'backwash',
    name: 'Backwash',
    purpose: 'Taps that run backwards into the beat.',
    values: { mix: 0.4, ...pattern(['1/4', '1/2'], [0.8, 0.6], [-0.5, 0.5]), reverse1: true, reverse2: true },
  },
  {
    id: 'loomLoop',
    name: 'Loom',
    purpose: 'A pattern that returns and weaves into itself.',
    values: {
      mix: 0.38,
      feedback: 0.55,
      ...pattern(['1/16', '1/8d', '1/4', '1/4d'], [0.7, 0.8, 0.5, 0.6], [-0.8, 0.8, -0.3, 0.5]),
    },
  },
];

export const taps = defineEffect({
  id: 'taps',
  name: 'Taps',
  family: 'delay',
  purpose: 'Up to sixteen separate repeats, each where, as loud and as dark as you put it.',
  searchWords: 'multitap multi-tap tap delay rhythm bloom pattern delay',
  params: tapsParams,
  presets,
  headline: ['count', 'stretch'],
  visibleWhen: Object.assign(
    {},
    ...Array.from({ length: MAX_TAPS }, (_, i) =>
      whenGroup(tapsParams, `Tap ${i + 1}`, { param: 'count', atLeast: i + 1 }),
    ),
  ) as VisibleWhen,
});
