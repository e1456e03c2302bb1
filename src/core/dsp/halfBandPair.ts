/**
 * Coefficients of the allpass sections of an elliptic half-band filter made of two parallel branches, in rising order.
 * Source: R. A. Valenzuela and A. G. Constantinides, "Digital Signal Processing Schemes for Efficient Interpolation and
 * Decimation" (1983).
 * @param count sections in both branches together
 * @param transition width of the transition band, as a share of the sample rate
 */
export function halfBandSections(count: number, transition: number): Float64Array {
  const t = Math.tan(((1 - 2 * transition) * Math.PI) / 4) ** 2;
  const root = Math.sqrt(Math.sqrt(1 - t * t));
  const e = (0.5 * (1 - root)) / (1 + root);
  const e4 = e ** 4;
  const q = e * (1 + e4 * (2 + e4 * (15 + 150 * e4)));
  const order = 2 * count + 1;
  return Float64Array.from({ length: count }, (_, i) => {
    const w = ((theta(q, order, i + 1, 0) * Math.pow(q, 0.25)) / (theta(q, order, i + 1, 1) + 0.5)) ** 2;
    const x = Math.sqrt((1 - w * t) * (1 - w / t)) / (1 + w);
    return (1 - x) / (1 + x);
  });
}

/**
 * The two sums of powers of the nome from which an elliptic function is made.
 * @param which 0 above the line, 1 below it
 */
function theta(q: number, order: number, at: number, which: 0 | 1): number {
  let sum = 0;
  for (let i = which; i < 40; i += 1) {
    const power = Math.pow(q, which === 0 ? i * (i + 1) : i * i);
    const angle = (Math.PI * at * (which === 0 ? 2 * i + 1 : 2 * i)) / order;
    const term = power * (which === 0 ? Math.sin(angle) : Math.cos(angle)) * (i % 2 === 0 ? 1 : -1);
    sum += term;
    if (power < 1e-100) break;
  }
  return sum;
}
