const STEPS = [0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10];
const LARGEST = 20;

export const saySeconds = (value: number): string =>
  value < 1 ? `${Math.round(value * 1000)} ms` : `${value.toFixed(2)} s`;

/** Places in seconds to be marked along an axis. @param most of them */
export function timeMarks(spanSeconds: number, most: number): number[] {
  const step = STEPS.find((value) => spanSeconds / value <= most) ?? LARGEST;
  return Array.from({ length: Math.floor(spanSeconds / step) + 1 }, (_, i) => i * step);
}

/** A mark in as few letters as it needs. */
export const sayMark = (seconds: number): string => (seconds === 0 ? '0' : saySeconds(seconds).replace('.00', ''));
