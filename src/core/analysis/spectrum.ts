import FFT from 'fft.js';

/**
 * Levels in dB of an impulse at the given frequencies: its Fourier transform, interpolated linearly between two bins.
 * @param samples padded with silence to the next power of two
 */
export function responseAt(samples: Float64Array, hz: readonly number[], sampleRate: number): number[] {
  let size = 1024;
  while (size < samples.length) size *= 2;
  const padded = new Float64Array(size);
  padded.set(samples);
  const power = powerSpectrum(padded);
  return hz.map((f) => {
    const at = Math.min(power.length - 2, (f * size) / sampleRate);
    const bin = Math.floor(at);
    const here = power[bin]! + (power[bin + 1]! - power[bin]!) * (at - bin);
    return 10 * Math.log10(Math.max(here, 1e-12));
  });
}

/** |X|^2 of the bins from 0 to half the rate. @param samples a power of two of them */
export function powerSpectrum(samples: Float64Array): Float64Array {
  const fft = new FFT(samples.length);
  const out = fft.createComplexArray();
  fft.realTransform(out, samples);
  return Float64Array.from(
    { length: samples.length / 2 + 1 },
    (_, k) => out[2 * k]! * out[2 * k]! + out[2 * k + 1]! * out[2 * k + 1]!,
  );
}

/** Frequencies spaced logarithmically. */
export const logFrequencies = (from: number, to: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => from * Math.pow(to / from, i / (count - 1)));
