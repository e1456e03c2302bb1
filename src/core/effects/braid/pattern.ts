import { randomAt } from '../../dsp/random';
import { isInBars, noteBeats, parseNote } from '../../music/noteValue';

/** Most steps of a row. */
export const MAX_STEPS = 64;
/** Ways through the strands, in the order of the choice. */
export const PATTERN_ORDERS = ['forward', 'backward', 'toAndFro', 'thrown', 'drawn'] as const;
/** Lengths of a step, shortest first: a hand, a link or a move on them is always on the grid. */
export const STEP_NOTES = [
  '1/64',
  '1/32',
  '1/16t',
  '1/16',
  '1/8t',
  '1/8',
  '1/4t',
  '1/8d',
  '1/4',
  '1/4d',
  '1/2',
  '1/2d',
  '1 bar',
  '2 bars',
] as const;

const BACKWARD = PATTERN_ORDERS.indexOf('backward');
const TO_AND_FRO = PATTERN_ORDERS.indexOf('toAndFro');
const THROWN = PATTERN_ORDERS.indexOf('thrown');
const DRAWN = PATTERN_ORDERS.indexOf('drawn');

const NOTES = STEP_NOTES.map((note) => parseNote(note)!);

/** Length of a step in quarter notes. @param index in STEP_NOTES */
export const stepBeats = (index: number, beatsPerBar: number): number => noteBeats(NOTES[index]!, beatsPerBar);

/** Whether a step is counted in bars. @param index in STEP_NOTES */
export const isStepInBars = (index: number): boolean => isInBars(NOTES[index]!);

/** What decides which strand plays at a step. */
export interface StrandPattern {
  /** Index in PATTERN_ORDERS. */
  order: number;
  /** Number of steps after which it repeats, 1 to MAX_STEPS. */
  steps: number;
  /** Of the order "thrown". */
  roll: number;
  /** Positions of the strands that are there, 1 to 8, ascending; the first `count` of them. */
  strands: ArrayLike<number>;
  count: number;
  /** Of the order "drawn": from the index `rowStart` on the position at each step, 0 for a rest. */
  row: ArrayLike<number>;
  rowStart: number;
}

/**
 * Position of the strand that plays at a step counted from the beginning of the piece; 0 where none does. The order
 * "thrown" never plays one strand twice in a row within its steps, as that would not be heard.
 */
export function strandAtStep(pattern: StrandPattern, step: number): number {
  const { order, steps, strands, count, row, rowStart } = pattern;
  const within = ((step % steps) + steps) % steps;
  if (order === DRAWN) return Math.round(row[rowStart + within]!);
  if (count === 0) return 0;
  if (count === 1) return strands[0]!;
  if (order === BACKWARD) return strands[count - 1 - (within % count)]!;
  if (order === TO_AND_FRO) {
    const turn = within % (2 * count - 2);
    return strands[turn < count ? turn : 2 * count - 2 - turn]!;
  }
  return strands[order === THROWN ? thrownIndex(within, pattern.roll, count) : within % count]!;
}

function thrownIndex(step: number, roll: number, count: number): number {
  let index = throwOf(0, roll, count);
  for (let i = 1; i <= step; i += 1) index = (index + 1 + throwOf(i, roll, count - 1)) % count;
  return index;
}

/** One of `sides` whole numbers from 0. */
function throwOf(index: number, roll: number, sides: number): number {
  const share = 0.5 + 0.5 * randomAt(index, roll);
  return Math.min(sides - 1, Math.floor(share * sides));
}
