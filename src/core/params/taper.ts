/** How a rail's position (0 at the left, 1 at the right) maps to a value between `min` and `max`. */
export type Taper = { readonly kind: 'linear' } | { readonly kind: 'log' } | { readonly kind: 'power'; readonly exponent: number };

export const LINEAR: Taper = { kind: 'linear' };
export const LOG: Taper = { kind: 'log' };
/** A fader's law: fine near unity, silent at the left end. */
export const FADER: Taper = { kind: 'power', exponent: 3 };

interface Range {
  readonly min: number;
  readonly max: number;
  readonly taper: Taper;
}

export const clampNumber = (value: number, min: number, max: number): number => Math.min(max, Math.max(min, value));

export function positionToValue(range: Range, position: number): number {
  const at = clampNumber(position, 0, 1);
  const { min, max, taper } = range;
  if (at === 0) return min;
  if (at === 1) return max;
  if (taper.kind === 'log') return min * Math.pow(max / min, at);
  if (taper.kind === 'power') return min + (max - min) * Math.pow(at, taper.exponent);
  return min + (max - min) * at;
}

export function valueToPosition(range: Range, value: number): number {
  const { min, max, taper } = range;
  const inside = clampNumber(value, min, max);
  if (taper.kind === 'log') return Math.log(inside / min) / Math.log(max / min);
  if (taper.kind === 'power') return Math.pow((inside - min) / (max - min), 1 / taper.exponent);
  return (inside - min) / (max - min);
}
