/** Hann's window, periodic: windows half or a quarter of their length apart add up to a constant. */
export const hann = (length: number): Float64Array =>
  Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length));
