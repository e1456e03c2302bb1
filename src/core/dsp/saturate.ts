import { tanhRational } from './approx';

/** Drive from which a curve is fully applied; below, it is mixed with the clean signal. */
export const WHOLLY_DRIVEN = 1.122;
export const DRIVE_KINDS = ['tape', 'tube', 'transistor', 'hard'] as const;

/**
 * One sample shaped with small-signal gain 1, so that quiet repeats in a feedback loop decay as without it.
 * @param kind index in DRIVE_KINDS  @param drive gain before the curve, 1 = clean `tape` is a symmetric tanh; `tube` is
 * asymmetric and makes even harmonics; `transistor` stays linear longer and then saturates firmly; `hard` clips. It is
 * mixed in over the first decibel of drive, so that 1 is exact bypass.
 */
export function shapedAt(x: number, kind: number, drive: number): number {
  const driven = x * drive;
  let y: number;
  if (kind === 0) y = tanhRational(driven);
  else if (kind === 1) y = driven > 0 ? tanhRational(driven) : driven / (1 - 0.35 * driven);
  else if (kind === 2) y = driven / Math.sqrt(Math.sqrt(1 + driven * driven * driven * driven));
  else y = driven > 1 ? 1 : driven < -1 ? -1 : driven;
  const wet = drive >= WHOLLY_DRIVEN ? 1 : (drive - 1) / (WHOLLY_DRIVEN - 1);
  return x + (y / drive - x) * wet;
}

/** Shapes `n` samples. @param from @param to drive at the start and end of the block */
export function saturate(
  input: Float64Array,
  out: Float64Array,
  n: number,
  kind: number,
  from: number,
  to: number,
): void {
  const step = (to - from) / n;
  let drive = from;
  for (let i = 0; i < n; i += 1) {
    drive += step;
    out[i] = shapedAt(input[i]!, kind, drive);
  }
}
