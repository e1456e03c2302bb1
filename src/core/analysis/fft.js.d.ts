declare module 'fft.js' {
  /** Radix-4 transform of a power of two of samples; complex arrays are pairs of real and imaginary parts. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: number[], samples: ArrayLike<number>): void;
    completeSpectrum(spectrum: number[]): void;
    transform(out: number[], input: ArrayLike<number>): void;
    inverseTransform(out: number[], input: ArrayLike<number>): void;
  }
}
