import { bent } from './evaluate';

/** How a link passes on what its modulator does. */
export interface LinkTransfer {
  /** Share of the rail, to either side; below zero the other way round. */
  readonly depth: number;
  /** -1 to 1: above 0 it goes far at once, below 0 only for the last of the modulator's way. */
  readonly curve: number;
  /**
   * The stretch of the rail that it does not push the parameter out of; where that stands beyond it already, it is left
   * there.
   */
  readonly low: number;
  readonly high: number;
}

/** How far along its rail a parameter is pushed that stands at `at`, by a modulator at `turn` (-1 to 1). */
export function linkOffset(at: number, turn: number, { depth, curve, low, high }: LinkTransfer): number {
  const by = depth * (turn < 0 ? -bent(-turn, curve) : bent(turn, curve));
  if (low <= 0 && high >= 1) return by;
  const to = at + by;
  if (by > 0) {
    const top = high > at ? high : at;
    return (to < top ? to : top) - at;
  }
  const bottom = low < at ? low : at;
  return (to > bottom ? to : bottom) - at;
}
