/** Mathematics for audio code: the same bits in every engine, since only + - * / are used. */

/**
 * Sine of a phase in turns, any sign. Error below 4e-6. Minimax-fitted odd polynomial on a quarter turn (after
 * Abramowitz and Stegun, "Handbook of Mathematical Functions", 1964, 4.3.97).
 */
export function sinTurns(turns: number): number {
  let x = turns - Math.floor(turns + 0.5);
  if (x > 0.25) x = 0.5 - x;
  else if (x < -0.25) x = -0.5 - x;
  const a = x * 6.283185307179586;
  const s = a * a;
  return a * (1 + s * (-0.16666666666 + s * (0.0083333315 + s * (-0.000198409 + s * 0.0000027526))));
}

/**
 * Hyperbolic tangent as a rational function, exact limits beyond +-4.97 (Lambert's continued fraction, 1770). Error
 * below 1e-4.
 */
export function tanhRational(x: number): number {
  if (x > 4.97) return 1;
  if (x < -4.97) return -1;
  const s = x * x;
  return (x * (135135 + s * (17325 + s * (378 + s)))) / (135135 + s * (62370 + s * (3150 + s * 28)));
}
