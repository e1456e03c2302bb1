import { choice, gain, ratio } from '../params/make';
import type { Param, Params } from '../params/param';
import type { VisibleWhen } from './visibleWhen';

/** Laws of the balance of wet and dry: one mix, or a level for each; in the order of their stored indices. */
export const BALANCES = ['mix', 'levels', 'linear'] as const;

const balance = (initial: (typeof BALANCES)[number]): Param =>
  choice({
    label: 'Balance',
    group: 'Mix',
    hint: 'One rail from dry to wet, or a level for each. Equal power keeps the loudness of sounds that differ, linear that of sounds alike.',
    initial,
    options: [
      { id: 'mix', label: 'mix, equal power' },
      { id: 'levels', label: 'dry and wet apart' },
      { id: 'linear', label: 'mix, linear' },
    ],
  });

/** Parameters of every effect: the balance of wet and dry. */
export const commonParams: Params = {
  balance: balance('mix'),
  mix: ratio({ label: 'Mix', group: 'Mix', hint: 'Share of treated sound: more is wetter.', initial: 0.3 }),
  dry: gain({ label: 'Dry', group: 'Mix', hint: 'Level of the untreated sound.', initial: 1 }),
  wet: gain({ label: 'Wet', group: 'Mix', hint: 'Level of the treated sound.', initial: 1 }),
  trim: gain({ label: 'Trim', group: 'Mix', hint: 'Level of everything that leaves this effect.', initial: 1 }),
};

/** One mix rail, or a level for each. */
export const commonVisibleWhen: VisibleWhen = {
  mix: [{ param: 'balance', isNot: 'levels' }],
  dry: [{ param: 'balance', is: 'levels' }],
  wet: [{ param: 'balance', is: 'levels' }],
};

/** Gain of the side opposite to a balance. @param away 0-1; the gain is 1 at and below 0 */
export const oppositeGain = (away: number): number => (away > 0 ? Math.cos((away * Math.PI) / 2) : 1);

/**
 * Equal-power law of the mix: both gains are 0.707 in the middle. Exact at both ends; two functions, since audio code
 * allocates no objects.
 */
export const dryGain = (mix: number): number => (mix <= 0 ? 1 : mix >= 1 ? 0 : Math.cos((mix * Math.PI) / 2));
export const wetGain = (mix: number): number => (mix <= 0 ? 0 : mix >= 1 ? 1 : Math.sin((mix * Math.PI) / 2));

/**
 * Interpolation may raise single frequencies by 0.002 dB: a loop below 100 % loses at least that at each pass.
 */
const MAX_LOOP_GAIN = 0.9997;

/** Gain of a loop for a feedback; from 100 % on exactly the feedback, which a guard has to limit. */
export const loopGain = (feedback: number): number =>
  feedback >= 1 ? feedback : feedback > MAX_LOOP_GAIN ? MAX_LOOP_GAIN : feedback;

/** Balance of effects that replace the sound rather than add to it. */
export const WHOLLY_WET = {
  mix: ratio({
    label: 'Mix',
    group: 'Mix',
    hint: 'Share of treated sound: less lets the sound as it was through.',
    initial: 1,
  }),
};

/** Balance of effects whose wet sound correlates with the dry: at equal power the two would add up to 3 dB more. */
export const WHOLLY_WET_LINEAR = { ...WHOLLY_WET, balance: balance('linear') };
