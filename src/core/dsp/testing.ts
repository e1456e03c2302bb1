/** Amplitude of a sine of this frequency in a stretch, by correlation. */
export function amplitudeAt(samples: Float64Array, hz: number, from: number, to: number, sampleRate = 48_000): number {
  let re = 0;
  let im = 0;
  for (let i = from; i < to; i += 1) {
    const angle = (2 * Math.PI * hz * i) / sampleRate;
    re += samples[i]! * Math.cos(angle);
    im += samples[i]! * Math.sin(angle);
  }
  return (2 * Math.hypot(re, im)) / (to - from);
}
