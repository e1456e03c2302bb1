/** Writes three coefficients. */
export function set(out: Float64Array, first: number, second: number, third: number): void {
  out[0] = first;
  out[1] = second;
  out[2] = third;
}

/** Squared magnitude of `1 - r^2 + i r / q`. */
export function resonance(out: Float64Array, q: number): void {
  set(out, 1, 1 / (q * q) - 2, 1);
}

/** Squared sine of half an angle: what squared magnitudes are written in. */
export function sinSquared(angle: number): number {
  const sine = Math.sin(0.5 * angle);
  return sine * sine;
}

/**
 * A squared numerator or denominator at an angle, by its figures over `cos^2`, `sin^2` and `sin^2 2x`.
 * @param p squared sine of half the angle
 */
export const valueAt = (c: Float64Array, p: number): number => c[0]! * (1 - p) + c[1]! * p + c[2]! * 4 * p * (1 - p);

/** Whether some polynomial has this squared magnitude: it must not be negative anywhere. */
export function canBeSplit(c: Float64Array): boolean {
  if (!(c[0]! >= 0) || !(c[1]! >= 0)) return false;
  const w = 0.5 * (Math.sqrt(c[0]!) + Math.sqrt(c[1]!));
  return w * w + c[2]! >= -1e-6 * w * w;
}

/** The polynomial in 1 / z, with its roots within the circle, that has this squared magnitude. */
export function split(c: Float64Array, out: Float64Array): void {
  const first = Math.sqrt(c[0]! > 0 ? c[0]! : 0);
  const second = Math.sqrt(c[1]! > 0 ? c[1]! : 0);
  const w = 0.5 * (first + second);
  const under = w * w + c[2]!;
  const b0 = 0.5 * (w + Math.sqrt(under > 0 ? under : 0));
  set(out, b0, 0.5 * (first - second), b0 === 0 ? 0 : -c[2]! / (4 * b0));
}

/** Angles at which a shelf is matched whose middle is well below `high`: around it, and up to there. */
export function lowAngle(index: number, angle: number, high: number): number {
  if (index === 0) return 0.6 * angle;
  if (index === 1) return angle;
  return index === 2 ? 0.5 * (angle + high) : high;
}

/** The same for one whose middle is near `high` or above it: mostly below the middle. */
export function highAngle(index: number, angle: number, high: number): number {
  if (index === 0) return 0.3 * angle;
  if (index === 1) return 0.6 * angle;
  return index === 2 ? angle : Math.min(0.98 * Math.PI, Math.max(high, angle + 0.1 * Math.PI));
}

/**
 * Solves four equations by elimination with pivots, in place: the last of each five figures is the right side, then the
 * result.
 */
export function solveFour(rows: Float64Array): boolean {
  for (let column = 0; column < 4; column += 1) {
    let pivot = column;
    for (let row = column + 1; row < 4; row += 1)
      if (Math.abs(rows[5 * row + column]!) > Math.abs(rows[5 * pivot + column]!)) pivot = row;
    if (Math.abs(rows[5 * pivot + column]!) < 1e-15) return false;
    for (let k = 0; k < 5; k += 1) {
      const kept = rows[5 * pivot + k]!;
      rows[5 * pivot + k] = rows[5 * column + k]!;
      rows[5 * column + k] = kept;
    }
    for (let row = 0; row < 4; row += 1) {
      if (row === column) continue;
      const share = rows[5 * row + column]! / rows[5 * column + column]!;
      for (let k = column; k < 5; k += 1) rows[5 * row + k] = rows[5 * row + k]! - share * rows[5 * column + k]!;
    }
  }
  for (let row = 0; row < 4; row += 1) rows[5 * row + 4] = rows[5 * row + 4]! / rows[5 * row + row]!;
  return true;
}
