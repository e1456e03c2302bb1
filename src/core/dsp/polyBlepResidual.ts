/**
 * Two-point polynomial residual of a band-limited step, which is subtracted from a sawtooth to reduce aliasing.
 * Source: V. Valimaki and A. Huovilainen, "Antialiasing Oscillators in Subtractive Synthesis" (2007).
 * @param phase in turns, 0 to 1  @param step turns of a sample
 */
export function polyBlepResidual(phase: number, step: number): number {
  if (phase < step) {
    const t = phase / step;
    return t + t - t * t - 1;
  }
  if (phase > 1 - step) {
    const t = (phase - 1) / step;
    return t * t + t + t + 1;
  }
  return 0;
}
