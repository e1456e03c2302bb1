import FFT from 'fft.js';

const sizeFor = (samples: number): number => {
  let size = 2;
  while (size < samples) size *= 2;
  return size;
};

function spectrumOf(fft: FFT, samples: ArrayLike<number>, size: number): number[] {
  const padded = new Float64Array(size);
  padded.set(samples);
  const out = fft.createComplexArray();
  fft.realTransform(out, padded);
  fft.completeSpectrum(out);
  return out;
}

/**
 * Convolution of two sounds by one long transform; for work away from the audio thread.
 * @returns as long as both together, less one sample
 */
export function fastConvolve(a: ArrayLike<number>, b: ArrayLike<number>): Float64Array {
  const length = a.length + b.length - 1;
  const size = sizeFor(length);
  const fft = new FFT(size);
  const [x, y] = [spectrumOf(fft, a, size), spectrumOf(fft, b, size)];
  for (let k = 0; k < x.length; k += 2) {
    const re = x[k]! * y[k]! - x[k + 1]! * y[k + 1]!;
    x[k + 1] = x[k]! * y[k + 1]! + x[k + 1]! * y[k]!;
    x[k] = re;
  }
  return realPart(fft, x, length);
}

/**
 * Deconvolution: the impulse response that makes `heard` of `played`. The quotient of their spectra, regularised where
 * `played` has next to nothing (Wiener).
 * @param floor share of the strongest bin's power used as the regularisation
 */
export function fastDeconvolve(heard: ArrayLike<number>, played: ArrayLike<number>, floor = 1e-7): Float64Array {
  const size = sizeFor(heard.length + played.length);
  const fft = new FFT(size);
  const [y, x] = [spectrumOf(fft, heard, size), spectrumOf(fft, played, size)];
  let strongest = 0;
  for (let k = 0; k < x.length; k += 2) strongest = Math.max(strongest, x[k]! * x[k]! + x[k + 1]! * x[k + 1]!);
  for (let k = 0; k < x.length; k += 2) {
    const power = x[k]! * x[k]! + x[k + 1]! * x[k + 1]! + floor * strongest;
    const re = (y[k]! * x[k]! + y[k + 1]! * x[k + 1]!) / power;
    y[k + 1] = (y[k + 1]! * x[k]! - y[k]! * x[k + 1]!) / power;
    y[k] = re;
  }
  return realPart(fft, y, heard.length);
}

function realPart(fft: FFT, spectrum: number[], length: number): Float64Array {
  const back = fft.createComplexArray();
  fft.inverseTransform(back, spectrum);
  return Float64Array.from({ length }, (_, i) => back[2 * i]!);
}
