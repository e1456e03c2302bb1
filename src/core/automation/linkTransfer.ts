import { applyBend } from './evaluate';

/** Depth, curve and range of a link: how far its modulator moves a parameter. */
export interface LinkTransfer {
  /** Share of the parameter's range, to either side; negative inverts. */
  readonly depth: number;
  /** -1 to 1: above 0 most of the offset comes early, below 0 late. */
  readonly curve: number;
  /** Limits of the offset parameter, 0-1; a parameter beyond them is not moved. */
  readonly low: number;
  readonly high: number;
}

/**
 * Offset of a parameter at normalised position `at` (0-1) by a modulator.
 * @param turn output of the modulator, -1 to 1
 */
export function linkOffset(at: number, turn: number, { depth, curve, low, high }: LinkTransfer): number {
  const by = depth * (turn < 0 ? -applyBend(-turn, curve) : applyBend(turn, curve));
  if (low <= 0 && high >= 1) return by;
  const to = at + by;
  if (by > 0) {
    const top = high > at ? high : at;
    return (to < top ? to : top) - at;
  }
  const bottom = low < at ? low : at;
  return (to > bottom ? to : bottom) - at;
}
