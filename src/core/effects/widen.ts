import type { StereoBlock } from '../dsp/blocks';

/** Mid/side width in place, ramped from one value to another over the block: 0 is mono; 1 changes no bit. */
export function widen(block: StereoBlock, n: number, from: number, to: number): void {
  if (from === 1 && to === 1) return;
  const step = (to - from) / n;
  let width = from;
  const { left, right } = block;
  for (let i = 0; i < n; i += 1) {
    width += step;
    const mid = 0.5 * (left[i]! + right[i]!);
    const side = 0.5 * (left[i]! - right[i]!) * width;
    left[i] = mid + side;
    right[i] = mid - side;
  }
}
