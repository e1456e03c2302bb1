import { sinTurns } from '../dsp/approx';
import { FADE_SHAPES } from '../piece/piece';

const POWER = FADE_SHAPES.indexOf('power');
const SOFT = FADE_SHAPES.indexOf('soft');

/**
 * The gain of a fade that has come `share` (0-1) of its way: a straight line; a quarter of a sine, two of which
 * crossing keep the power of unlike sounds; or soft at both ends, two of which crossing keep the level of like sounds.
 * @param shape index in FADE_SHAPES
 */
export function fadeGain(shape: number, share: number): number {
  if (share <= 0) return 0;
  if (share >= 1) return 1;
  if (shape === POWER) return sinTurns(share / 4);
  return shape === SOFT ? share * share * (3 - 2 * share) : share;
}
