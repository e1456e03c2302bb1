import { choice, gain, ratio } from '../params/make';
import type { Params } from '../params/param';

/** What every effect has: how treated and untreated sound are put together. */
export const commonParams: Params = {
  balance: choice({
    label: 'Balance', group: 'Mix', hint: 'One rail from dry to wet at equal power, or a level for each.', initial: 'mix',
    options: [{ id: 'mix', label: 'one mix rail' }, { id: 'levels', label: 'dry and wet apart' }],
  }),
  mix: ratio({ label: 'Mix', group: 'Mix', hint: 'Share of treated sound: more is wetter.', initial: 0.3 }),
  dry: gain({ label: 'Dry', group: 'Mix', hint: 'Level of the untreated sound.', initial: 1 }),
  wet: gain({ label: 'Wet', group: 'Mix', hint: 'Level of the treated sound.', initial: 1 }),
  trim: gain({ label: 'Trim', group: 'Mix', hint: 'Level of everything that leaves this effect.', initial: 1 }),
};

/** The quarter of a circle on which mix moves: both gains are 0.707 in the middle. Exact at both ends; two functions, since audio code makes no objects. */
/** Gain of a side that a balance turns away from. @param away 0-1; at and below 0 it stays as it is */
export const awayGain = (away: number): number => (away > 0 ? Math.cos((away * Math.PI) / 2) : 1);

export const dryGain = (mix: number): number => (mix <= 0 ? 1 : mix >= 1 ? 0 : Math.cos((mix * Math.PI) / 2));
export const wetGain = (mix: number): number => (mix <= 0 ? 0 : mix >= 1 ? 1 : Math.sin((mix * Math.PI) / 2));

/** Reading between samples may lift single frequencies by 0.002 dB: a loop below 100 % loses at least that at each turn. */
const LOOP_MOST = 0.9997;

/** Gain of a loop for a feedback; from 100 % on it is what was asked for, and a guard has to hold it. */
export const loopGain = (feedback: number): number => (feedback >= 1 ? feedback : feedback > LOOP_MOST ? LOOP_MOST : feedback);

/** For effects that take the place of the sound rather than stand beside it. */
export const WHOLLY_WET = { mix: ratio({ label: 'Mix', group: 'Mix', hint: 'Share of treated sound: less lets the sound as it was through.', initial: 1 }) };
