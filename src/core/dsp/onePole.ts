import { DENORMAL_GUARD } from './denormals';

/** Coefficient of a one-pole smoother per step of `samples` samples; 1 for a time of zero. */
export const onePoleCoefficient = (seconds: number, samples: number, sampleRate: number): number =>
  seconds <= 0 ? 1 : 1 - Math.exp(-samples / (seconds * sampleRate));

/**
 * Coefficient of a one-pole smoother for a part or a multiple of its step: applied for parts that add up to 1 it has
 * the effect of one whole step.
 */
export const partialCoefficient = (coefficient: number, fraction: number): number =>
  fraction === 1 ? coefficient : 1 - Math.pow(1 - coefficient, fraction);

/** One step of a one-pole smoother that ends exactly on its goal, so that gains of 0 and 1 change no bit. */
export function smoothToward(now: number, goal: number, share: number, slack = 1e-5): number {
  const next = now + (goal - now) * share;
  const away = goal - next;
  return away < slack && away > -slack ? goal : next;
}

/**
 * First-order DC blocker at a few hertz, with a gain of at most 1 at any frequency (Julius O. Smith, "Introduction
 * to Digital Filters", 2007).
 */
export class DcBlock {
  private x = 0;
  private y = 0;
  private readonly pole: number;
  /** Brings the gain at half the sample rate down to 1. */
  private readonly level: number;

  constructor(cutoffHz: number, sampleRate: number) {
    this.pole = 1 - (2 * Math.PI * cutoffHz) / sampleRate;
    this.level = 0.5 * (1 + this.pole);
  }

  clear(): void {
    this.x = 0;
    this.y = 0;
  }

  process(io: Float64Array, n: number): void {
    let { x, y } = this;
    const { pole, level } = this;
    for (let i = 0; i < n; i += 1) {
      const now = level * io[i]!;
      y = now - x + pole * y + DENORMAL_GUARD - DENORMAL_GUARD;
      x = now;
      io[i] = y;
    }
    this.x = x;
    this.y = y;
  }
}
