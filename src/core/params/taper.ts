/**
 * How a rail's position (0 at the left, 1 at the right) maps to a value between `min` and `max`; `kneeLog` is linear
 * below its knee, logarithmic above.
 */
export type Taper =
  | { readonly kind: 'linear' }
  | { readonly kind: 'log' }
  | { readonly kind: 'power'; readonly exponent: number }
  | { readonly kind: 'kneeLog'; readonly knee: number };

export const LINEAR: Taper = { kind: 'linear' };
export const LOG: Taper = { kind: 'log' };
/** Law of a fader: fine near unity, silent at the left end. */
export const FADER: Taper = { kind: 'power', exponent: 3 };

/** Law of a time: note values get most of the rail, and the shortest delays are still within reach. */
export const TIME: Taper = { kind: 'kneeLog', knee: 25 };

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
  if (taper.kind === 'kneeLog') return min + taper.knee * (Math.pow(1 + (max - min) / taper.knee, at) - 1);
  return min + (max - min) * at;
}

export function valueToPosition(range: Range, value: number): number {
  const { min, max, taper } = range;
  const inside = clampNumber(value, min, max);
  if (taper.kind === 'log') return Math.log(inside / min) / Math.log(max / min);
  if (taper.kind === 'power') return Math.pow((inside - min) / (max - min), 1 / taper.exponent);
  if (taper.kind === 'kneeLog')
    return Math.log(1 + (inside - min) / taper.knee) / Math.log(1 + (max - min) / taper.knee);
  return (inside - min) / (max - min);
}
