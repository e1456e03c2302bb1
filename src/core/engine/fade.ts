import { sinTurns } from '../dsp/approx';
import { FADE_SHAPES } from '../piece/piece';

const POWER = FADE_SHAPES.indexOf('power');
const SOFT = FADE_SHAPES.indexOf('soft');

/**
 * Gain of a fade-in at `share` (0-1) of its length: linear; a quarter sine, whose crossfade has constant power for
 * uncorrelated sounds; or an S-curve, whose crossfade has constant gain for correlated ones.
 * @param shape index in FADE_SHAPES
 */
export function fadeGain(shape: number, share: number): number {
  if (share <= 0) return 0;
  if (share >= 1) return 1;
  if (shape === POWER) return sinTurns(share / 4);
  return shape === SOFT ? share * share * (3 - 2 * share) : share;
}
