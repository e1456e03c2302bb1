import { choice, figure, frequency, gain, ratio, toggle } from '../../params/make';
import type { ChoiceParam, Params } from '../../params/param';
import type { Condition, VisibleWhen } from '../visibleWhen';

/** Note values on whose lines a hold starts and ends; the first is none of them. */
export const GRIDS = ['free', '1/32', '1/16', '1/8', '1/4', '1/2', '1 bar', '2 bars', '4 bars'] as const;
/** How a hold is put together with the sound as it is. */
export const HEARD = ['blend', 'alone', 'whileHeld'] as const;

const GRID_BEATS: readonly number[] = [0, 1 / 8, 1 / 4, 1 / 2, 1, 2, 0, 0, 0];
const GRID_BARS: readonly number[] = [0, 0, 0, 0, 0, 0, 1, 2, 4];

/** Length of a grid in quarter notes, by its index in GRIDS; 0 for none. */
export const gridBeats = (index: number, beatsPerBar: number): number =>
  GRID_BEATS[index]! > 0 ? GRID_BEATS[index]! : GRID_BARS[index]! * beatsPerBar;

const grid = (label: string, hint: string): ChoiceParam =>
  choice({
    label,
    group: 'Hold',
    hint,
    initial: 'free',
    options: GRIDS.map((id) => ({ id, label: id === 'free' ? 'at once' : id })),
  });

/** What every hold has beside its own figures. */
export const holdParams = {
  held: toggle({ label: 'Held', group: 'Hold', hint: 'On while a finger, a key or a move holds it.', initial: false }),
  startsOn: grid('Starts on', 'A hand that is early waits for the next line of this grid.'),
  endsOn: grid('Ends on', 'Let go early, it sounds on until the next line of this grid.'),
  latch: toggle({ label: 'Latch', group: 'Hold', hint: 'A tap holds it, another lets go.', initial: false }),
  heard: choice({
    label: 'Heard',
    group: 'Sound',
    hint: 'Over the sound as it is, in its place, or as the only sound: silence while it is not held.',
    initial: 'alone',
    options: [
      { id: 'blend', label: 'blend' },
      { id: 'alone', label: 'alone' },
      { id: 'whileHeld', label: 'only while held' },
    ],
  }),
  blend: ratio({
    label: 'Blend',
    group: 'Sound',
    hint: 'How much of the hold lies over the sound as it is.',
    initial: 0.5,
  }),
  level: gain({ label: 'Level', group: 'Sound', hint: 'How loud the hold is.', initial: 1 }),
  lowCut: frequency({
    label: 'Low cut',
    group: 'Sound',
    hint: 'Takes the bottom away from what is held.',
    min: 20,
    max: 2000,
    initial: 20,
    offAt: 'min',
  }),
  highCut: frequency({
    label: 'High cut',
    group: 'Sound',
    hint: 'Darkens what is held.',
    min: 200,
    max: 20_000,
    initial: 20_000,
    offAt: 'max',
  }),
  fadeIn: figure({
    label: 'Fade in',
    group: 'Sound',
    hint: 'How softly it comes in; never with a click.',
    unit: 'ms',
    min: 0,
    max: 50,
    initial: 0,
  }),
  fadeOut: figure({
    label: 'Fade out',
    group: 'Sound',
    hint: 'How softly it goes; never with a click.',
    unit: 'ms',
    min: 0,
    max: 50,
    initial: 5,
  }),
} satisfies Params;

/** Holds put themselves together with the sound as it is: of the common mix only the trim is left. */
const NEVER: readonly Condition[] = [
  { param: 'balance', is: 'mix' },
  { param: 'balance', is: 'levels' },
];
export const holdVisibleWhen: VisibleWhen = {
  balance: NEVER,
  mix: NEVER,
  dry: NEVER,
  wet: NEVER,
  blend: [{ param: 'heard', is: 'blend' }],
};

/** What a neutral preset of a hold has: it starts and ends within a millisecond. */
export const NEUTRAL = { fadeIn: 0, fadeOut: 0 };

/** Groups of the parameters that every hold has. */
const COMMON_GROUPS = ['Hold', 'Sound'];

/**
 * Orders things that are about parameters of a hold: its own before those that every hold has. The group "Mix" is left
 * out, as a hold puts wet and dry together by itself.
 */
export const orderHoldParams = <T>(items: readonly T[], groupOf: (item: T) => string): T[] =>
  items
    .filter((item) => groupOf(item) !== 'Mix')
    .sort((a, b) => COMMON_GROUPS.indexOf(groupOf(a)) - COMMON_GROUPS.indexOf(groupOf(b)));
